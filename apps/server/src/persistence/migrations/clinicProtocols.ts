import type { MigrationInterface, QueryRunner } from 'typeorm';
import { grantOwnClinic } from './rights.js';

/** A clinic's own versions of protocols: one draft at a time, what is published never changes, what is withdrawn stays to be read. */
export class ClinicProtocols1764800000000 implements MigrationInterface {
  name = 'ClinicProtocols1764800000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE clinic_protocol (
      clinic_id uuid NOT NULL REFERENCES clinic, replaces text NOT NULL, version integer NOT NULL,
      status text NOT NULL CHECK (status IN ('draft', 'published', 'withdrawn')), edition integer NOT NULL,
      based_on integer NOT NULL, file jsonb NOT NULL, definition jsonb NOT NULL,
      author_id uuid NOT NULL REFERENCES app_user, at timestamptz NOT NULL,
      signed_by uuid REFERENCES app_user, signed_at timestamptz, PRIMARY KEY (clinic_id, replaces, version));
      CREATE UNIQUE INDEX clinic_protocol_draft ON clinic_protocol (clinic_id, replaces) WHERE status = 'draft'`);
    await grantOwnClinic(runner, { clinic_protocol: 'SELECT, INSERT, UPDATE, DELETE' });
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE clinic_protocol');
  }
}
