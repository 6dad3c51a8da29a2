import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startPostgres } from '../../../scripts/lib/postgres.mjs';

/** One throwaway PostgreSQL for all API tests; each test file makes a database of its own in it. */
export default async function setup() {
  const folder = mkdtempSync(join(process.env.HEATHSTEP_TEST_DIR ?? tmpdir(), 'heathstep-test-'));
  const { chmodSync } = await import('node:fs');
  chmodSync(folder, 0o755);
  const database = await startPostgres(folder, { fast: true, url: '' });
  process.env.HEATHSTEP_TEST_OWNER_URL = database.ownerUrl;
  process.env.HEATHSTEP_TEST_APP_URL = database.appUrl;
  globalThis.heathstepTest = { database, folder };
}
