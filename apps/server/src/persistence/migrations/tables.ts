import type { MigrationInterface, QueryRunner } from 'typeorm';
import { grantOwnClinic } from './rights.js';

/** Tables of people that were taken, with who came by them, so that one can be taken back whole. */
export class PeopleTables1767000000000 implements MigrationInterface {
  name = 'PeopleTables1767000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE people_import (
        id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, file text NOT NULL, people jsonb NOT NULL,
        author_id uuid NOT NULL, at timestamptz NOT NULL, undone_at timestamptz,
        FOREIGN KEY (clinic_id, author_id) REFERENCES app_user (clinic_id, id));
      CREATE INDEX people_import_clinic ON people_import (clinic_id, at);
    `);
    await grantOwnClinic(runner, { people_import: 'SELECT, INSERT, UPDATE' });
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE people_import');
  }
}
