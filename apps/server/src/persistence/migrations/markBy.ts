import type { QueryRunner } from 'typeorm';

/** Marks a person anew as soon as a row of a table with their id is added, changed or taken away: a record that is kept to be shown is read anew. */
export async function markBy(runner: QueryRunner, table: string): Promise<void> {
  for (const [name, event, rows] of [
    ['added', 'INSERT', 'NEW'],
    ['changed', 'UPDATE', 'NEW'],
    ['gone', 'DELETE', 'OLD'],
  ] as const)
    await runner.query(
      `CREATE TRIGGER mark_${name} AFTER ${event} ON ${table} REFERENCING ${rows} TABLE AS changed
         FOR EACH STATEMENT EXECUTE FUNCTION mark_episode()`,
    );
}
