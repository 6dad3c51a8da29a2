import type { MigrationInterface, QueryRunner } from 'typeorm';
import { grantOwnClinic } from './rights.js';

const TABLES = `
ALTER TABLE episode ADD COLUMN weights_kg jsonb NOT NULL DEFAULT '[]';
CREATE TABLE clinic_exercise (
  key text NOT NULL, version integer NOT NULL, clinic_id uuid NOT NULL REFERENCES clinic, filled_id uuid NOT NULL,
  file jsonb NOT NULL, definition jsonb NOT NULL, figure jsonb NOT NULL, retired boolean NOT NULL,
  author_id uuid NOT NULL REFERENCES app_user, at timestamptz NOT NULL, PRIMARY KEY (clinic_id, key, version));
CREATE TABLE exercise_favourite (
  clinic_id uuid NOT NULL REFERENCES clinic, user_id uuid NOT NULL REFERENCES app_user, exercise text NOT NULL,
  PRIMARY KEY (clinic_id, user_id, exercise));
CREATE TABLE exercise_note (
  clinic_id uuid NOT NULL REFERENCES clinic, exercise text NOT NULL, version integer NOT NULL, text text NOT NULL,
  author_id uuid NOT NULL REFERENCES app_user, at timestamptz NOT NULL, PRIMARY KEY (clinic_id, exercise, version));
CREATE TABLE band_calibration (
  id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, band text NOT NULL, points jsonb NOT NULL,
  author_id uuid NOT NULL REFERENCES app_user, at timestamptz NOT NULL);
CREATE INDEX band_calibration_band ON band_calibration (clinic_id, band, at);
CREATE TABLE taught_exercise (
  id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, episode_id uuid NOT NULL REFERENCES episode,
  exercise text NOT NULL, side text NOT NULL, reps integer NOT NULL, faults jsonb NOT NULL,
  author_id uuid NOT NULL REFERENCES app_user, at timestamptz NOT NULL);
CREATE INDEX taught_exercise_episode ON taught_exercise (clinic_id, episode_id, at);
`;

/** Rights of the application on each new table. Records of what happened are never updated or deleted. */
const RIGHTS: Readonly<Record<string, string>> = {
  clinic_exercise: 'SELECT, INSERT',
  exercise_favourite: 'SELECT, INSERT, DELETE',
  exercise_note: 'SELECT, INSERT',
  band_calibration: 'SELECT, INSERT',
  taught_exercise: 'SELECT, INSERT',
};

/** What a clinic keeps in its library: exercises of its own, favourites, notes, bands, and what was seen in teaching. */
export class Library1764200000000 implements MigrationInterface {
  name = 'Library1764200000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(TABLES);
    const app = await grantOwnClinic(runner, RIGHTS);
    await runner.query(`GRANT INSERT ON content_review TO ${app}`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of Object.keys(RIGHTS)) await runner.query(`DROP TABLE ${table}`);
    await runner.query('ALTER TABLE episode DROP COLUMN weights_kg');
  }
}
