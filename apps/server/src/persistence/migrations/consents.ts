import type { MigrationInterface, QueryRunner } from 'typeorm';
import { erasing } from './erasing.js';
import { markBy } from './markBy.js';
import { grantOwnClinic } from './rights.js';

const BEFORE = [`('outing', 'person_id', ARRAY[wanted])`, `('letter', 'episode_id', episodes)`] as const;

/** Whose rows come along, in any order; a run that both have stands once. */
const MOVED = ['episode', 'outing', 'appointment', 'set_aside', 'kept_resource', 'consent', 'person_merge'];

const CONSENT = `
CREATE TABLE consent (
  id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, person_id uuid NOT NULL, kind text NOT NULL,
  given boolean NOT NULL, way text NOT NULL, "on" date NOT NULL, note text NOT NULL, author_id uuid NOT NULL,
  at timestamptz NOT NULL,
  FOREIGN KEY (clinic_id, person_id) REFERENCES person (clinic_id, id),
  FOREIGN KEY (clinic_id, author_id) REFERENCES app_user (clinic_id, id));
CREATE INDEX consent_person ON consent (clinic_id, person_id, kind, at);
`;

/**
 * Two records of one person become one: rows of the one that goes come to the one that is kept, and what is needed to take it
 * back is kept with it. Nothing of either is lost.
 */
