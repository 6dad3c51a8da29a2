import type { MigrationInterface, QueryRunner } from 'typeorm';

/** When a complaint came back after it was closed. */
export class CameBack1766300000000 implements MigrationInterface {
  name = 'CameBack1766300000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE episode ADD COLUMN came_back_at timestamptz');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE episode DROP COLUMN came_back_at');
  }
}
