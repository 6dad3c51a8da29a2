import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Tables that hold one clinic's data each row; row-level security is on for every one. */
const CLINIC_TABLES = [
  'app_user',
  'user_session',
  'person',
  'episode',
  'stage_span',
  'visit',
  'visit_entry',
  'closure',
  'plan',
  'home_link',
  'home_session',
  'home_entry',
  'decision',
  'audit',
  'content_review',
];

/** Records of what happened: never updated or deleted by the application. */
const APPEND_ONLY = ['visit_entry', 'closure', 'home_entry', 'decision', 'audit', 'stage_span'];

const TABLES = `
CREATE TABLE clinic (
  id uuid PRIMARY KEY, name text NOT NULL, locale text NOT NULL, time_zone text NOT NULL,
  phone text NOT NULL, emergency_number text NOT NULL);
CREATE TABLE app_user (
  id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, email text NOT NULL, name text NOT NULL,
  role text NOT NULL CHECK (role IN ('lead', 'clinician', 'assistant')), password_hash text NOT NULL);
CREATE UNIQUE INDEX app_user_email ON app_user (lower(email));
CREATE TABLE user_session (
  token_hash text PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, user_id uuid NOT NULL REFERENCES app_user,
  created_at timestamptz NOT NULL, expires_at timestamptz NOT NULL);
CREATE INDEX user_session_expiry ON user_session (expires_at);
CREATE TABLE person (
  id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, name text NOT NULL, birth_date date,
  occupation text NOT NULL, version integer NOT NULL, created_at timestamptz NOT NULL);
CREATE INDEX person_clinic_name ON person (clinic_id, name);
CREATE TABLE episode (
  id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, person_id uuid NOT NULL REFERENCES person,
  condition text NOT NULL, protocol text NOT NULL, protocol_version integer NOT NULL, affected text NOT NULL,
  schools jsonb NOT NULL, equipment jsonb NOT NULL, minutes_per_day integer NOT NULL, stage text,
  stage_since timestamptz, started_at timestamptz NOT NULL, status text NOT NULL, version integer NOT NULL);
CREATE INDEX episode_person ON episode (clinic_id, person_id);
CREATE TABLE stage_span (
  id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, episode_id uuid NOT NULL REFERENCES episode,
  stage text NOT NULL, since timestamptz NOT NULL, reason text NOT NULL);
CREATE INDEX stage_span_episode ON stage_span (clinic_id, episode_id, since);
CREATE TABLE visit (
  id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, episode_id uuid NOT NULL REFERENCES episode,
  kind text NOT NULL, started_at timestamptz NOT NULL, signed_at timestamptz, signed_by uuid REFERENCES app_user);
CREATE INDEX visit_episode ON visit (clinic_id, episode_id, started_at);
CREATE TABLE visit_entry (
  id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, visit_id uuid NOT NULL REFERENCES visit,
  key text NOT NULL, version integer NOT NULL, value jsonb, author_id uuid NOT NULL REFERENCES app_user,
  at timestamptz NOT NULL, CONSTRAINT visit_entry_version UNIQUE (visit_id, key, version));
CREATE TABLE closure (
  id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, episode_id uuid NOT NULL REFERENCES episode,
  visit_id uuid REFERENCES visit, subject text NOT NULL, side text NOT NULL, kind text NOT NULL,
  assessed_on date, assessed_by text, text text NOT NULL, author_id uuid NOT NULL REFERENCES app_user,
  at timestamptz NOT NULL);
CREATE INDEX closure_episode ON closure (clinic_id, episode_id);
CREATE TABLE plan (
  id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, episode_id uuid NOT NULL REFERENCES episode,
  number integer NOT NULL, stage text NOT NULL, status text NOT NULL, version integer NOT NULL,
  items jsonb NOT NULL, left_out jsonb NOT NULL, content_version text NOT NULL,
  created_by uuid NOT NULL REFERENCES app_user, created_at timestamptz NOT NULL,
  given_by uuid REFERENCES app_user, given_at timestamptz,
  CONSTRAINT plan_number UNIQUE (episode_id, number));
CREATE UNIQUE INDEX plan_one_draft ON plan (episode_id) WHERE status = 'draft';
CREATE TABLE home_link (
  id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, episode_id uuid NOT NULL REFERENCES episode,
  token_hash text NOT NULL, code_hash text NOT NULL, wrong_codes integer NOT NULL, locked_at timestamptz,
  created_by uuid NOT NULL REFERENCES app_user, created_at timestamptz NOT NULL, expires_at timestamptz NOT NULL,
  revoked_at timestamptz);
CREATE UNIQUE INDEX home_link_token ON home_link (token_hash);
CREATE INDEX home_link_episode ON home_link (clinic_id, episode_id);
CREATE TABLE home_session (
  token_hash text PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, link_id uuid NOT NULL REFERENCES home_link,
  episode_id uuid NOT NULL REFERENCES episode, created_at timestamptz NOT NULL, expires_at timestamptz NOT NULL);
CREATE TABLE home_entry (
  id uuid NOT NULL, version integer NOT NULL, clinic_id uuid NOT NULL REFERENCES clinic,
  episode_id uuid NOT NULL REFERENCES episode, plan_id uuid REFERENCES plan, kind text NOT NULL, day date NOT NULL,
  payload jsonb NOT NULL, at timestamptz NOT NULL, PRIMARY KEY (id, version));
CREATE INDEX home_entry_episode ON home_entry (clinic_id, episode_id, day);
CREATE TABLE decision (
  id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, episode_id uuid NOT NULL REFERENCES episode,
  suggested text NOT NULL, suggestion jsonb NOT NULL, decision text NOT NULL, agreed boolean NOT NULL,
  reason text NOT NULL, content_version text NOT NULL, author_id uuid NOT NULL REFERENCES app_user,
  at timestamptz NOT NULL);
CREATE INDEX decision_episode ON decision (clinic_id, episode_id, at);
CREATE TABLE audit (
  id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, at timestamptz NOT NULL, actor text NOT NULL,
  user_id uuid, person_id uuid, action text NOT NULL, subject text NOT NULL);
CREATE INDEX audit_person ON audit (clinic_id, person_id, at);
CREATE TABLE content_review (
  clinic_id uuid NOT NULL REFERENCES clinic, item text NOT NULL, version integer NOT NULL,
  reviewer text NOT NULL, reviewed_on date NOT NULL, PRIMARY KEY (clinic_id, item, version));
`;

