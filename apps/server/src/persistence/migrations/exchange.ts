import type { MigrationInterface, QueryRunner } from 'typeorm';
import { grantOwnClinic } from './rights.js';

/** What came with a person from elsewhere and is kept as it came, and keys by which other programs read the records. */
const TABLES = `
CREATE TABLE kept_resource (
  id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, person_id uuid NOT NULL,
  type text NOT NULL, resource jsonb NOT NULL, author_id uuid NOT NULL, at timestamptz NOT NULL,
  FOREIGN KEY (clinic_id, person_id) REFERENCES person (clinic_id, id),
  FOREIGN KEY (clinic_id, author_id) REFERENCES app_user (clinic_id, id));
CREATE INDEX kept_resource_person ON kept_resource (clinic_id, person_id);
CREATE TABLE program_key (
  id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, name text NOT NULL, token_hash text NOT NULL,
  created_by uuid NOT NULL, created_at timestamptz NOT NULL, expires_at timestamptz NOT NULL, revoked_at timestamptz,
  used_at timestamptz,
  FOREIGN KEY (clinic_id, created_by) REFERENCES app_user (clinic_id, id));
CREATE UNIQUE INDEX program_key_token ON program_key (token_hash);
CREATE FUNCTION find_program(hash text, moment timestamptz) RETURNS TABLE (id uuid, clinic_id uuid, created_by uuid)
  LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public
  AS $$ SELECT k.id, k.clinic_id, k.created_by FROM public.program_key k
         WHERE k.token_hash = hash AND k.expires_at > moment AND k.revoked_at IS NULL $$;
REVOKE ALL ON FUNCTION find_program(text, timestamptz) FROM PUBLIC;
`;

/**
 * Takes a person and everything of them away, whoever of the clinic it is called for; what stands in the log stays, it says
 * who looked and changed and nothing of what was there. A line for each is left, without a name.
 */
const ERASURE = `
CREATE TABLE erasure (
  id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, person_id uuid NOT NULL, reason text NOT NULL,
  rows integer NOT NULL, author_id uuid NOT NULL, at timestamptz NOT NULL,
  FOREIGN KEY (clinic_id, author_id) REFERENCES app_user (clinic_id, id));
CREATE INDEX erasure_of_clinic ON erasure (clinic_id, at);
CREATE FUNCTION erase_person(wanted uuid) RETURNS integer LANGUAGE plpgsql SECURITY DEFINER
  SET search_path = pg_catalog, public AS $$
DECLARE
  clinic uuid := own_clinic();
  episodes uuid[] := ARRAY(SELECT e.id FROM public.episode e WHERE e.clinic_id = clinic AND e.person_id = wanted);
  visits uuid[] := ARRAY(SELECT v.id FROM public.visit v WHERE v.clinic_id = clinic AND v.episode_id = ANY(episodes));
  photos uuid[] := ARRAY(SELECT p.id FROM public.photo p WHERE p.clinic_id = clinic AND p.visit_id = ANY(visits));
  gone integer;
  total integer := 0;
  line record;
BEGIN
  IF clinic IS NULL THEN RAISE EXCEPTION 'no clinic was entered' USING ERRCODE = 'insufficient_privilege'; END IF;
  FOR line IN SELECT * FROM (VALUES
    ('kept_resource', 'person_id', ARRAY[wanted]), ('set_aside', 'person_id', ARRAY[wanted]),
    ('appointment', 'person_id', ARRAY[wanted]), ('lab_capture', 'episode_id', episodes),
    ('course_event', 'episode_id', episodes), ('taught_exercise', 'episode_id', episodes),
    ('home_question', 'episode_id', episodes), ('home_entry', 'episode_id', episodes),
    ('home_session', 'episode_id', episodes), ('home_link', 'episode_id', episodes),
    ('decision', 'episode_id', episodes), ('plan', 'episode_id', episodes), ('closure', 'episode_id', episodes),
    ('photo_placement', 'photo_id', photos), ('photo', 'visit_id', visits), ('visit_presence', 'visit_id', visits),
    ('visit_entry', 'visit_id', visits), ('visit', 'episode_id', episodes), ('stage_span', 'episode_id', episodes),
    ('episode', 'person_id', ARRAY[wanted]), ('person', 'id', ARRAY[wanted])) AS t (name, col, ids)
  LOOP
    EXECUTE format('DELETE FROM public.%I WHERE clinic_id = $1 AND %I = ANY($2)', line.name, line.col)
      USING clinic, line.ids;
    GET DIAGNOSTICS gone = ROW_COUNT;
    total := total + gone;
  END LOOP;
  RETURN total;
END $$;
REVOKE ALL ON FUNCTION erase_person(uuid) FROM PUBLIC;
`;

export class Exchange1766900000000 implements MigrationInterface {
  name = 'Exchange1766900000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(TABLES);
    await runner.query(ERASURE);
    const app = await grantOwnClinic(runner, {
      kept_resource: 'SELECT, INSERT',
      program_key: 'SELECT, INSERT, UPDATE',
      erasure: 'SELECT, INSERT',
    });
    await runner.query(
      `GRANT EXECUTE ON FUNCTION find_program(text, timestamptz), erase_person(uuid) TO ${app}`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP FUNCTION erase_person(uuid); DROP FUNCTION find_program(text, timestamptz);
      DROP TABLE erasure; DROP TABLE program_key; DROP TABLE kept_resource;`);
  }
}
