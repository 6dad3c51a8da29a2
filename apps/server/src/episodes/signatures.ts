import type { Tx } from '../persistence/db.js';
import { stampOf, stampsOf } from '../persistence/stamps.js';

/** What everyone's day is read by. */
const OF_CLINIC = [
  'clinic',
  'clinic_measure',
  'clinic_exercise',
  'clinic_protocol',
  'protocol_version',
] as const;

/** All of it in one statement: what is only shown again is mostly the way to the database and back. */
const RECORD = `${stampsOf([...OF_CLINIC, 'app_user'])}
  UNION ALL SELECT mark::text AS stamp FROM person_mark WHERE person_id = $1`;

/** What the whole record of a person hangs on, the names of who wrote in it included: the same text, the same record. */
export async function recordSignature(tx: Tx, personId: string): Promise<string> {
  const rows = await tx.query<{ stamp: string }[]>(RECORD, [personId]);
  return rows.map((r) => r.stamp).join(' ');
}

/** What a person's day hangs on, as one text each: the same text, the same day. */
export async function daySignatures(tx: Tx): Promise<ReadonlyMap<string, string>> {
  const clinic = await stampOf(tx, OF_CLINIC);
  const rows = await tx.query<{ id: string; mark: string }[]>(
    'SELECT person_id AS id, mark FROM person_mark',
  );
  return new Map(rows.map((r) => [r.id, `${clinic} ${r.mark}`]));
}
