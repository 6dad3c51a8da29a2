import type { Tx } from '../persistence/db.js';

/** How a row of a table finds its person: the column, and the table whose row it names. */
interface RecordTable {
  readonly table: string;
  readonly of: readonly [column: string, parent: 'person' | 'episode' | 'visit' | 'photo'];
  /** In which rows were written, where that counts. */
  readonly order?: string;
}

/**
 * Everything that is the record of a person, parents before what refers to them. A new table with rows of a person stands
 * here, or is named among those that are none of the record.
 */
export const RECORD_TABLES = [
  { table: 'person', of: ['id', 'person'] },
  { table: 'episode', of: ['person_id', 'person'] },
  { table: 'stage_span', of: ['episode_id', 'episode'], order: 'since' },
  { table: 'visit', of: ['episode_id', 'episode'], order: 'started_at' },
  { table: 'visit_entry', of: ['visit_id', 'visit'], order: 'seq' },
  { table: 'photo', of: ['visit_id', 'visit'], order: 'at' },
  { table: 'photo_placement', of: ['photo_id', 'photo'], order: 'at' },
  { table: 'closure', of: ['episode_id', 'episode'], order: 'at' },
  { table: 'plan', of: ['episode_id', 'episode'], order: 'number' },
  { table: 'decision', of: ['episode_id', 'episode'], order: 'at' },
  { table: 'home_entry', of: ['episode_id', 'episode'], order: 'at' },
  { table: 'home_question', of: ['episode_id', 'episode'], order: 'at' },
  { table: 'taught_exercise', of: ['episode_id', 'episode'], order: 'at' },
  { table: 'course_event', of: ['episode_id', 'episode'], order: 'at' },
  { table: 'lab_capture', of: ['episode_id', 'episode'], order: 'at' },
  { table: 'letter', of: ['episode_id', 'episode'], order: 'started_at' },
  { table: 'consent', of: ['person_id', 'person'], order: 'at' },
  { table: 'outing', of: ['person_id', 'person'], order: 'started_at' },
  { table: 'appointment', of: ['person_id', 'person'], order: 'at' },
  { table: 'set_aside', of: ['person_id', 'person'], order: 'at' },
  { table: 'kept_resource', of: ['person_id', 'person'], order: 'at' },
] as const satisfies readonly RecordTable[];

export type RecordTableName = (typeof RECORD_TABLES)[number]['table'];

/** Keys to doors, who looks now, what it takes to undo, marks of the machine and the log of the clinic: not the record, and never moved. */
export const NOT_THE_RECORD = [
  'home_link',
  'home_session',
  'visit_presence',
  'person_mark',
  'person_merge',
  'audit',
] as const;

/** A row as its columns by their names, times with all their digits; bytes as base64. */
export type Row = Readonly<Record<string, unknown>> & { readonly id: string };

export type PersonRows = { readonly [T in RecordTableName]: readonly Row[] };

const BYTES = new Set<string>(['photo', 'lab_capture']);

/** What is never moved: the clinic is another, and the order of writing is made anew. */
const LEFT_BEHIND = ['clinic_id', 'seq'] as const;

const WAY = {
  person: '= $1',
  episode: 'IN (SELECT id FROM episode WHERE person_id = $1)',
  visit: 'IN (SELECT v.id FROM visit v JOIN episode e ON e.id = v.episode_id WHERE e.person_id = $1)',
  photo:
    'IN (SELECT p.id FROM photo p JOIN visit v ON v.id = p.visit_id JOIN episode e ON e.id = v.episode_id WHERE e.person_id = $1)',
} as const;

/** Every row of a person's record. */
export async function readRows(tx: Tx, personId: string): Promise<PersonRows> {
  const read: Partial<Record<RecordTableName, readonly Row[]>> = {};
  for (const { table, of, ...more } of RECORD_TABLES) {
    const order = 'order' in more ? `${more.order}, id` : 'id';
    const left = [...LEFT_BEHIND, ...(BYTES.has(table) ? ['bytes'] : [])].map((c) => `'${c}'`).join(', ');
    const bytes = BYTES.has(table)
      ? ` || jsonb_build_object('bytes', replace(encode(t.bytes, 'base64'), E'\\n', ''))`
      : '';
    const rows = await tx.query<{ row: Row }[]>(
      `SELECT (to_jsonb(t) - ARRAY[${left}])${bytes} AS row FROM ${table} t
        WHERE ${of[0]} ${WAY[of[1]]} ORDER BY ${order}`,
      [personId],
    );
    read[table] = rows.map((r) => r.row);
  }
  return read as PersonRows;
}

/** Columns of a table that can be given, and how each is written in a statement. */
async function columnsOf(tx: Tx, table: string): Promise<readonly { name: string; quoted: string }[]> {
  return tx.query<{ name: string; quoted: string }[]>(
    `SELECT attname AS name, quote_ident(attname) AS quoted FROM pg_attribute
      WHERE attrelid = $1::regclass AND attnum > 0 AND NOT attisdropped AND attidentity = '' ORDER BY attnum`,
    [table],
  );
}

/** What of a visit is set when all else of it stands: a signed one takes nothing more. */
const SIGNED = ['signed_at', 'signed_by'] as const;

const unsigned = (row: Row): Row => ({ ...row, ...Object.fromEntries(SIGNED.map((c) => [c, null])) });

const asBytea = (row: Row): Row =>
  typeof row['bytes'] === 'string'
    ? { ...row, bytes: `\\x${Buffer.from(row['bytes'], 'base64').toString('hex')}` }
    : row;

/** Writes rows of a table as they are, for a clinic. */
export async function insertRows(
  tx: Tx,
  clinicId: string,
  table: string,
  rows: readonly Readonly<Record<string, unknown>>[],
): Promise<void> {
  if (rows.length === 0) return;
  // A column that came to the table since has its default.
  const given = new Set(['clinic_id', ...rows.flatMap((r) => Object.keys(r))]);
  const names = (await columnsOf(tx, table))
    .filter((c) => given.has(c.name))
    .map((c) => c.quoted)
    .join(', ');
  await tx.query(
    `INSERT INTO ${table} (${names})
     SELECT ${names} FROM jsonb_array_elements($1::jsonb) WITH ORDINALITY AS given (one, nth)
       CROSS JOIN LATERAL jsonb_populate_record(NULL::${table}, given.one) ORDER BY nth`,
    [JSON.stringify(rows.map((r) => ({ ...r, clinic_id: clinicId })))],
  );
}

/** Writes a whole record, in the order in which it refers to itself. */
export async function writeRows(tx: Tx, clinicId: string, rows: PersonRows): Promise<void> {
  for (const { table } of RECORD_TABLES) {
    const own: readonly Row[] = rows[table];
    await insertRows(tx, clinicId, table, table === 'visit' ? own.map(unsigned) : own.map(asBytea));
  }
  const signed = rows.visit.filter((v) => v['signed_at'] !== null);
  await tx.query(
    `UPDATE visit v SET signed_at = s.signed_at, signed_by = s.signed_by
       FROM jsonb_to_recordset($1::jsonb) AS s (id uuid, signed_at timestamptz, signed_by uuid) WHERE v.id = s.id`,
    [JSON.stringify(signed)],
  );
}
