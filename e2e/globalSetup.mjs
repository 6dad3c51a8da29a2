import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensurePackagesBuilt, ensureServerBuilt, ensureWebBuilt } from '../scripts/lib/build.mjs';
import { freePort, startPostgres } from '../scripts/lib/postgres.mjs';
import { prepare, startDevices, startServer, stopServer } from '../scripts/lib/server.mjs';

/** The built application on a database of its own with the demo clinic, for as long as the tests run. */
export default async function setup() {
  ensurePackagesBuilt();
  ensureServerBuilt();
  ensureWebBuilt();
  const folder = mkdtempSync(join(tmpdir(), 'heathstep-e2e-'));
  chmodSync(folder, 0o755);
  const database = await startPostgres(folder, { fast: true, url: '' });
  const [signIn] = await prepare(database, join(folder, 'demo.json'));
  const devices = await startDevices();
  const port = await freePort();
  const server = await startServer(database, port, {
    HEATHSTEP_LOG: 'silent',
    HEATHSTEP_DEVICES_URL: devices.url,
  });
  process.env.E2E_URL = `http://127.0.0.1:${port}`;
  process.env.E2E_PASSWORD = signIn.password;
  return async () => {
    await stopServer(server);
    await stopServer(devices.child);
    await database.stop();
    rmSync(folder, { recursive: true, force: true });
  };
}
