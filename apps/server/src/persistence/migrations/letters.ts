import type { MigrationInterface, QueryRunner } from 'typeorm';
import { grantOwnClinic } from './rights.js';

/**
 * Letters: what is written in them, and of one that went out all it said, which nothing changes afterwards. What a clinic
 * begins its letters with is kept in every version.
 */
const TABLES = `
CREATE TABLE letter (
  id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, episode_id uuid NOT NULL, kind text NOT NULL,
  text jsonb NOT NULL, version integer NOT NULL, started_at timestamptz NOT NULL, author_id uuid NOT NULL,
  at timestamptz NOT NULL, dropped_at timestamptz, sent_on date, sent_way text, sent_by uuid, content jsonb,
  CONSTRAINT letter_sent_check CHECK (
    (sent_on IS NULL) = (sent_way IS NULL) AND (sent_on IS NULL) = (sent_by IS NULL)
    AND (sent_on IS NULL) = (content IS NULL) AND (sent_on IS NULL OR dropped_at IS NULL)),
  FOREIGN KEY (clinic_id, episode_id) REFERENCES episode (clinic_id, id),
  FOREIGN KEY (clinic_id, author_id) REFERENCES app_user (clinic_id, id),
  FOREIGN KEY (clinic_id, sent_by) REFERENCES app_user (clinic_id, id));
CREATE INDEX letter_episode ON letter (clinic_id, episode_id, started_at);
CREATE FUNCTION letter_stays() RETURNS trigger LANGUAGE plpgsql SET search_path = pg_catalog AS $$
BEGIN
  IF OLD.sent_on IS NOT NULL THEN
    RAISE EXCEPTION 'a letter that went out stays as it is' USING ERRCODE = 'check_violation';
  END IF;
  RETURN NEW;
END $$;
CREATE TRIGGER letter_stays BEFORE UPDATE ON letter FOR EACH ROW EXECUTE FUNCTION letter_stays();
CREATE TABLE letter_template (
  clinic_id uuid NOT NULL REFERENCES clinic, letter text NOT NULL, version integer NOT NULL, opening text NOT NULL,
  closing text NOT NULL, shows jsonb NOT NULL, author_id uuid NOT NULL, at timestamptz NOT NULL,
  PRIMARY KEY (clinic_id, letter, version),
  FOREIGN KEY (clinic_id, author_id) REFERENCES app_user (clinic_id, id));
`;

/** As before, and the letters. */
const ERASURE = `
CREATE OR REPLACE FUNCTION erase_person(wanted uuid) RETURNS integer LANGUAGE plpgsql SECURITY DEFINER
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
    ('letter', 'episode_id', episodes), ('kept_resource', 'person_id', ARRAY[wanted]), ('set_aside', 'person_id', ARRAY[wanted]),
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
`;

export class Letters1767100000000 implements MigrationInterface {
  name = 'Letters1767100000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(TABLES);
    await runner.query(ERASURE);
    await grantOwnClinic(runner, { letter: 'SELECT, INSERT, UPDATE', letter_template: 'SELECT, INSERT' });
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP TABLE letter_template; DROP TABLE letter; DROP FUNCTION letter_stays();`);
    await runner.query(ERASURE.replace(`('letter', 'episode_id', episodes), `, ''));
  }
}
