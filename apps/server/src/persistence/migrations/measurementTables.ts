import type { MigrationInterface, QueryRunner } from 'typeorm';
import { grantOwnClinic } from './rights.js';

/**
 * Tables of measurements that were taken: what was measured before the first visit here stands in signed visits of its day,
 * which say that they came from a table. One is taken back whole, as long as nothing was said to it since.
 */
export class MeasurementTables1767500000000 implements MigrationInterface {
  name = 'MeasurementTables1767500000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE measurement_import (
        id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, file text NOT NULL, lines integer NOT NULL,
        author_id uuid NOT NULL, at timestamptz NOT NULL, undone_at timestamptz,
        FOREIGN KEY (clinic_id, author_id) REFERENCES app_user (clinic_id, id));
      CREATE INDEX measurement_import_clinic ON measurement_import (clinic_id, at);
      ALTER TABLE visit ADD COLUMN import_id uuid;
      CREATE INDEX visit_import ON visit (clinic_id, import_id) WHERE import_id IS NOT NULL;
      CREATE FUNCTION take_measurements_back(wanted uuid) RETURNS integer LANGUAGE plpgsql SECURITY DEFINER
        SET search_path = pg_catalog, public AS $$
      DECLARE
        clinic uuid := own_clinic();
        ids uuid[] := ARRAY(SELECT v.id FROM public.visit v WHERE v.clinic_id = clinic AND v.import_id = wanted);
        gone integer;
      BEGIN
        IF clinic IS NULL THEN RAISE EXCEPTION 'no clinic was entered' USING ERRCODE = 'insufficient_privilege'; END IF;
        DELETE FROM public.visit_presence WHERE clinic_id = clinic AND visit_id = ANY(ids);
        DELETE FROM public.visit_entry WHERE clinic_id = clinic AND visit_id = ANY(ids);
        DELETE FROM public.visit WHERE clinic_id = clinic AND id = ANY(ids);
        GET DIAGNOSTICS gone = ROW_COUNT;
        RETURN gone;
      END $$;
      REVOKE ALL ON FUNCTION take_measurements_back(uuid) FROM PUBLIC;
    `);
    const app = await grantOwnClinic(runner, { measurement_import: 'SELECT, INSERT, UPDATE' });
    await runner.query(`GRANT EXECUTE ON FUNCTION take_measurements_back(uuid) TO ${app}`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP FUNCTION take_measurements_back(uuid); DROP INDEX visit_import;
      ALTER TABLE visit DROP COLUMN import_id; DROP TABLE measurement_import;`);
  }
}
