/**
 * The function that takes a person and everything of them away, with what has come to the record since it was first written.
 *
 * @param more what is taken away before all else: table, column and whose ids, as rows of values
 */
export const erasing = (...more: readonly string[]): string => `
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
    ${more.map((m) => `${m}, `).join('')}('kept_resource', 'person_id', ARRAY[wanted]), ('set_aside', 'person_id', ARRAY[wanted]),
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
