// npm run restore -- FILE: a backup into a data folder that has no database yet, compared with what the backup says. See docs/running.md.
import { existsSync, renameSync, rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { ensureInstalled } from './lib/install.mjs';
import { DATA } from './lib/paths.mjs';
import { say } from './lib/say.mjs';

ensureInstalled();
const { checkBackup, passphrase, readBackup } = await import('./lib/backup.mjs');
const { ensurePackagesBuilt, ensureServerBuilt } = await import('./lib/build.mjs');
const { startPostgres } = await import('./lib/postgres.mjs');

async function restore() {
  const [named] = process.argv.slice(2);
  if (named === undefined) throw new Error('Name the file: npm run restore -- FILE');
  const file = resolve(named);
  if (!existsSync(file)) throw new Error(`There is no ${file}`);
  const cluster = join(DATA, 'postgres');
  if (existsSync(cluster))
    throw new Error(
      `There is a database in ${DATA} already. Move the folder away, or set HEATHSTEP_DATA to a new one: nothing is written over.`,
    );
  const secret = passphrase();
  ensurePackagesBuilt();
  ensureServerBuilt();
  const { databaseOptions } = await import('../apps/server/dist/persistence/options.js');
  const known = databaseOptions('').migrations.map((m) => m.name);
  await checkBackup(file, secret, known);
  const database = await startPostgres(DATA, { url: '' });
  let whole = false;
  try {
    const manifest = await readBackup(file, secret, database.ownerUrl, known);
    whole = true;
    const rows = Object.values(manifest.tables).reduce((n, t) => n + t.rows, 0);
    say(
      `Restored into ${DATA}: ${rows} rows as they stood on ${manifest.made}, each table compared. Start as usual.`,
    );
  } finally {
    await database.stop();
    // Half of it is never started by mistake.
    if (!whole && existsSync(cluster)) {
      rmSync(`${cluster}.failed`, { recursive: true, force: true });
      renameSync(cluster, `${cluster}.failed`);
    }
  }
}

await restore().catch((error) => {
  say(error.message);
  process.exitCode = 1;
});
