import type { MigrationInterface, QueryRunner } from 'typeorm';
import { grantOwnClinic } from './rights.js';

/** Who is of a clinic, comes by a link and leaves; and what a clinic says of itself, changed by its lead. */
export class Staff1766600000000 implements MigrationInterface {
  name = 'Staff1766600000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE app_user ALTER COLUMN password_hash DROP NOT NULL, ADD COLUMN left_at timestamptz;
      CREATE TABLE account_link (
        id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, user_id uuid NOT NULL, token_hash text NOT NULL,
        created_by uuid, created_at timestamptz NOT NULL, expires_at timestamptz NOT NULL, used_at timestamptz,
        FOREIGN KEY (clinic_id, user_id) REFERENCES app_user (clinic_id, id),
        FOREIGN KEY (clinic_id, created_by) REFERENCES app_user (clinic_id, id));
      CREATE UNIQUE INDEX account_link_token ON account_link (token_hash);
      CREATE INDEX account_link_user ON account_link (clinic_id, user_id);
      CREATE OR REPLACE FUNCTION find_user(wanted text) RETURNS TABLE (id uuid, clinic_id uuid, password_hash text)
        LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public
        AS $$ SELECT u.id, u.clinic_id, u.password_hash FROM public.app_user u
               WHERE lower(u.email) = lower(wanted) AND u.left_at IS NULL AND u.password_hash IS NOT NULL $$;
      CREATE OR REPLACE FUNCTION find_session(hash text, moment timestamptz)
        RETURNS TABLE (user_id uuid, clinic_id uuid, name text, role text)
        LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public
        AS $$ SELECT s.user_id, s.clinic_id, u.name, u.role
                FROM public.user_session s JOIN public.app_user u ON u.id = s.user_id
               WHERE s.token_hash = hash AND s.expires_at > moment AND u.left_at IS NULL $$;
      CREATE FUNCTION find_account_link(hash text, moment timestamptz) RETURNS TABLE (id uuid, clinic_id uuid, user_id uuid)
        LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public
        AS $$ SELECT l.id, l.clinic_id, l.user_id
                FROM public.account_link l JOIN public.app_user u ON u.id = l.user_id
               WHERE l.token_hash = hash AND l.expires_at > moment AND l.used_at IS NULL AND u.left_at IS NULL $$;
      CREATE FUNCTION email_is_taken(wanted text) RETURNS boolean
        LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public
        AS $$ SELECT EXISTS (SELECT 1 FROM public.app_user u WHERE lower(u.email) = lower(wanted)) $$;
      REVOKE ALL ON FUNCTION find_account_link(text, timestamptz), email_is_taken(text) FROM PUBLIC;
    `);
    const app = await grantOwnClinic(runner, { account_link: 'SELECT, INSERT, UPDATE, DELETE' });
    await runner.query(`
      GRANT EXECUTE ON FUNCTION find_account_link(text, timestamptz), email_is_taken(text) TO ${app};
      GRANT UPDATE (name, locale, time_zone, phone, emergency_number) ON clinic TO ${app};
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP FUNCTION find_account_link(text, timestamptz); DROP FUNCTION email_is_taken(text);
      DROP TABLE account_link;
      DELETE FROM user_session WHERE user_id IN (SELECT id FROM app_user WHERE left_at IS NOT NULL);
      UPDATE app_user SET password_hash = '' WHERE password_hash IS NULL;
      CREATE OR REPLACE FUNCTION find_user(wanted text) RETURNS TABLE (id uuid, clinic_id uuid, password_hash text)
        LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public
        AS $$ SELECT u.id, u.clinic_id, u.password_hash FROM public.app_user u WHERE lower(u.email) = lower(wanted) $$;
      CREATE OR REPLACE FUNCTION find_session(hash text, moment timestamptz)
        RETURNS TABLE (user_id uuid, clinic_id uuid, name text, role text)
        LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public
        AS $$ SELECT s.user_id, s.clinic_id, u.name, u.role
                FROM public.user_session s JOIN public.app_user u ON u.id = s.user_id
               WHERE s.token_hash = hash AND s.expires_at > moment $$;
      ALTER TABLE app_user ALTER COLUMN password_hash SET NOT NULL, DROP COLUMN left_at;
    `);
  }
}
