import type { MigrationInterface, QueryRunner } from 'typeorm';

/** How, when and by whom the treatment of a complaint ended. What was closed before says no more than that. */
export class Ends1765000000000 implements MigrationInterface {
  name = 'Ends1765000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'ALTER TABLE episode ADD COLUMN ended_at timestamptz, ADD COLUMN ended_by uuid, ADD COLUMN outcome text, ADD COLUMN end_note text',
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(
      'ALTER TABLE episode DROP COLUMN ended_at, DROP COLUMN ended_by, DROP COLUMN outcome, DROP COLUMN end_note',
    );
  }
}