const MERGE = `
CREATE TABLE person_merge (
  id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, person_id uuid NOT NULL, gone_id uuid NOT NULL,
  gone jsonb NOT NULL, kept jsonb NOT NULL, moved jsonb NOT NULL, author_id uuid NOT NULL, at timestamptz NOT NULL,
  undone_at timestamptz,
  FOREIGN KEY (clinic_id, person_id) REFERENCES person (clinic_id, id),
  FOREIGN KEY (clinic_id, author_id) REFERENCES app_user (clinic_id, id));
CREATE INDEX person_merge_person ON person_merge (clinic_id, person_id);
CREATE INDEX person_merge_gone ON person_merge (clinic_id, gone_id);
CREATE FUNCTION merge_people(merge_id uuid, keep uuid, go uuid, by_whom uuid, moment timestamptz) RETURNS void
  LANGUAGE plpgsql SECURITY DEFINER SET search_path = pg_catalog, public AS $$
DECLARE
  clinic uuid := own_clinic();
  one jsonb; other jsonb; moved jsonb := '{}'; ids jsonb; name text;
BEGIN
  IF clinic IS NULL THEN RAISE EXCEPTION 'no clinic was entered' USING ERRCODE = 'insufficient_privilege'; END IF;
  SELECT to_jsonb(p) INTO one FROM public.person p WHERE p.clinic_id = clinic AND p.id = keep FOR UPDATE;
  SELECT to_jsonb(p) INTO other FROM public.person p WHERE p.clinic_id = clinic AND p.id = go FOR UPDATE;
  IF one IS NULL OR other IS NULL OR keep = go THEN RAISE EXCEPTION 'no two people' USING ERRCODE = 'no_data_found'; END IF;
  -- A run that both recorded: the one of the record that goes is set apart, whole.
  WITH twice AS (
    DELETE FROM public.outing o USING public.outing k
     WHERE o.clinic_id = clinic AND o.person_id = go AND k.clinic_id = clinic AND k.person_id = keep
       AND k.started_at = o.started_at RETURNING o.*)
  SELECT coalesce(jsonb_agg(to_jsonb(t)), '[]') INTO ids FROM twice t;
  moved := moved || jsonb_build_object('twice', ids);
  FOREACH name IN ARRAY ARRAY[${MOVED.map((t) => `'${t}'`).join(', ')}] LOOP
    EXECUTE format('WITH went AS (UPDATE public.%I SET person_id = $1 WHERE clinic_id = $2 AND person_id = $3 RETURNING id)
      SELECT coalesce(jsonb_agg(id), ''[]'') FROM went', name) INTO ids USING keep, clinic, go;
    moved := moved || jsonb_build_object(name, ids);
  END LOOP;
  UPDATE public.person SET birth_date = coalesce(birth_date, (other->>'birth_date')::date), sex = coalesce(sex, other->>'sex'),
      language = coalesce(language, other->>'language'),
      occupation = CASE WHEN occupation = '' THEN other->>'occupation' ELSE occupation END, version = version + 1
    WHERE clinic_id = clinic AND id = keep;
  DELETE FROM public.person WHERE clinic_id = clinic AND id = go;
  INSERT INTO public.person_merge (id, clinic_id, person_id, gone_id, gone, kept, moved, author_id, at)
    VALUES (merge_id, clinic, keep, go, other, one, moved, by_whom, moment);
END $$;
CREATE FUNCTION unmerge_people(wanted uuid, moment timestamptz) RETURNS void
  LANGUAGE plpgsql SECURITY DEFINER SET search_path = pg_catalog, public AS $$
DECLARE
  clinic uuid := own_clinic();
  done public.person_merge; name text; filled text;
BEGIN
  IF clinic IS NULL THEN RAISE EXCEPTION 'no clinic was entered' USING ERRCODE = 'insufficient_privilege'; END IF;
  SELECT * INTO done FROM public.person_merge m WHERE m.clinic_id = clinic AND m.id = wanted AND m.undone_at IS NULL FOR UPDATE;
  IF done.id IS NULL THEN RETURN; END IF;
  INSERT INTO public.person SELECT (jsonb_populate_record(NULL::public.person, done.gone)).*;
  FOREACH name IN ARRAY ARRAY[${MOVED.map((t) => `'${t}'`).join(', ')}] LOOP
    EXECUTE format('UPDATE public.%I SET person_id = $1 WHERE clinic_id = $2 AND id IN
      (SELECT e::uuid FROM jsonb_array_elements_text($3) e)', name) USING done.gone_id, clinic, done.moved->name;
  END LOOP;
  INSERT INTO public.outing SELECT (jsonb_populate_record(NULL::public.outing, t)).*
    FROM jsonb_array_elements(done.moved->'twice') t;
  -- What was filled in from the other record goes again, as long as nobody has changed it since.
  FOREACH filled IN ARRAY ARRAY['birth_date', 'sex', 'language', 'occupation'] LOOP
    EXECUTE format('UPDATE public.person SET %1$I = ($3->>%2$L)%3$s, version = version + 1
       WHERE clinic_id = $1 AND id = $2 AND to_jsonb(%1$I) IS NOT DISTINCT FROM nullif($4->%2$L, ''null'')
         AND to_jsonb(%1$I) IS DISTINCT FROM nullif($3->%2$L, ''null'')', filled, filled,
       CASE WHEN filled = 'birth_date' THEN '::date' ELSE '' END) USING clinic, done.person_id, done.kept, done.gone;
  END LOOP;
  UPDATE public.person_merge SET undone_at = moment WHERE id = wanted;
END $$;
REVOKE ALL ON FUNCTION merge_people(uuid, uuid, uuid, uuid, timestamptz), unmerge_people(uuid, timestamptz) FROM PUBLIC;
`;

export class Consents1767400000000 implements MigrationInterface {
  name = 'Consents1767400000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(CONSENT);
    await markBy(runner, 'consent');
    await runner.query(MERGE);
    await runner.query(
      erasing(
        `('person_merge', 'person_id', ARRAY[wanted])`,
        `('consent', 'person_id', ARRAY[wanted])`,
        ...BEFORE,
      ),
    );
    const app = await grantOwnClinic(runner, { consent: 'SELECT, INSERT', person_merge: 'SELECT' });
    await runner.query(
      `GRANT EXECUTE ON FUNCTION merge_people(uuid, uuid, uuid, uuid, timestamptz), unmerge_people(uuid, timestamptz) TO ${app}`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP FUNCTION unmerge_people(uuid, timestamptz); DROP FUNCTION merge_people(uuid, uuid, uuid, uuid, timestamptz);
      DROP TABLE person_merge; DROP TABLE consent;`);
    await runner.query(erasing(...BEFORE));
  }
}
