import type { MigrationInterface, QueryRunner } from 'typeorm';
import { grantOwnClinic } from './rights.js';

const TABLES = `
ALTER TABLE visit_entry ADD COLUMN reason text;
ALTER TABLE visit_entry ADD COLUMN seq bigint GENERATED ALWAYS AS IDENTITY;
CREATE INDEX visit_entry_seq ON visit_entry (visit_id, seq);
CREATE TABLE visit_presence (
  visit_id uuid NOT NULL REFERENCES visit, user_id uuid NOT NULL REFERENCES app_user,
  clinic_id uuid NOT NULL REFERENCES clinic, step text NOT NULL, at timestamptz NOT NULL,
  PRIMARY KEY (visit_id, user_id));
CREATE TABLE clinic_measure (
  key text NOT NULL, version integer NOT NULL, clinic_id uuid NOT NULL REFERENCES clinic, filled jsonb NOT NULL,
  definition jsonb NOT NULL, retired boolean NOT NULL, author_id uuid NOT NULL REFERENCES app_user,
  at timestamptz NOT NULL, PRIMARY KEY (clinic_id, key, version));
CREATE TABLE photo (
  id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, visit_id uuid NOT NULL REFERENCES visit,
  measure text NOT NULL, side text NOT NULL, type text NOT NULL, width integer NOT NULL, height integer NOT NULL,
  bytes bytea NOT NULL, author_id uuid NOT NULL REFERENCES app_user, at timestamptz NOT NULL);
CREATE INDEX photo_visit ON photo (clinic_id, visit_id);
CREATE TABLE photo_placement (
  id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, photo_id uuid NOT NULL REFERENCES photo,
  landmarks jsonb NOT NULL, ruler_mm double precision, value double precision NOT NULL,
  plus_minus double precision NOT NULL, author_id uuid NOT NULL REFERENCES app_user, at timestamptz NOT NULL);
CREATE INDEX photo_placement_photo ON photo_placement (clinic_id, photo_id);
`;

/** Rights of the application on each new table. Records of what happened are never updated or deleted. */
const RIGHTS: Readonly<Record<string, string>> = {
  visit_presence: 'SELECT, INSERT, UPDATE, DELETE',
  clinic_measure: 'SELECT, INSERT',
  photo: 'SELECT, INSERT',
  photo_placement: 'SELECT, INSERT',
};

/** What the assessment bench keeps: amendments, who is writing, a clinic's own measures, pictures and their landmarks. */
export class Bench1764100000000 implements MigrationInterface {
  name = 'Bench1764100000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(TABLES);
    await grantOwnClinic(runner, RIGHTS);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['photo_placement', 'photo', 'clinic_measure', 'visit_presence'])
      await runner.query(`DROP TABLE ${table}`);
    await runner.query('ALTER TABLE visit_entry DROP COLUMN seq; ALTER TABLE visit_entry DROP COLUMN reason');
  }
}
