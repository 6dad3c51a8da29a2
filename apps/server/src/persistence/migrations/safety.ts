import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What was done to close a sign, and the sex that published norms are read by. */
export class Safety1764300000000 implements MigrationInterface {
  name = 'Safety1764300000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE closure ADD COLUMN done text');
    await runner.query('ALTER TABLE person ADD COLUMN sex text');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE person DROP COLUMN sex');
    await runner.query('ALTER TABLE closure DROP COLUMN done');
  }
}