/** What must be looked up before a clinic is known. Each returns the one row that a secret or an address names. */
const LOOKUPS = `
CREATE FUNCTION find_user(wanted text) RETURNS TABLE (id uuid, clinic_id uuid, password_hash text)
  LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public
  AS $$ SELECT u.id, u.clinic_id, u.password_hash FROM public.app_user u WHERE lower(u.email) = lower(wanted) $$;
CREATE FUNCTION find_session(hash text, moment timestamptz)
  RETURNS TABLE (user_id uuid, clinic_id uuid, name text, role text)
  LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public
  AS $$ SELECT s.user_id, s.clinic_id, u.name, u.role FROM public.user_session s JOIN public.app_user u ON u.id = s.user_id
        WHERE s.token_hash = hash AND s.expires_at > moment $$;
CREATE FUNCTION find_home_link(hash text) RETURNS TABLE (id uuid, clinic_id uuid)
  LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public
  AS $$ SELECT l.id, l.clinic_id FROM public.home_link l WHERE l.token_hash = hash $$;
CREATE FUNCTION find_home_session(hash text, moment timestamptz) RETURNS TABLE (episode_id uuid, clinic_id uuid)
  LANGUAGE sql STABLE SECURITY DEFINER SET search_path = pg_catalog, public
  AS $$ SELECT s.episode_id, s.clinic_id FROM public.home_session s JOIN public.home_link l ON l.id = s.link_id
        WHERE s.token_hash = hash AND s.expires_at > moment AND l.revoked_at IS NULL AND l.locked_at IS NULL
          AND l.expires_at > moment $$;
`;

const isolation = (table: string): string => `
ALTER TABLE ${table} ENABLE ROW LEVEL SECURITY;
CREATE POLICY own_clinic ON ${table} USING (clinic_id = nullif(current_setting('heathstep.clinic', true), '')::uuid)
  WITH CHECK (clinic_id = nullif(current_setting('heathstep.clinic', true), '')::uuid);`;

export class Initial1764000000000 implements MigrationInterface {
  name = 'Initial1764000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(TABLES);
    await runner.query(`ALTER TABLE clinic ENABLE ROW LEVEL SECURITY;
      CREATE POLICY own_clinic ON clinic USING (id = nullif(current_setting('heathstep.clinic', true), '')::uuid);`);
    for (const table of CLINIC_TABLES) await runner.query(isolation(table));
    await runner.query(LOOKUPS);
    const functions =
      'find_user(text), find_session(text, timestamptz), find_home_link(text), find_home_session(text, timestamptz)';
    await runner.query(`REVOKE ALL ON FUNCTION ${functions} FROM PUBLIC`);
    const [{ role }] = (await runner.query(`SELECT current_setting('heathstep.app_role') AS role`)) as [
      { role: string },
    ];
    const app = `"${role.replaceAll('"', '""')}"`;
    await runner.query(`GRANT USAGE ON SCHEMA public TO ${app};
      GRANT SELECT ON clinic TO ${app};
      GRANT EXECUTE ON FUNCTION ${functions} TO ${app};`);
    for (const table of CLINIC_TABLES) {
      const rights = APPEND_ONLY.includes(table) ? 'SELECT, INSERT' : 'SELECT, INSERT, UPDATE, DELETE';
      await runner.query(`GRANT ${rights} ON ${table} TO ${app}`);
    }
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(
      `DROP FUNCTION find_user(text), find_session(text, timestamptz), find_home_link(text), find_home_session(text, timestamptz)`,
    );
    for (const table of [...CLINIC_TABLES].reverse())
      await runner.query(`DROP TABLE IF EXISTS ${table} CASCADE`);
    await runner.query('DROP TABLE clinic');
  }
}
