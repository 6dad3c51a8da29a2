import type { MigrationInterface, QueryRunner } from 'typeorm';
import { grantOwnClinic } from './rights.js';

/** A second step of signing in: the secret of an authenticator, the last code that was used, and codes for when it is lost. */
export class SecondStep1766800000000 implements MigrationInterface {
  name = 'SecondStep1766800000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE app_user ADD COLUMN totp_pending text, ADD COLUMN totp_secret text, ADD COLUMN totp_last integer;
      CREATE TABLE recovery_code (
        clinic_id uuid NOT NULL REFERENCES clinic, user_id uuid NOT NULL, code_hash text NOT NULL, used_at timestamptz,
        PRIMARY KEY (user_id, code_hash),
        FOREIGN KEY (clinic_id, user_id) REFERENCES app_user (clinic_id, id) ON DELETE CASCADE);
    `);
    await grantOwnClinic(runner, { recovery_code: 'SELECT, INSERT, UPDATE, DELETE' });
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP TABLE recovery_code;
      ALTER TABLE app_user DROP COLUMN totp_pending, DROP COLUMN totp_secret, DROP COLUMN totp_last;
    `);
  }
}
