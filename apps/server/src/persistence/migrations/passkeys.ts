import type { MigrationInterface, QueryRunner } from 'typeorm';
import { grantOwnClinic } from './rights.js';

/** Passkeys: what a device proves itself by in place of a password. The secret never leaves the device. */
export class Passkeys1767600000000 implements MigrationInterface {
  name = 'Passkeys1767600000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE passkey (
        id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, user_id uuid NOT NULL, credential text NOT NULL,
        public_key bytea NOT NULL, counter bigint NOT NULL, transports jsonb NOT NULL, name text NOT NULL,
        created_at timestamptz NOT NULL, used_at timestamptz,
        FOREIGN KEY (clinic_id, user_id) REFERENCES app_user (clinic_id, id));
      CREATE UNIQUE INDEX passkey_credential ON passkey (credential);
      CREATE INDEX passkey_user ON passkey (clinic_id, user_id);
      CREATE FUNCTION find_passkey(wanted text)
        RETURNS TABLE (id uuid, clinic_id uuid, user_id uuid, public_key bytea, counter bigint, transports jsonb)
        LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public
        AS $$ SELECT k.id, k.clinic_id, k.user_id, k.public_key, k.counter, k.transports
                FROM public.passkey k JOIN public.app_user u ON u.id = k.user_id
               WHERE k.credential = wanted AND u.left_at IS NULL AND u.password_hash IS NOT NULL $$;
      REVOKE ALL ON FUNCTION find_passkey(text) FROM PUBLIC;
    `);
    const app = await grantOwnClinic(runner, { passkey: 'SELECT, INSERT, UPDATE, DELETE' });
    await runner.query(`GRANT EXECUTE ON FUNCTION find_passkey(text) TO ${app}`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP FUNCTION find_passkey(text); DROP TABLE passkey');
  }
}
