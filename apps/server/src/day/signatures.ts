import type { Tx } from '../persistence/db.js';

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

/**
 * How many rows there are, and the sum of the numbers of the transactions that wrote them: another as soon as a row is
 * added, changed or taken away, in whatever order transactions end.
 */
const STAMP = `count(*) || ':' || coalesce(sum(t.xmin::text::bigint), 0)`;

const PEOPLE = `
SELECT id, string_agg(stamp, ' ' ORDER BY stamp) AS signature FROM (
  ${OF_PERSON.map(([mark, from, person]) => `SELECT ${person} AS id, '${mark}' || ${STAMP} AS stamp FROM ${from} GROUP BY 1`).join('\n  UNION ALL ')}
) parts GROUP BY id`;

const CLINIC = OF_CLINIC.map((table) => `SELECT '${table}' || ${STAMP} AS stamp FROM ${table} t`).join(
  ' UNION ALL ',
);

/** What a person's day hangs on, as one text each: the same text, the same day. */
export async function daySignatures(tx: Tx): Promise<ReadonlyMap<string, string>> {
  const clinic = (await tx.query<{ stamp: string }[]>(CLINIC)).map((r) => r.stamp).join(' ');
  const rows = await tx.query<{ id: string; signature: string }[]>(PEOPLE);
  return new Map(rows.map((r) => [r.id, `${clinic} ${r.signature}`]));
}
