import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * What there is one of stays one when two ask at once: a morning of a day, the closure of a stop reported at home. What was
 * doubled before stays as it was. And whom a list or a day showed is audited by name.
 */
export class OneOfEach1765600000000 implements MigrationInterface {
  name = 'OneOfEach1765600000000';

  async up(runner: QueryRunner): Promise<void> {
    const [{ now }] = (await runner.query('SELECT now()::text AS now')) as [{ now: string }];
    await runner.query(`
      CREATE UNIQUE INDEX home_entry_one_morning ON home_entry (episode_id, day)
        WHERE kind = 'morning' AND version = 1 AND at >= timestamptz '${now}';
      CREATE UNIQUE INDEX closure_one_stop ON closure (episode_id, subject)
        WHERE subject LIKE 'stop:%' AND at >= timestamptz '${now}';
      ALTER TABLE audit ADD COLUMN shown jsonb;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE audit DROP COLUMN shown; DROP INDEX closure_one_stop; DROP INDEX home_entry_one_morning;
    `);
  }
}
