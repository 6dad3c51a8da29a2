import type { MigrationInterface, QueryRunner } from 'typeorm';
import { erasing } from './erasing.js';
import { markBy } from './markBy.js';
import { grantOwnClinic } from './rights.js';

/** Runs and walks of a person as their watch recorded them: figures, and not the way itself. */
export class Outings1767200000000 implements MigrationInterface {
  name = 'Outings1767200000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE outing (
        id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, person_id uuid NOT NULL, day date NOT NULL,
        started_at timestamptz NOT NULL, seconds double precision NOT NULL, metres double precision NOT NULL,
        run_seconds double precision NOT NULL, climb_metres double precision, file text NOT NULL,
        author_id uuid NOT NULL, at timestamptz NOT NULL, removed_at timestamptz,
        CONSTRAINT outing_figures_check CHECK (seconds > 0 AND metres >= 0 AND run_seconds BETWEEN 0 AND seconds),
        FOREIGN KEY (clinic_id, person_id) REFERENCES person (clinic_id, id),
        FOREIGN KEY (clinic_id, author_id) REFERENCES app_user (clinic_id, id));
      CREATE UNIQUE INDEX outing_once ON outing (clinic_id, person_id, started_at);
    `);
    await grantOwnClinic(runner, { outing: 'SELECT, INSERT, UPDATE' });
    await markBy(runner, 'outing');
    await runner.query(
      erasing(`('outing', 'person_id', ARRAY[wanted])`, `('letter', 'episode_id', episodes)`),
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE outing');
    await runner.query(erasing(`('letter', 'episode_id', episodes)`));
  }
}
