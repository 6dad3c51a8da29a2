// A copy of the database as one encrypted file, and back. The file is of the age format (a passphrase as its recipient); within
// it eight bytes say how long a manifest in JSON is, then come the manifest and a dump that pg_restore reads.
import { spawn } from 'node:child_process';
import {
  createReadStream,
  createWriteStream,
  existsSync,
  readFileSync,
  realpathSync,
  renameSync,
  rmSync,
} from 'node:fs';
import { dirname, join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Decrypter, Encrypter } from 'age-encryption';
import pg from 'pg';
import { ensureDebian, POSTGRES } from './debian.mjs';

/** The shortest passphrase that is taken. [convention] */
const SHORTEST = 16;
/** What each try at a passphrase costs, as a power of two: half a second and 64 MB here. [convention] */
const WORK = 16;
const HEAD = 8;
const LONGEST_MANIFEST = 1_000_000;

/** From the environment or a file it names, never from the command line, where others see it. */
export function passphrase(env = process.env) {
  const file = env.HEATHSTEP_BACKUP_PASSPHRASE_FILE ?? '';
  const said = file === '' ? (env.HEATHSTEP_BACKUP_PASSPHRASE ?? '') : readFileSync(file, 'utf8').trim();
  if (said.length < SHORTEST)
    throw new Error(
      `Set HEATHSTEP_BACKUP_PASSPHRASE_FILE to a file with a passphrase of ${SHORTEST} characters or more. Without it nobody can read the backup again.`,
    );
  return said;
}

/** How PostgreSQL’s programs reach a database: by their environment, so that no password is in a list of processes. */
function reaching(url) {
  const { hostname, port, username, password, pathname, searchParams } = new URL(url);
  return {
    ...process.env,
    PGHOST: hostname,
    PGPORT: port || '5432',
    PGUSER: decodeURIComponent(username),
    PGPASSWORD: decodeURIComponent(password),
    PGDATABASE: decodeURIComponent(pathname.slice(1)),
    ...(searchParams.has('sslmode') ? { PGSSLMODE: searchParams.get('sslmode') } : {}),
  };
}

/** Beside the server’s own programs, else wherever the path has it. */
function placeOf(name) {
  const beside = join(dirname(realpathSync(join(ensureDebian(POSTGRES)[0], 'postgres'))), name);
  return existsSync(beside) ? beside : name;
}

/** One of PostgreSQL’s programs with pipes; `ended` rejects with what it said. */
function program(name, args, url) {
  const child = spawn(placeOf(name), args, {
    env: reaching(url),
    stdio: ['pipe', 'pipe', 'pipe'],
  });
  let said = '';
  child.stderr.on('data', (chunk) => (said = (said + chunk).slice(-2000)));
  const ended = new Promise((resolve, reject) => {
    child.on('error', reject);
    child.on('close', (code) =>
      code === 0 ? resolve() : reject(new Error(`${name} ended with ${code}: ${said.trim()}`)),
    );
  });
  return { child, ended };
}

const TABLES = `SELECT n.nspname AS schema, c.relname AS name FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
  WHERE c.relkind = 'r' AND n.nspname NOT IN ('pg_catalog', 'information_schema') ORDER BY 1, 2`;

/** Every table with its rows and a sum over them, whatever order they are in. */
async function tablesOf(client) {
  const { rows } = await client.query(TABLES);
  const told = {};
  for (const { schema, name } of rows) {
    const table = `${pg.escapeIdentifier(schema)}.${pg.escapeIdentifier(name)}`;
    const { rows: sums } = await client.query(
      `SELECT count(*)::int AS rows, coalesce(sum(('x' || left(md5(t::text), 15))::bit(60)::bigint::numeric), 0)::text AS sum FROM ${table} t`,
    );
    told[`${schema}.${name}`] = sums[0];
  }
  return told;
}

async function inClient(url, work) {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    await client.query("SET timezone = 'UTC'");
    return await work(client);
  } finally {
    await client.end();
  }
}

async function* framed(manifest, dump) {
  const text = Buffer.from(JSON.stringify(manifest));
  const head = Buffer.alloc(HEAD);
  head.writeBigUInt64BE(BigInt(text.length));
  yield head;
  yield text;
  yield* dump;
}

