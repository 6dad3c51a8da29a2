// npm run backup -- FILE: the database as one encrypted file, read back into a throwaway cluster and compared before it is called done.
// With --unverified it is not read back. See docs/running.md.
import { chmodSync, existsSync, mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { ensureInstalled } from './lib/install.mjs';
import { DATA } from './lib/paths.mjs';
import { say } from './lib/say.mjs';

ensureInstalled();
const { passphrase, readBackup, writeBackup } = await import('./lib/backup.mjs');
const { runningPostgres, startPostgres } = await import('./lib/postgres.mjs');

/** Reads the file back into a cluster of its own that is gone afterwards. */
async function verify(file, secret, manifest) {
  const folder = mkdtempSync(join(tmpdir(), 'heathstep-verify-'));
  chmodSync(folder, 0o755);
  const fresh = await startPostgres(folder, { fast: true, url: '' });
  try {
    await readBackup(file, secret, fresh.ownerUrl, manifest.migrations);
  } finally {
    await fresh.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

async function backup() {
  const [named, ...flags] = process.argv
    .slice(2)
    .sort((a, b) => Number(a.startsWith('--')) - Number(b.startsWith('--')));
  if (named === undefined || named.startsWith('--')) throw new Error('Name the file: npm run backup -- FILE');
  const file = resolve(named);
  if (existsSync(file))
    throw new Error(`${file} is there already; a backup never takes the place of another`);
  const secret = passphrase();
  if (!process.env.DATABASE_URL && !existsSync(join(DATA, 'postgres', 'PG_VERSION')))
    throw new Error(`There is no database in ${DATA}`);
  const external = process.env.DATABASE_URL;
  const database = external
    ? { ownerUrl: external, stop: async () => {} }
    : ((await runningPostgres(DATA)) ?? (await startPostgres(DATA)));
  try {
    const manifest = await writeBackup(database.ownerUrl, file, secret);
    const tables = Object.values(manifest.tables);
    const rows = tables.reduce((n, t) => n + t.rows, 0);
    const size = (statSync(file).size / 1024 / 1024).toFixed(1);
    if (flags.includes('--unverified')) {
      say(`${file}: ${rows} rows of ${tables.length} tables, ${size} MB. Not read back.`);
      return;
    }
    await verify(file, secret, manifest);
    say(
      `${file}: ${rows} rows of ${tables.length} tables, ${size} MB. Read back whole: every table has the same rows.`,
    );
  } finally {
    await database.stop();
  }
}

await backup().catch((error) => {
  say(error.message);
  process.exitCode = 1;
});
