import { createHmac, randomBytes } from 'node:crypto';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { stringify } from 'csv-stringify/sync';
import type { Response } from 'express';
import { type MeasureEntry, readKey } from '@heathstep/contracts';
import {
  combineTrials,
  localDay,
  type MeasureDefinition,
  type ResearchPerson,
  researchTraits,
  type ResearchTraits,
  shiftedDay,
} from '@heathstep/core';
import { ageOn } from '../clock.js';
import type { Db, Tx } from '../persistence/db.js';

/** So many visits are read at once: however many there are, no more stands in memory. */
const VISITS_AT_ONCE = 100;

/** Smaller than every id. */
const BEFORE_ALL = '00000000-0000-0000-0000-000000000000';

const NEXT_VISITS = `
  SELECT v.id AS visit_id, v.started_at, p.id AS person_id, p.name, to_char(p.birth_date, 'YYYY-MM-DD') AS birth_date,
         e.condition, e.affected
    FROM visit v JOIN episode e ON e.id = v.episode_id JOIN person p ON p.id = e.person_id
   WHERE v.id > $1 ORDER BY v.id LIMIT ${String(VISITS_AT_ONCE)}`;

interface VisitRow {
  readonly visit_id: string;
  readonly started_at: Date;
  readonly person_id: string;
  readonly name: string;
  readonly birth_date: string | null;
  readonly condition: string;
  readonly affected: string;
}

interface EntryRow {
  readonly visit_id: string;
  readonly key: string;
  readonly value: MeasureEntry | null;
}

/** A measure of one side at one visit. */
interface Measurement {
  readonly visit: VisitRow;
  readonly measure: MeasureDefinition;
  readonly side: string;
  readonly entry: MeasureEntry;
  readonly value: number | null;
}

async function measuredAt(
  tx: Tx,
  visits: readonly VisitRow[],
  byKey: ReadonlyMap<string, MeasureDefinition>,
): Promise<Measurement[]> {
  const entries = await tx.query<EntryRow[]>(
    `SELECT DISTINCT ON (visit_id, key) visit_id, key, value FROM visit_entry
      WHERE visit_id = ANY($1) AND key LIKE 'measure.%' ORDER BY visit_id, key, version DESC`,
    [visits.map((v) => v.visit_id)],
  );
  const of = new Map<string, EntryRow[]>(visits.map((v) => [v.visit_id, []]));
  for (const e of entries) of.get(e.visit_id)?.push(e);
  return visits.flatMap((visit) =>
    (of.get(visit.visit_id) ?? []).flatMap(({ key, value }): Measurement[] => {
      const read = readKey(key);
      const measure = byKey.get(read?.name ?? '');
      // What was cleared, and what only a simulated device said, is no measurement.
      if (read === null || measure === undefined || value === null || value.simulated === true) return [];
      const taken = value.status === 'taken' ? combineTrials(measure, value.trials).value : null;
      return [{ visit, measure, side: read.side, entry: value, value: taken }];
    }),
  );
}

interface Batch {
  readonly visits: readonly VisitRow[];
  readonly lines: readonly Measurement[];
}

interface Table {
  readonly measures: readonly MeasureDefinition[];
  readonly heads: readonly string[];
  /** Null: not told. */
  readonly lineOf: (m: Measurement) => readonly unknown[] | null;
}

/** A table of every measurement of a clinic, some visits at a time. */
async function* pieces(db: Db, clinicId: string, { measures, heads, lineOf }: Table): AsyncGenerator<string> {
  const byKey = new Map(measures.map((m) => [m.key, m]));
  yield stringify([[...heads]]);
  for (let last = BEFORE_ALL; ;) {
    const after = last;
    const { visits, lines } = await db.inClinic(clinicId, async (tx): Promise<Batch> => {
      const some: VisitRow[] = await tx.query<VisitRow[]>(NEXT_VISITS, [after]);
      return { visits: some, lines: await measuredAt(tx, some, byKey) };
    });
    yield stringify(
      lines.flatMap((m) => {
        const line = lineOf(m);
        return line === null ? [] : [[...line]];
      }),
      { escape_formulas: true },
    );
    if (visits.length < VISITS_AT_ONCE) return;
    last = visits.at(-1)?.visit_id ?? after;
  }
}

