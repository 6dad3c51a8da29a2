import type { MigrationInterface, QueryRunner } from 'typeorm';

const findHomeSession = (more: string): string => `
CREATE OR REPLACE FUNCTION find_home_session(hash text, moment timestamptz) RETURNS TABLE (episode_id uuid, clinic_id uuid)
  LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public
  AS $$ SELECT s.episode_id, s.clinic_id FROM public.home_session s JOIN public.home_link l ON l.id = s.link_id
        WHERE s.token_hash = hash AND s.expires_at > moment AND l.revoked_at IS NULL ${more} $$;`;

/**
 * A phone that is signed in stays so, whoever types wrong codes at its link, and as long as it is used: only a new opening
 * asks for a link that is not locked and has not run out.
 */
export class HomeOpen1765700000000 implements MigrationInterface {
  name = 'HomeOpen1765700000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(findHomeSession(''));
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(findHomeSession('AND l.locked_at IS NULL AND l.expires_at > moment'));
  }
}
