import { chmodSync, mkdirSync, mkdtempSync, openSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { ensurePackagesBuilt, ensureServerBuilt, ensureWebBuilt } from '../scripts/lib/build.mjs';
import { freePort, startPostgres } from '../scripts/lib/postgres.mjs';
import { prepare, startDevices, startServer, stopServer } from '../scripts/lib/server.mjs';

const inDatabase = (url, name) => {
  const changed = new URL(url);
  changed.pathname = `/${name}`;
  return changed.href;
};

/** Copies of a prepared database, one for each worker. */
async function copies(database, count) {
  const admin = new pg.Client({ connectionString: inDatabase(database.ownerUrl, 'postgres') });
  await admin.connect();
  const made = [];
  for (let i = 0; i < count; i += 1) {
    const name = `worker_${i}`;
    await admin.query(`CREATE DATABASE ${name} TEMPLATE heathstep`);
    made.push({
      ownerUrl: inDatabase(database.ownerUrl, name),
      appUrl: inDatabase(database.appUrl, name),
    });
  }
  await admin.end();
  return made;
}

/** The built application for each worker, on a database of its own with the demo clinic, for as long as the tests run. */
export default async function setup(config) {
  ensurePackagesBuilt();
  ensureServerBuilt();
  ensureWebBuilt();
  const folder = mkdtempSync(join(tmpdir(), 'heathstep-e2e-'));
  chmodSync(folder, 0o755);
  const database = await startPostgres(folder, { fast: true, url: '' });
  const [signIn] = await prepare(database, join(folder, 'demo.json'));
  const running = [];
  // A log that can never be written, as on a full disk: nobody is to notice.
  const full = openSync('/dev/full', 'w');
  const made = await copies(database, config.workers);
  const urls = await Promise.all(
    made.map(async (copy) => {
      const [devices, port] = await Promise.all([startDevices(), freePort()]);
      running.push(devices.child);
      running.push(await startServer(copy, port, { HEATHSTEP_DEVICES_URL: devices.url }, full, 'inherit'));
      return `http://127.0.0.1:${port}`;
    }),
  );
  process.env.E2E_SEEN = join(folder, 'seen');
  mkdirSync(process.env.E2E_SEEN);
  process.env.E2E_URLS = JSON.stringify(urls);
  process.env.E2E_DATABASES = JSON.stringify(made);
  process.env.E2E_PASSWORD = signIn.password;
  return async () => {
    await Promise.all(running.map(stopServer));
    await database.stop();
    rmSync(folder, { recursive: true, force: true });
  };
}
