// Brings a database back to a moment before a mistake, from a base copy and the archive of what was written since, as
// docs/running.md says it; prints what stands then. In a folder of its own that is gone afterwards.
import { spawnSync } from 'node:child_process';
import {
  appendFileSync,
  chmodSync,
  copyFileSync,
  cpSync,
  mkdirSync,
  mkdtempSync,
  realpathSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import pg from 'pg';
import { ensureDebian, POSTGRES } from './lib/debian.mjs';
import { startPostgres } from './lib/postgres.mjs';

const [found] = ensureDebian(POSTGRES);
// Where its programs really are, if what was found only points there.
const bin = dirname(realpathSync(join(found, 'postgres')));
const root = mkdtempSync(join(tmpdir(), 'heathstep-moment-'));
chmodSync(root, 0o755);
const archive = join(root, 'wal');
mkdirSync(archive);
// The database writes here, whoever it runs as.
chmodSync(archive, 0o777);

async function run(url, ...statements) {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  let rows = [];
  for (const statement of statements) ({ rows } = await client.query(statement));
  await client.end();
  return rows;
}

function must(command, args, env = {}) {
  const done = spawnSync(command, args, { encoding: 'utf8', env: { ...process.env, ...env } });
  if (done.status !== 0) throw new Error(`${command} ${args.join(' ')}: ${done.stderr}`);
}

let running = await startPostgres(join(root, 'data'), { url: '' });
try {
  await run(
    running.ownerUrl,
    'ALTER SYSTEM SET archive_mode = on',
    `ALTER SYSTEM SET archive_command = 'test ! -f ${archive}/%f && cp %p ${archive}/%f'`,
    'CREATE TABLE kept (word text)',
    "INSERT INTO kept VALUES ('before the copy')",
  );
  await running.stop();
  running = await startPostgres(join(root, 'data'), { url: '' });
  const { hostname, port, username, password } = new URL(running.ownerUrl);
  const base = join(root, 'base');
  must(
    join(bin, 'pg_basebackup'),
    ['-h', hostname, '-p', port, '-U', username, '-D', base, '-X', 'stream', '-c', 'fast'],
    { PGPASSWORD: password },
  );
  const [{ moment }] = await run(
    running.ownerUrl,
    "INSERT INTO kept VALUES ('after the copy')",
    'SELECT clock_timestamp()::text AS moment',
  );
  await run(
    running.ownerUrl,
    'SELECT pg_sleep(0.1)',
    "UPDATE kept SET word = 'spoiled'",
    'SELECT pg_switch_wal()',
  );
  // Stopping archives what is left.
  await running.stop();

  const fresh = join(root, 'new');
  mkdirSync(fresh, { mode: 0o755 });
  copyFileSync(join(root, 'data', 'secrets.json'), join(fresh, 'secrets.json'));
  const cluster = join(fresh, 'postgres');
  cpSync(base, cluster, { recursive: true });
  writeFileSync(join(cluster, 'recovery.signal'), '');
  appendFileSync(
    join(cluster, 'postgresql.auto.conf'),
    `restore_command = 'cp ${archive}/%f %p'\nrecovery_target_time = '${moment}'\nrecovery_target_action = 'promote'\n`,
  );
  const { uid, gid } = statSync(join(root, 'data', 'postgres'));
  must('chown', ['-R', `${uid}:${gid}`, cluster]);
  chmodSync(cluster, 0o700);
  running = await startPostgres(fresh, { url: '' });
  const rows = await run(running.ownerUrl, 'SELECT word FROM kept ORDER BY word DESC');
  console.log(JSON.stringify(rows.map((r) => r.word)));
} finally {
  await running.stop();
  rmSync(root, { recursive: true, force: true });
}
process.exit(0);
