import { chmodSync, mkdirSync, mkdtempSync, openSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { databaseOf, freshClinic } from './freshClinic.mjs';
import { ensurePackagesBuilt, ensureServerBuilt, ensureWebBuilt } from '../scripts/lib/build.mjs';
import { freePort, startPostgres } from '../scripts/lib/postgres.mjs';
import { prepare, startDevices, startServer, stopServer } from '../scripts/lib/server.mjs';

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
  const made = Array.from({ length: config.workers }, (_, worker) => databaseOf(database, worker));
  for (const copy of made) await freshClinic(copy);
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
