// npm start: everything, from a bare clone to a running clinic with demo data. See docs/architecture.md.
import { openSync } from 'node:fs';
import { join } from 'node:path';
import { ensureInstalled } from './lib/install.mjs';
import { DATA } from './lib/paths.mjs';
import { say } from './lib/say.mjs';

const port = Number(process.env.PORT ?? 4310);
const stops = [];
let stopping = null;

function stop(code) {
  stopping ??= (async () => {
    for (const step of stops.reverse()) await step().catch((error) => say(String(error)));
    process.exit(code);
  })();
  return stopping;
}

async function main() {
  ensureInstalled();
  const { ensurePackagesBuilt, ensureServerBuilt, ensureWebBuilt } = await import('./lib/build.mjs');
  const { lockData } = await import('./lib/lock.mjs');
  const { reachable, startPostgres } = await import('./lib/postgres.mjs');
  const { portIsFree, prepare, startDevices, startServer, stopServer } = await import('./lib/server.mjs');
  if (!Number.isInteger(port) || port < 1 || port > 65535)
    throw new Error(`PORT must be a number from 1 to 65535, not ${process.env.PORT}`);
  const lock = lockData(DATA);
  // A server whose start was killed a moment ago needs a moment to let go of the port.
  for (let i = 0; lock.left && i < 50 && !(await portIsFree(port)); i += 1)
    await new Promise((r) => setTimeout(r, 100));
  if (!(await portIsFree(port)))
    throw new Error(`Port ${port} is taken by another program. Choose another: PORT=4311 npm start`);
  lock.hold(port);
  stops.push(async () => lock.release());
  const closed = reachable(DATA);
  if (closed !== true)
    throw new Error(
      `The folder ${closed} is closed to other users, so the database cannot run there as an unprivileged one. Set HEATHSTEP_DATA to another folder.`,
    );
  if (ensurePackagesBuilt()) say('Built the packages');
  if (ensureServerBuilt()) say('Built the server');
  if (ensureWebBuilt()) say('Built the web application');
  const database = await startPostgres(DATA);
  stops.push(database.stop);
  const signIns = await prepare(database, join(DATA, 'demo-sign-ins.json'));
  const devices = await startDevices();
  stops.push(() => stopServer(devices.child));
  const log = openSync(join(DATA, 'server.log'), 'a');
  const server = await startServer(
    database,
    port,
    { NODE_ENV: 'production', HEATHSTEP_DEVICES_URL: devices.url },
    log,
  );
  stops.push(() => stopServer(server));
  server.once('exit', (code) => {
    if (stopping === null) {
      say(`The server ended by itself (${code})`);
      stop(1);
    }
  });
  process.stdout.write(`Heathstep is ready at http://127.0.0.1:${port}\n`);
  process.stdout.write('Demo sign-ins (made-up clinic):\n');
  for (const { email, password, role } of signIns)
    process.stdout.write(`  ${role.padEnd(10)} ${email.padEnd(34)} ${password}\n`);
}

process.on('SIGINT', () => stop(0));
process.on('SIGTERM', () => stop(0));
process.on('SIGHUP', () => stop(0));
main().catch((error) => {
  if (stopping !== null) return;
  say(`Heathstep could not start: ${error.message}`);
  stop(1);
});
