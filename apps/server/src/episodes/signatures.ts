import type { Tx } from '../persistence/db.js';
import { STAMP, stampOf, stampsOf } from '../persistence/stamps.js';

/** Rows that say something of a person's day, each with how it is reached. */
const OF_PERSON = [
  ['p', 'person t', 't.id'],
  ['e', 'episode t', 't.person_id'],
  ['s', 'stage_span t JOIN episode e ON e.id = t.episode_id', 'e.person_id'],
  ['v', 'visit t JOIN episode e ON e.id = t.episode_id', 'e.person_id'],
  [
    'n',
    'visit_entry t JOIN visit v ON v.id = t.visit_id JOIN episode e ON e.id = v.episode_id',
    'e.person_id',
  ],
  ['h', 'home_entry t JOIN episode e ON e.id = t.episode_id', 'e.person_id'],
  ['c', 'closure t JOIN episode e ON e.id = t.episode_id', 'e.person_id'],
  ['g', 'plan t JOIN episode e ON e.id = t.episode_id', 'e.person_id'],
  ['d', 'decision t JOIN episode e ON e.id = t.episode_id', 'e.person_id'],
] as const;

/** What everyone's day is read by. */
const OF_CLINIC = [
  'clinic',
  'clinic_measure',
  'clinic_exercise',
  'clinic_protocol',
  'protocol_version',
] as const;

const PEOPLE = `
SELECT id, string_agg(stamp, ' ' ORDER BY stamp) AS signature FROM (
  ${OF_PERSON.map(([mark, from, person]) => `SELECT ${person} AS id, '${mark}' || ${STAMP} AS stamp FROM ${from} GROUP BY 1`).join('\n  UNION ALL ')}
) parts GROUP BY id`;

/** What is shown of a person beside what their day hangs on. */
const SHOWN = [
  ['t', 'taught_exercise t JOIN episode e ON e.id = t.episode_id', 'e.person_id'],
  ['l', 'home_link t JOIN episode e ON e.id = t.episode_id', 'e.person_id'],
] as const;

const ONE = [...OF_PERSON, ...SHOWN]
  .map(([mark, from, person]) => `SELECT '${mark}' || ${STAMP} AS stamp FROM ${from} WHERE ${person} = $1`)
  .join('\n  UNION ALL ');

/** All of it in one statement: what is only shown again is mostly the way to the database and back. */
const RECORD = `${stampsOf([...OF_CLINIC, 'app_user'])} UNION ALL ${ONE}`;

/** What the whole record of a person hangs on, the names of who wrote in it included: the same text, the same record. */
export async function recordSignature(tx: Tx, personId: string): Promise<string> {
  const rows = await tx.query<{ stamp: string }[]>(RECORD, [personId]);
  return rows.map((r) => r.stamp).join(' ');
}

/** What a person's day hangs on, as one text each: the same text, the same day. */
export async function daySignatures(tx: Tx): Promise<ReadonlyMap<string, string>> {
  const clinic = await stampOf(tx, OF_CLINIC);
  const rows = await tx.query<{ id: string; signature: string }[]>(PEOPLE);
  return new Map(rows.map((r) => [r.id, `${clinic} ${r.signature}`]));
}
