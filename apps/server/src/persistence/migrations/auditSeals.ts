import type { MigrationInterface, QueryRunner } from 'typeorm';
import { grantOwnClinic } from './rights.js';

/**
 * Seals close the log of each clinic up to a line: SHA-256, as hexadecimal digits, over the seal before and the lines since,
 * one to a row. While it is sealed nothing is written to the log, so that no line comes in late below one that is sealed. Where
 * someone has been writing for longer than a quarter of a second it gives way at once, for nobody is to wait behind it. The
 * application adds lines and asks for a seal; it can write neither seals nor what is sealed.
 */
const SEAL = `
CREATE FUNCTION seal_audit() RETURNS integer LANGUAGE plpgsql SECURITY DEFINER
  SET search_path = pg_catalog, public SET lock_timeout = '250ms' AS $$
DECLARE
  made integer := 0;
  own record;
BEGIN
  LOCK TABLE public.audit IN SHARE ROW EXCLUSIVE MODE;
  FOR own IN
    SELECT c.id, coalesce(s.number, 0) AS number, coalesce(s.to_seq, 0) AS to_seq, coalesce(s.hash, '') AS hash
      FROM public.clinic c
      LEFT JOIN LATERAL (SELECT l.number, l.to_seq, l.hash FROM public.audit_seal l
                          WHERE l.clinic_id = c.id ORDER BY l.number DESC LIMIT 1) s ON true
     WHERE EXISTS (SELECT 1 FROM public.audit a WHERE a.clinic_id = c.id AND a.seq > coalesce(s.to_seq, 0))
     ORDER BY c.id
  LOOP
    INSERT INTO public.audit_seal (clinic_id, number, to_seq, lines, hash, at)
    SELECT own.id, own.number + 1, max(a.seq), count(*),
           encode(sha256(convert_to(own.hash || E'\\n' || string_agg(concat_ws('|', a.seq, a.id,
             to_char(a.at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"'), a.actor, coalesce(a.user_id::text, ''),
             coalesce(a.person_id::text, ''), a.action, a.subject, coalesce(a.shown::text, '')), E'\\n' ORDER BY a.seq),
             'UTF8')), 'hex'), now()
      FROM public.audit a WHERE a.clinic_id = own.id AND a.seq > own.to_seq;
    made := made + 1;
  END LOOP;
  RETURN made;
END $$;
REVOKE ALL ON FUNCTION seal_audit() FROM PUBLIC;`;

export class AuditSeals1766700000000 implements MigrationInterface {
  name = 'AuditSeals1766700000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE audit ADD COLUMN seq bigint;
      UPDATE audit a SET seq = o.n FROM (SELECT id, row_number() OVER (ORDER BY at, id) AS n FROM audit) o WHERE o.id = a.id;
      ALTER TABLE audit ALTER COLUMN seq SET NOT NULL;
      ALTER TABLE audit ALTER COLUMN seq ADD GENERATED ALWAYS AS IDENTITY;
      SELECT setval(pg_get_serial_sequence('audit', 'seq'), greatest(1, (SELECT coalesce(max(seq), 0) FROM audit)),
                    (SELECT count(*) > 0 FROM audit));
      CREATE UNIQUE INDEX audit_seq ON audit (clinic_id, seq);
      CREATE TABLE audit_seal (
        clinic_id uuid NOT NULL REFERENCES clinic, number integer NOT NULL, to_seq bigint NOT NULL, lines integer NOT NULL,
        hash text NOT NULL, at timestamptz NOT NULL, PRIMARY KEY (clinic_id, number));
    `);
    await runner.query(SEAL);
    const app = await grantOwnClinic(runner, { audit_seal: 'SELECT' });
    await runner.query(`GRANT EXECUTE ON FUNCTION seal_audit() TO ${app}`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP FUNCTION seal_audit(); DROP TABLE audit_seal; DROP INDEX audit_seq;
      ALTER TABLE audit DROP COLUMN seq;
    `);
  }
}
