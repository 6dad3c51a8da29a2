import type { MigrationInterface, QueryRunner } from 'typeorm';
import { ownClinicPolicy, SEALED, UNSEALED } from './rights.js';

/** Any number; together with the backend's own it names the lock that says that a transaction has entered a clinic. */
const ENTERED = 1_212_371_792;

/**
 * No function here sets a search path, which would cost a tenth of a millisecond a table: the application can make nothing
 * in any schema that it searches.
 *
 * A transaction enters a clinic once. What it is in is sealed with a key that the application cannot read, for this
 * backend and this transaction: set by hand it shows nothing. That it has entered is a lock that only the end of the
 * transaction gives back, so a statement slipped into it cannot enter another clinic.
 */
const FUNCTIONS = `
CREATE SCHEMA held;
CREATE TABLE held.entry_key (one boolean PRIMARY KEY DEFAULT true CHECK (one), key text NOT NULL);
INSERT INTO held.entry_key (key) VALUES (gen_random_uuid()::text || gen_random_uuid()::text);

CREATE FUNCTION held.seal(clinic uuid, key text) RETURNS text LANGUAGE sql STABLE AS $$
  SELECT clinic::text || ' ' || encode(sha256((key || clinic::text || pg_backend_pid()::text || extract(epoch FROM now())::text)::bytea), 'hex') $$;

CREATE FUNCTION own_clinic() RETURNS uuid LANGUAGE plpgsql STABLE SECURITY DEFINER AS $$
DECLARE
  said text := pg_catalog.current_setting('heathstep.clinic', true);
  clinic uuid;
BEGIN
  IF pg_catalog.length(said) IS DISTINCT FROM 101 THEN RETURN NULL; END IF;
  clinic := pg_catalog.left(said, 36)::pg_catalog.uuid;
  IF said = (SELECT held.seal(clinic, k.key) FROM held.entry_key k) THEN RETURN clinic; END IF;
  RETURN NULL;
END $$;

CREATE FUNCTION enter_clinic(clinic uuid) RETURNS void LANGUAGE plpgsql SECURITY DEFINER SET search_path = pg_catalog AS $$
BEGIN
  IF EXISTS (SELECT 1 FROM pg_locks WHERE locktype = 'advisory' AND pid = pg_backend_pid()
             AND classid = ${ENTERED} AND objid = pg_backend_pid()) THEN
    RAISE EXCEPTION 'this transaction has entered a clinic already' USING ERRCODE = 'insufficient_privilege';
  END IF;
  PERFORM pg_advisory_xact_lock(${ENTERED}, pg_backend_pid());
  PERFORM set_config('heathstep.clinic', (SELECT held.seal(clinic, k.key) FROM held.entry_key k), true);
END $$;

REVOKE ALL ON FUNCTION own_clinic(), enter_clinic(uuid), held.seal(uuid, text) FROM PUBLIC;`;

/** Which tables show a clinic its own rows. */
const GUARDED = `SELECT tablename AS name FROM pg_policies WHERE schemaname = 'public' AND policyname = 'own_clinic'`;

async function changePolicies(runner: QueryRunner, own: string): Promise<void> {
  const tables = (await runner.query(GUARDED)) as { name: string }[];
  for (const { name } of tables) await runner.query(ownClinicPolicy('ALTER', name, own));
}

export class Sealed1765900000000 implements MigrationInterface {
  name = 'Sealed1765900000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(FUNCTIONS);
    const [{ role }] = (await runner.query(`SELECT current_setting('heathstep.app_role') AS role`)) as [
      { role: string },
    ];
    await runner.query(
      `GRANT EXECUTE ON FUNCTION own_clinic(), enter_clinic(uuid) TO "${role.replaceAll('"', '""')}"`,
    );
    await changePolicies(runner, SEALED);
  }

  async down(runner: QueryRunner): Promise<void> {
    await changePolicies(runner, UNSEALED);
    await runner.query(
      'DROP FUNCTION enter_clinic(uuid); DROP FUNCTION own_clinic(); DROP SCHEMA held CASCADE',
    );
  }
}
