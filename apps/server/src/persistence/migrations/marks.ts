import type { MigrationInterface, QueryRunner } from 'typeorm';
import { grantOwnClinic } from './rights.js';

/** Rows that say something of a person, and how their person is found. */
const WAYS = {
  person: 'SELECT c.clinic_id, c.id AS person_id FROM changed c',
  episode: 'SELECT c.clinic_id, c.person_id FROM changed c',
  of_episode: 'SELECT e.clinic_id, e.person_id FROM changed c JOIN episode e ON e.id = c.episode_id',
  of_visit:
    'SELECT e.clinic_id, e.person_id FROM changed c JOIN visit v ON v.id = c.visit_id JOIN episode e ON e.id = v.episode_id',
} as const;

const TABLES: readonly (readonly [table: string, way: keyof typeof WAYS])[] = [
  ['person', 'person'],
  ['episode', 'episode'],
  ['stage_span', 'of_episode'],
  ['visit', 'of_episode'],
  ['visit_entry', 'of_visit'],
  ['home_entry', 'of_episode'],
  ['closure', 'of_episode'],
  ['plan', 'of_episode'],
  ['decision', 'of_episode'],
  ['taught_exercise', 'of_episode'],
  ['home_link', 'of_episode'],
];

/**
 * A person who is gone has no mark: what is taken away with them changes nothing. In the order of people, so that two that
 * change the same ones wait for each other and do not block each other.
 */
const marking = (way: keyof typeof WAYS): string => `
CREATE FUNCTION mark_${way}() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER AS $$
BEGIN
  INSERT INTO person_mark AS m (clinic_id, person_id, mark)
  SELECT w.clinic_id, w.person_id, nextval('held.mark')
    FROM (SELECT DISTINCT found.clinic_id, found.person_id FROM (${WAYS[way]}) found
            JOIN person p ON p.id = found.person_id ORDER BY found.person_id) w
  ON CONFLICT (clinic_id, person_id) DO UPDATE SET mark = excluded.mark;
  RETURN NULL;
END $$;
REVOKE ALL ON FUNCTION mark_${way}() FROM PUBLIC;`;

const trigger = (table: string, way: string, name: string, event: string, rows: string): string =>
  `CREATE TRIGGER mark_${name} AFTER ${event} ON ${table} REFERENCING ${rows} TABLE AS changed
     FOR EACH STATEMENT EXECUTE FUNCTION mark_${way}();`;

/**
 * A mark of each person, another one as soon as a row that says something of them is added, changed or taken away. The same
 * mark, the same record: nobody has to count two years of logs to know that nothing has changed. The database sets it in the
 * transaction of the change itself; the application only reads it.
 */
export class Marks1766000000000 implements MigrationInterface {
  name = 'Marks1766000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE SEQUENCE held.mark;
      CREATE TABLE person_mark (
        clinic_id uuid NOT NULL, person_id uuid NOT NULL, mark bigint NOT NULL,
        PRIMARY KEY (clinic_id, person_id),
        FOREIGN KEY (clinic_id, person_id) REFERENCES person (clinic_id, id) ON DELETE CASCADE
      ) WITH (fillfactor = 50);
      INSERT INTO person_mark (clinic_id, person_id, mark) SELECT clinic_id, id, nextval('held.mark') FROM person;
    `);
    await grantOwnClinic(runner, { person_mark: 'SELECT' });
    for (const way of Object.keys(WAYS) as (keyof typeof WAYS)[]) await runner.query(marking(way));
    for (const [table, way] of TABLES) {
      await runner.query(trigger(table, way, 'added', 'INSERT', 'NEW'));
      await runner.query(trigger(table, way, 'changed', 'UPDATE', 'NEW'));
      await runner.query(trigger(table, way, 'gone', 'DELETE', 'OLD'));
    }
    // A complaint that comes to another person is gone from the first.
    await runner.query(trigger('episode', 'episode', 'moved', 'UPDATE', 'OLD'));
  }

  async down(runner: QueryRunner): Promise<void> {
    const names = ['added', 'changed', 'gone'];
    for (const [table] of TABLES)
      for (const name of names) await runner.query(`DROP TRIGGER mark_${name} ON ${table}`);
    await runner.query('DROP TRIGGER mark_moved ON episode');
    for (const way of Object.keys(WAYS)) await runner.query(`DROP FUNCTION mark_${way}()`);
    await runner.query('DROP TABLE person_mark; DROP SEQUENCE held.mark');
  }
}
