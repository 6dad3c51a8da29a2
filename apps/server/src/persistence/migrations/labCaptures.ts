import type { MigrationInterface, QueryRunner } from 'typeorm';
import { grantOwnClinic } from './rights.js';

/** Captures of a pressure mat or a motion pair, with their readings as the packed file that is exported. */
export class LabCaptures1766500000000 implements MigrationInterface {
  name = 'LabCaptures1766500000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE lab_capture (
        id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, episode_id uuid NOT NULL, kind text NOT NULL,
        task text NOT NULL, side text NOT NULL, wearing text NOT NULL, source text NOT NULL, note text NOT NULL,
        mass_kg double precision, factor double precision, seconds double precision NOT NULL, device text NOT NULL,
        simulated boolean NOT NULL, bytes bytea NOT NULL, author_id uuid NOT NULL, at timestamptz NOT NULL,
        discarded_at timestamptz,
        FOREIGN KEY (clinic_id, author_id) REFERENCES app_user (clinic_id, id),
        FOREIGN KEY (clinic_id, episode_id) REFERENCES episode (clinic_id, id) ON DELETE CASCADE);
      CREATE INDEX lab_capture_episode ON lab_capture (clinic_id, episode_id, at);
    `);
    const app = await grantOwnClinic(runner, { lab_capture: 'SELECT, INSERT' });
    await runner.query(`GRANT UPDATE (discarded_at) ON lab_capture TO ${app}`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE lab_capture');
  }
}