/** Writes the table no faster than it is read; who is gone before its end is no failure. */
export async function writeMeasurements(
  db: Db,
  clinicId: string,
  table: Table,
  response: Response,
): Promise<void> {
  try {
    await pipeline(Readable.from(pieces(db, clinicId, table)), response);
  } catch (error) {
    if ((error as { code?: string }).code !== 'ERR_STREAM_PREMATURE_CLOSE') throw error;
  }
}

const rounded = ({ value, measure }: Measurement): string =>
  value === null ? '' : value.toFixed(measure.decimals);

export const MEASUREMENT_HEADS = [
  'person',
  'date of birth',
  'complaint',
  'treated side',
  'day',
  'measure',
  'side',
  'value',
  'unit',
  'status',
  'trials',
  'method',
  'pain',
] as const;

/** The day of a visit in a time zone: worked out once of a visit, which has many lines. */
function daysIn(timeZone: string): (visit: VisitRow) => string {
  let last: { readonly visit: VisitRow; readonly day: string } | null = null;
  return (visit) => {
    if (last?.visit !== visit) last = { visit, day: localDay(visit.started_at, timeZone) };
    return last.day;
  };
}

/** A line of the clinic's own table. */
export function measurementLine(timeZone: string): (m: Measurement) => readonly unknown[] {
  const dayOf = daysIn(timeZone);
  return (m) => [
    m.visit.name,
    m.visit.birth_date,
    m.visit.condition,
    m.visit.affected,
    dayOf(m.visit),
    m.measure.key,
    m.side,
    rounded(m),
    m.measure.unit,
    m.entry.status,
    m.entry.trials.filter((t) => t !== null).join(' '),
    m.entry.method ?? m.measure.methods[0] ?? '',
    m.entry.pain,
  ];
}

export const RESEARCH_HEADS = [
  'person',
  'age band',
  'sex',
  'complaint',
  'treated side',
  'day, moved',
  'measure',
  'side',
  'value',
  'unit',
  'status',
] as const;

/** What of everyone of the clinic may be told without names. */
export async function traitsOf(tx: Tx, today: string): Promise<ReadonlyMap<string, ResearchTraits>> {
  const rows = await tx.query<
    { id: string; condition: string; sex: ResearchPerson['sex']; birth_date: string | null }[]
  >(
    `SELECT DISTINCT p.id, e.condition, p.sex, to_char(p.birth_date, 'YYYY-MM-DD') AS birth_date
       FROM person p JOIN episode e ON e.person_id = p.id
      WHERE NOT EXISTS (SELECT 1 FROM (
        SELECT DISTINCT ON (c.person_id) c.given FROM consent c
         WHERE c.person_id = p.id AND c.kind = 'research' ORDER BY c.person_id, c.at DESC, c.id DESC) last WHERE NOT last.given)`,
  );
  return researchTraits(
    rows.map(({ id, condition, sex, birth_date }) => ({
      id,
      condition,
      sex,
      ageYears: ageOn(birth_date, today),
    })),
  );
}

/** A line without a name: who it is of is told by a number of this table alone, and their days are moved together. */
export function researchLine(
  timeZone: string,
  traits: ReadonlyMap<string, ResearchTraits>,
): (m: Measurement) => readonly unknown[] | null {
  const key = randomBytes(32);
  const dayOf = daysIn(timeZone);
  const own = (id: string): Buffer => createHmac('sha256', key).update(id).digest();
  return (m) => {
    const told = traits.get(`${m.visit.person_id} ${m.visit.condition}`);
    if (told === undefined) return null;
    const number = own(m.visit.person_id);
    return [
      number.toString('hex', 0, 6),
      told.ageBand,
      told.sex,
      m.visit.condition,
      m.visit.affected,
      shiftedDay(dayOf(m.visit), number.readUInt32BE(8) / 0xff_ff_ff_ff),
      m.measure.key,
      m.side,
      rounded(m),
      m.measure.unit,
      m.entry.status,
    ];
  };
}
