// npm start: everything, from a bare clone to a running clinic with demo data. See docs/architecture.md.
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
  const { openLog } = await import('./lib/log.mjs');
  const { reachable, startPostgres } = await import('./lib/postgres.mjs');
  const { supervise } = await import('./lib/supervise.mjs');
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
  let database = await startPostgres(DATA);
  stops.push(() => database.stop());
  const watched = { giveUp: () => stop(1), stopping: () => stopping !== null };
  if (database.ended !== undefined)
    void supervise(
      'The database',
      async () => (database = await startPostgres(DATA, { port: database.port })),
      { first: database, ...watched },
    );
  const signIns = await prepare(database, join(DATA, 'demo-sign-ins.json'));
  const devices = await startDevices();
  stops.push(() => stopServer(devices.child));
  const log = openLog(join(DATA, 'server.log'));
  let server;
  const begin = async () => {
    server = await startServer(
      database,
      port,
      { NODE_ENV: 'production', HEATHSTEP_DEVICES_URL: devices.url },
      log,
    );
    const running = server;
    return {
      ended: new Promise((resolve) => running.once('exit', (code, signal) => resolve(code ?? signal))),
    };
  };
  const first = await begin();
  stops.push(() => stopServer(server));
  void supervise('The server', begin, { first, ...watched });
  process.stdout.write(`Heathstep is ready at http://127.0.0.1:${port}\n`);
  if (signIns.length > 0) process.stdout.write('Demo sign-ins (made-up clinic):\n');
  for (const { email, password, role } of signIns)
    process.stdout.write(`  ${role.padEnd(10)} ${email.padEnd(34)} ${password}\n`);
}

/** npm ends on a signal without us: when it is gone, nobody is left who could end us. */
function endWithParent() {
  if (process.env.npm_lifecycle_event !== 'start') return;
  const parent = process.ppid;
  setInterval(() => {
    if (process.ppid !== parent) stop(0);
  }, 500).unref();
}

endWithParent();
process.on('SIGINT', () => stop(0));
process.on('SIGTERM', () => stop(0));
process.on('SIGHUP', () => stop(0));
main().catch((error) => {
  if (stopping !== null) return;
  say(`Heathstep could not start: ${error.message}`);
  stop(1);
});
