import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Client } from 'pg';
import { DataSource, type MigrationInterface, type QueryRunner } from 'typeorm';
import { DecisionRow, ENTITIES, HomeEntry, Person, PlanRow, Visit } from '../src/persistence/entities.js';
import { databaseOptions } from '../src/persistence/options.js';
import { NotUpdatedError, prepareDatabase } from '../src/persistence/prepare.js';

type Migration = new () => MigrationInterface;

const MIGRATIONS = databaseOptions('').migrations as Migration[];
const OLDEST = readFileSync(join(__dirname, 'oldest.sql'), 'utf8');

/** Does half of its work, and fails. */
class Broken1999999999999 implements MigrationInterface {
  name = 'Broken1999999999999';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE person ADD COLUMN half text');
    await runner.query("UPDATE person SET name = 'gone'");
    await runner.query('ALTER TABLE nowhere ADD COLUMN half text');
  }

  async down(): Promise<void> {
    // It never got there.
  }
}

describe('an older data folder', () => {
  let url = '';

  beforeEach(async () => {
    const name = `u_${randomUUID().replaceAll('-', '')}`;
    const admin = new Client({ connectionString: process.env['HEATHSTEP_TEST_OWNER_URL'] });
    await admin.connect();
    await admin.query(`CREATE DATABASE ${name}`);
    await admin.end();
    const changed = new URL(process.env['HEATHSTEP_TEST_OWNER_URL'] ?? '');
    changed.pathname = `/${name}`;
    url = changed.href;
  });

  const upTo = async (count: number, more: readonly Migration[] = []): Promise<DataSource> =>
    (await prepareDatabase(url, 'heathstep_app', [...MIGRATIONS.slice(0, count), ...more])).source;

  /** How many rows of each table there are that the first version had. */
  const counts = async (source: DataSource): Promise<Record<string, number>> => {
    const tables = [...OLDEST.matchAll(/INSERT INTO (\w+)/g)].map((m) => m[1] ?? '');
    const all: Record<string, number> = {};
    for (const table of tables) {
      const [row] = await source.query<{ n: number }[]>(`SELECT count(*)::int AS n FROM ${table}`);
      all[table] = row?.n ?? 0;
    }
    return all;
  };

  it('is brought up to date from every schema there has been, with all that stood in it', async () => {
    const first = await upTo(1);
    await first.query(OLDEST);
    const before = await counts(first);
    await first.destroy();
    expect(Object.values(before).every((n) => n === 1)).toBe(true);
    for (let schema = 2; schema <= MIGRATIONS.length; schema += 1) {
      const source = await upTo(schema);
      expect([schema, await counts(source)]).toEqual([schema, before]);
      await source.destroy();
    }
    const { source, applied } = await prepareDatabase(url, 'heathstep_app');
    expect(applied).toBe(0);
    // The application of now reads all of it.
    for (const entity of ENTITIES) await source.manager.find(entity);
    expect(await source.manager.findOneByOrFail(Person, {})).toMatchObject({
      name: 'Bram Sedge',
      birthDate: '1970-02-03',
    });
    expect(await source.manager.findOneByOrFail(PlanRow, {})).toMatchObject({ status: 'given', number: 1 });
    expect((await source.manager.findOneByOrFail(Visit, {})).signedAt?.toISOString()).toBe(
      '2026-01-01T10:00:00.000Z',
    );
    expect(await source.manager.findOneByOrFail(DecisionRow, {})).toMatchObject({
      decision: 'hold',
      agreed: true,
    });
    // What was logged at home in the first form is read in the form of now.
    expect((await source.manager.findOneByOrFail(HomeEntry, {})).payload).toEqual({
      scores: { before: 3, during: 4, after: 3, 'hour-above': null },
      exercises: [{ exercise: 'towel-gather', sets: 3, reps: 10, effort: 5 }],
    });
    await source.destroy();
  });

  it('stays whole where an update fails half way, and says so', async () => {
    const half = Math.floor(MIGRATIONS.length / 2);
    const old = await upTo(1);
    await old.query(OLDEST);
    await old.destroy();
    await (await upTo(half)).destroy();
    const failing = prepareDatabase(url, 'heathstep_app', [...MIGRATIONS, Broken1999999999999]);
    await expect(failing).rejects.toThrow(NotUpdatedError);
    await expect(failing).rejects.toThrow(/as it was before: .*nowhere/);
    // Nothing of what came before the one that failed stands either, and the version before goes on with it.
    const source = await upTo(half);
    const done = await source.query<{ name: string }[]>('SELECT name FROM migration ORDER BY id');
    expect(done.map((d) => d.name)).toEqual(MIGRATIONS.slice(0, half).map((m) => m.name));
    expect(await source.query('SELECT name FROM person')).toEqual([{ name: 'Bram Sedge' }]);
    await source.destroy();
    // The next version that is whole comes through.
    const next = await prepareDatabase(url, 'heathstep_app');
    expect(next.applied).toBe(MIGRATIONS.length - half);
    await next.source.destroy();
  });
});