/** Writes the database of `url` to `file`, all of it as it stood at one moment; the file is there when it is whole. Returns the manifest. */
export async function writeBackup(url, file, secret) {
  return inClient(url, async (client) => {
    await client.query('BEGIN ISOLATION LEVEL REPEATABLE READ READ ONLY');
    const { rows } = await client.query('SELECT pg_export_snapshot() AS snapshot');
    const role = await client.query(
      `SELECT DISTINCT grantee AS name FROM information_schema.role_table_grants
        WHERE table_name = 'person' AND grantee NOT IN (current_user, 'PUBLIC')`,
    );
    const migrations = await client.query('SELECT name FROM migration ORDER BY id');
    const manifest = {
      format: 'heathstep backup 1',
      made: new Date().toISOString(),
      appRole: role.rows[0]?.name ?? 'heathstep_app',
      migrations: migrations.rows.map((m) => m.name),
      tables: await tablesOf(client),
    };
    const dump = program('pg_dump', ['--format=custom', '--no-owner', `--snapshot=${rows[0].snapshot}`], url);
    dump.child.stdin.end();
    const encrypter = new Encrypter();
    encrypter.setPassphrase(secret);
    encrypter.setScryptWorkFactor(WORK);
    const whole = await encrypter.encrypt(Readable.toWeb(Readable.from(framed(manifest, dump.child.stdout))));
    const part = `${file}.part`;
    try {
      await Promise.all([
        pipeline(Readable.fromWeb(whole), createWriteStream(part, { mode: 0o600, flush: true })),
        dump.ended,
      ]);
      renameSync(part, file);
    } catch (error) {
      rmSync(part, { force: true });
      throw error;
    }
    return manifest;
  });
}

/** The manifest of a decrypted stream, and a function that gives what comes after it, piece by piece. */
async function opened(stream) {
  const pieces = stream[Symbol.asyncIterator]();
  let held = Buffer.alloc(0);
  const atLeast = async (bytes) => {
    while (held.length < bytes) {
      const { done, value } = await pieces.next();
      if (done) throw new Error('The backup ends before its manifest does');
      held = Buffer.concat([held, value]);
    }
  };
  await atLeast(HEAD);
  const length = Number(held.readBigUInt64BE());
  if (length > LONGEST_MANIFEST) throw new Error('This is no backup of Heathstep');
  await atLeast(HEAD + length);
  const manifest = JSON.parse(held.subarray(HEAD, HEAD + length).toString('utf8'));
  const rest = held.subarray(HEAD + length);
  return {
    manifest,
    dump: (async function* () {
      yield rest;
      for (let next = await pieces.next(); !next.done; next = await pieces.next()) yield next.value;
    })(),
  };
}

/** Differences between what a backup says and what a database has, a line each. */
async function differences(url, manifest) {
  const there = await inClient(url, tablesOf);
  const names = [...new Set([...Object.keys(manifest.tables), ...Object.keys(there)])];
  return names.flatMap((name) => {
    const [said, found] = [manifest.tables[name], there[name]];
    if (said === undefined) return [`${name}: not in the backup`];
    if (found === undefined) return [`${name}: missing`];
    if (said.rows !== found.rows) return [`${name}: ${found.rows} rows, ${said.rows} in the backup`];
    return said.sum === found.sum ? [] : [`${name}: rows differ`];
  });
}

/** The roles that the rights in a dump are given to must be there; under another name than ours it takes ours afterwards. */
async function withRole(url, name, work) {
  const role = pg.escapeIdentifier(name);
  const renamed = name !== 'heathstep_app';
  if (renamed) await inClient(url, (c) => c.query(`CREATE ROLE ${role} LOGIN`));
  await work();
  if (renamed)
    await inClient(url, async (c) => {
      await c.query('DROP ROLE heathstep_app');
      await c.query(`ALTER ROLE ${role} RENAME TO heathstep_app`);
    });
}

/** A file decrypted: its manifest, and the dump piece by piece. Throws where it is none of ours or of a newer version. */
async function unlocked(file, secret, known) {
  const decrypter = new Decrypter();
  decrypter.addPassphrase(secret);
  let decrypted;
  try {
    decrypted = await decrypter.decrypt(Readable.toWeb(createReadStream(file)));
  } catch (error) {
    throw new Error(`${file} cannot be opened: ${error.message}. Is the passphrase the right one?`, {
      cause: error,
    });
  }
  const { manifest, dump } = await opened(Readable.fromWeb(decrypted));
  if (manifest.format !== 'heathstep backup 1') throw new Error('This is no backup of Heathstep');
  const newer = manifest.migrations.filter((m) => !known.includes(m));
  if (newer.length > 0)
    throw new Error(`This backup was made by a newer version (${newer.join(', ')}): update first`);
  return { manifest, dump };
}

/** Reads a whole file, to be sure before anything is made of it that it is as it was written and not cut off. */
export async function checkBackup(file, secret, known) {
  const { dump } = await unlocked(file, secret, known);
  try {
    for await (const _ of dump);
  } catch (error) {
    throw new Error(`${file} is cut off or was changed: ${error.message}`, { cause: error });
  }
}

/** Reads a backup into an empty database and compares every table with what the backup says of it. Throws with what differs. */
export async function readBackup(file, secret, url, known) {
  const { manifest, dump } = await unlocked(file, secret, known);
  await withRole(url, manifest.appRole, async () => {
    const restore = program(
      'pg_restore',
      ['--no-owner', '--exit-on-error', '--dbname', new URL(url).pathname.slice(1)],
      url,
    );
    restore.child.stdout.resume();
    await Promise.all([pipeline(Readable.from(dump), restore.child.stdin), restore.ended]);
  });
  const wrong = await differences(url, manifest);
  if (wrong.length > 0) throw new Error(`What was read back differs:\n${wrong.join('\n')}`);
  return manifest;
}
