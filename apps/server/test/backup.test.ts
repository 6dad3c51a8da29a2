import { execFile } from 'node:child_process';
import { chmodSync, existsSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Client } from 'pg';
import { runningPostgres, startPostgres } from '../../../scripts/lib/postgres.mjs';
import { checkAudit } from '../src/audit/chain.js';
import { makeWorld, treated, type World } from './harness.js';

const SCRIPTS = join(__dirname, '..', '..', '..', 'scripts');
const SECRET = 'moss violin harbour seventeen';

interface Ended {
  readonly code: number;
  readonly said: string;
}

const run = (script: string, args: readonly string[], env: NodeJS.ProcessEnv): Promise<Ended> =>
  new Promise((resolve) => {
    execFile(
      process.execPath,
      [join(SCRIPTS, script), ...args],
      { env: { ...process.env, NODE_OPTIONS: '', ...env } },
      (error, out, err) => resolve({ code: error === null ? 0 : Number(error.code), said: out + err }),
    );
  });

describe('a backup', () => {
  let world: World;
  let folder: string;
  let file: string;
  let url: string;
  beforeAll(async () => {
    world = await makeWorld();
    await treated(await world.as(0, 'clinician'));
    await world.owner.query('SELECT seal_audit()');
    folder = mkdtempSync(join(tmpdir(), 'heathstep-backup-'));
    chmodSync(folder, 0o755);
    file = join(folder, 'one.backup');
    const whole = new URL(process.env['HEATHSTEP_TEST_OWNER_URL'] ?? '');
    whole.pathname = new URL(world.appUrl).pathname;
    url = whole.href;
  });
  afterAll(async () => {
    rmSync(folder, { recursive: true, force: true });
    await world.stop();
  });
  const backup = (to: string, env: NodeJS.ProcessEnv = {}) =>
    run('backup.mjs', [to], {
      DATABASE_URL: url,
      HEATHSTEP_BACKUP_PASSPHRASE: SECRET,
      ...env,
    });
  const restore = (from: string, data: string) =>
    run('restore.mjs', [from], {
      DATABASE_URL: '',
      HEATHSTEP_DATA: join(folder, data),
      HEATHSTEP_BACKUP_PASSPHRASE: SECRET,
    });

  it('is made, read back into a fresh cluster and compared before it is called done; only its owner may read it', async () => {
    const made = await backup(file);
    expect(made).toMatchObject({ code: 0 });
    expect(made.said).toMatch(/Read back whole: every table has the same rows/);
    expect(statSync(file).mode & 0o077).toBe(0);
    expect(readFileSync(file).includes('Bram')).toBe(false);
    expect(readFileSync(file, 'latin1').slice(0, 21)).toBe('age-encryption.org/v1');
  });

  it('is restored with the same rows, the same rights and a log that fits its seals', async () => {
    const made = await restore(file, 'back');
    expect(made).toMatchObject({ code: 0 });
    const data = join(folder, 'back');
    const database = (await runningPostgres(data)) ?? (await startPostgres(data, { fast: true, url: '' }));
    const [owner, app] = [
      new Client({ connectionString: database.ownerUrl }),
      new Client({ connectionString: database.appUrl }),
    ];
    try {
      await owner.connect();
      await app.connect();
      const sql = 'SELECT id, name, birth_date::text, version FROM person ORDER BY id';
      const { rows } = await owner.query<object>(sql);
      expect(rows).toEqual(await world.owner.query(sql));
      const asked = {
        query: async <T>(q: string, p: unknown[]) => (await owner.query(q, p)).rows as T,
      };
      expect(await checkAudit(asked, world.clinics[0])).toMatchObject({ seals: 1, brokenAt: null });
      // What a clinic may see is bound as before: the application sees no one without entering a clinic.
      expect((await app.query('SELECT * FROM person')).rows).toEqual([]);
      await app.query('BEGIN');
      await app.query('SELECT enter_clinic($1)', [world.clinics[0]]);
      expect((await app.query('SELECT * FROM person')).rowCount).toBe(rows.length);
      await app.query('ROLLBACK');
      await expect(app.query('DELETE FROM audit')).rejects.toThrow(/permission denied/);
    } finally {
      await owner.end();
      await app.end();
      await database.stop();
    }
  });

  it('never takes the place of a database that is there, nor of another backup', async () => {
    expect(await restore(file, 'back')).toMatchObject({ code: 1 });
    const again = await backup(file);
    expect(again.code).toBe(1);
    expect(again.said).toContain('is there already');
  });

  /** What reading files whole says, each with its passphrase and the migrations that are known; in one process. */
  async function checked(
    tries: readonly (readonly [string, string, readonly string[]])[],
  ): Promise<string[]> {
    const code = `import { checkBackup } from ${JSON.stringify(join(SCRIPTS, 'lib', 'backup.mjs'))};
      for (const [file, secret, known] of JSON.parse(process.argv[1]))
        console.log(await checkBackup(file, secret, known).then(() => 'whole', (e) => e.message));`;
    const said = await new Promise<string>((resolve, reject) => {
      execFile(
        process.execPath,
        ['--input-type=module', '-e', code, JSON.stringify(tries)],
        { env: { ...process.env, NODE_OPTIONS: '' } },
        (error, out, err) => (error === null ? resolve(out) : reject(new Error(err))),
      );
    });
    return said.trim().split('\n');
  }

  it('that is cut off, changed, of a newer version or opened with another passphrase is told before anything is made', async () => {
    const bytes = readFileSync(file);
    const cut = join(folder, 'cut.backup');
    writeFileSync(cut, bytes.subarray(0, Math.floor(bytes.length / 2)));
    const changed = join(folder, 'changed.backup');
    const at = Math.floor(bytes.length * 0.7);
    const other = Buffer.from(bytes);
    other[at] = (other[at] ?? 0) ^ 1;
    writeFileSync(changed, other);
    const known = (await world.owner.query<{ name: string }[]>('SELECT name FROM migration')).map(
      (m) => m.name,
    );
    const said = await checked([
      [file, SECRET, known],
      [cut, SECRET, known],
      [changed, SECRET, known],
      [file, 'another passphrase of theirs', known],
      [file, SECRET, known.slice(0, -1)],
    ]);
    expect(said).toEqual([
      'whole',
      expect.stringMatching(/is cut off or was changed/),
      expect.stringMatching(/is cut off or was changed/),
      expect.stringMatching(/Is the passphrase the right one\?/),
      expect.stringContaining(`made by a newer version (${known.at(-1) ?? ''})`),
    ]);
    expect(await restore(cut, 'cut')).toMatchObject({ code: 1 });
    expect(existsSync(join(folder, 'cut', 'postgres'))).toBe(false);
  });

  it('asks for a passphrase that is long enough', async () => {
    const short = await backup(join(folder, 'short.backup'), { HEATHSTEP_BACKUP_PASSPHRASE: 'short' });
    expect(short.code).toBe(1);
    expect(short.said).toContain('16 characters or more');
  });
});
