import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What a person reads in; none said is English. */
export class Language1764900000000 implements MigrationInterface {
  name = 'Language1764900000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE person ADD COLUMN language text');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE person DROP COLUMN language');
  }
}
