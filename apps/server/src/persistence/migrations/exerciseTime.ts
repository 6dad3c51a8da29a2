import type { MigrationInterface, QueryRunner } from 'typeorm';

/** When of the day a person exercises; none said is the usual time. */
export class ExerciseTime1765100000000 implements MigrationInterface {
  name = 'ExerciseTime1765100000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE episode ADD COLUMN exercise_time text');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE episode DROP COLUMN exercise_time');
  }
}
