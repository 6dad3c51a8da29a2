import type { MigrationInterface, QueryRunner } from 'typeorm';
import { grantOwnClinic } from './rights.js';

const FIND = (more: string, from: string): string => `
  DROP FUNCTION find_session(text, timestamptz);
  CREATE FUNCTION find_session(hash text, moment timestamptz)
    RETURNS TABLE (user_id uuid, clinic_id uuid, name text, role text${more === '' ? '' : ', step_missing boolean'})
    LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public
    AS $$ SELECT s.user_id, s.clinic_id, u.name, u.role${more}
            FROM public.user_session s JOIN public.app_user u ON u.id = s.user_id ${from}
           WHERE s.token_hash = hash AND s.expires_at > moment AND u.left_at IS NULL $$;
  REVOKE ALL ON FUNCTION find_session(text, timestamptz) FROM PUBLIC;`;

/** What a clinic has decided for all of its work; and who has no second step though it asks everyone for one is known at once. */
export class ClinicDefaults1767300000000 implements MigrationInterface {
  name = 'ClinicDefaults1767300000000';

  async up(runner: QueryRunner): Promise<void> {
    const app = await grantOwnClinic(runner, {});
    await runner.query(`
      ALTER TABLE clinic ADD COLUMN defaults jsonb NOT NULL DEFAULT '{}';
      GRANT UPDATE (defaults) ON clinic TO ${app};
      ${FIND(
        `, coalesce((c.defaults->>'secondStep')::boolean, false) AND u.totp_secret IS NULL`,
        'JOIN public.clinic c ON c.id = u.clinic_id',
      )}
      GRANT EXECUTE ON FUNCTION find_session(text, timestamptz) TO ${app};
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    const app = await grantOwnClinic(runner, {});
    await runner.query(`
      ${FIND('', '')}
      GRANT EXECUTE ON FUNCTION find_session(text, timestamptz) TO ${app};
      ALTER TABLE clinic DROP COLUMN defaults;
    `);
  }
}
