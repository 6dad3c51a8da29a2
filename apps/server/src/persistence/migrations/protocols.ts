import type { MigrationInterface, QueryRunner } from 'typeorm';
import { grantOwnClinic } from './rights.js';

/** Protocols as they stood when an episode began, and the stage each plan was made of: changed content shifts neither. */
export class Protocols1764500000000 implements MigrationInterface {
  name = 'Protocols1764500000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE protocol_version (
      clinic_id uuid NOT NULL REFERENCES clinic, key text NOT NULL, version integer NOT NULL,
      definition jsonb NOT NULL, kept_at timestamptz NOT NULL, PRIMARY KEY (clinic_id, key, version))`);
    await grantOwnClinic(runner, { protocol_version: 'SELECT, INSERT' });
    await runner.query('ALTER TABLE plan ADD COLUMN made_of jsonb');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE plan DROP COLUMN made_of');
    await runner.query('DROP TABLE protocol_version');
  }
}
