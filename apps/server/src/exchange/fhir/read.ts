import type { DomainResource, FhirResource } from 'fhir/r4.js';
import { say } from '@heathstep/core';
import { timeNow } from '../../clock.js';
import type { FieldError } from '../../http/problem.js';
import { RECORD_TABLES, type PersonRows, type RecordTableName, type Row } from '../tables.js';
import { type Author, OWN_CONTENT_TABLES, type OwnContent } from './sources.js';
import { isAsWritten, RECORD, sameResource } from './terms.js';

/** At most so many resources of one person are taken. [convention] */
const MOST_RESOURCES = 50_000;
/** And so many problems told at once. */
const MOST_TOLD = 20;

/** Someone as another system tells of them. */
interface ForeignPerson {
  readonly name: string;
  readonly birthDate: string | null;
  readonly sex: 'female' | 'male' | null;
  readonly language: null;
}

/** What a bundle brings. */
export interface ReadBundle {
  /** Our own rows, by table; none where it comes from another system. */
  readonly rows: PersonRows;
  readonly authors: readonly Author[];
  readonly ownContent: OwnContent;
  /** The person where they come from another system. */
  readonly foreign: ForeignPerson | null;
  /** Resources that have no place of ours, as they came. */
  readonly others: readonly FhirResource[];
  /** The path of the entry that a row came in. */
  readonly pathOf: ReadonlyMap<Row, string>;
}

export type BundleRead =
  | { readonly ok: true; readonly read: ReadBundle }
  | { readonly ok: false; readonly problems: readonly FieldError[] };

const TYPE = /^[A-Z][A-Za-z]{2,40}$/;
const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;
const DAY = /^\d{4}-\d{2}-\d{2}$/;

const isObject = (v: unknown): v is Record<string, unknown> =>
  typeof v === 'object' && v !== null && !Array.isArray(v);

interface Placed {
  readonly resource: FhirResource & DomainResource;
  readonly path: string;
}

/** The entries of a bundle; what is none is told by its path. */
function entriesOf(body: unknown, problems: FieldError[]): Placed[] {
  const wrong = (pointer: string, detail: string): [] => {
    problems.push({ pointer, detail });
    return [];
  };
  if (!isObject(body) || body['resourceType'] !== 'Bundle')
    return wrong('/resourceType', say('must be a Bundle of FHIR R4'));
  const { entry } = body;
  if (!Array.isArray(entry)) return wrong('/entry', say('must be a list of resources'));
  if (entry.length > MOST_RESOURCES)
    return wrong('/entry', say('At most {{count}} resources', { count: MOST_RESOURCES }));
  return entry.flatMap((e: unknown, i): Placed[] => {
    const path = `/entry/${String(i)}/resource`;
    const resource = isObject(e) ? e['resource'] : undefined;
    if (!isObject(resource)) return wrong(path, say('must be a resource'));
    if (typeof resource['resourceType'] !== 'string' || !TYPE.test(resource['resourceType']))
      return wrong(`${path}/resourceType`, say('must name a type of resource'));
    if (resource['extension'] !== undefined && !Array.isArray(resource['extension']))
      return wrong(`${path}/extension`, say('must be a list'));
    return [{ resource: resource as unknown as Placed['resource'], path }];
  });
}

const TABLES: ReadonlySet<string> = new Set([
  ...RECORD_TABLES.map((t) => t.table),
  ...OWN_CONTENT_TABLES,
  'app_user',
]);

const listOf = (value: unknown): readonly Record<string, unknown>[] =>
  Array.isArray(value) ? value.filter(isObject) : [];

const textOf = (value: unknown): string => (typeof value === 'string' ? value : '');

/** A row as it was written; null where it is none. */
function rowOf(written: string): Record<string, unknown> | null {
  try {
    const row: unknown = JSON.parse(written);
    return isObject(row) ? row : null;
  } catch {
    return null;
  }
}

/** Our own rows in a resource. */
function rowsIn({ resource, path }: Placed, problems: FieldError[]): { table: string; row: Row }[] {
  const { content } = resource as { content?: unknown };
  return listOf(resource.extension).flatMap((e, i) => {
    if (e['url'] !== RECORD) return [];
    const part = (url: string) => listOf(e['extension']).find((p) => p['url'] === url);
    const table = textOf(part('table')?.['valueCode']);
    const row = rowOf(textOf(part('row')?.['valueString']));
    if (!TABLES.has(table) || row === null) {
      problems.push({
        pointer: `${path}/extension/${String(i)}`,
        detail: say('is no record this version knows'),
      });
      return [];
    }
    const hasBytes = table === 'photo' || table === 'lab_capture';
    const bytes = isObject(content) ? textOf(content['data']) : '';
    return [{ table, row: (hasBytes ? { ...row, bytes } : row) as Row }];
  });
}

/** How a name is written: whole, or in its parts. */
function nameOf(name: unknown): string {
  const [given] = listOf(name);
  const parts = Array.isArray(given?.['given']) ? given['given'] : [];
  return (textOf(given?.['text']) || [...parts.map(textOf), textOf(given?.['family'])].join(' ')).trim();
}

const isDay = (v: unknown): v is string =>
  typeof v === 'string' &&
  DAY.test(v) &&
  !Number.isNaN(Date.parse(v)) &&
  new Date(v).toISOString().startsWith(v);

/** A person of another system; null with what is missing. */
function personOf(patients: readonly Placed[], problems: FieldError[]): ForeignPerson | null {
  const [first, second] = patients;
  if (first === undefined || second !== undefined) {
    problems.push({
      pointer: second?.path ?? '/entry',
      detail: say('One Patient is wanted, and no more than one'),
    });
    return null;
  }
  const { birthDate, gender, ...rest } = first.resource as unknown as Record<string, unknown>;
  const name = nameOf(rest['name']);
  if (name === '' || name.length > 80)
    problems.push({ pointer: `${first.path}/name`, detail: say('A name of at most 80 characters') });
  if (
    birthDate !== undefined &&
    !(isDay(birthDate) && birthDate >= '1900-01-01' && birthDate <= timeNow().toISOString().slice(0, 10))
  )
    problems.push({ pointer: `${first.path}/birthDate`, detail: say('A whole date of birth, or none') });
  return {
    name,
    birthDate: isDay(birthDate) ? birthDate : null,
    sex: gender === 'female' || gender === 'male' ? gender : null,
    // What they read in is chosen here, from the languages that are here.
    language: null,
  };
}

/**
 * Reads a bundle. Resources of ours give back the rows they were written from, and are refused where anything of them was
 * changed on the way; of another system's the person is read, and everything is kept as it came.
 */
export function readBundle(body: unknown): BundleRead {
  const problems: FieldError[] = [];
  const placed = entriesOf(body, problems);
  if (problems.length > 0) return { ok: false, problems: problems.slice(0, MOST_TOLD) };
  const tables = new Map<string, Row[]>([...TABLES].map((t) => [t, []]));
  const pathOf = new Map<Row, string>();
  const foreign: Placed[] = [];
  for (const one of placed) {
    const asWritten = isAsWritten(one.resource);
    if (asWritten === null) foreign.push(one);
    else if (!asWritten)
      problems.push({
        pointer: one.path,
        detail: say('was changed after it was written here; take the file as it was exported'),
      });
    else
      for (const { table, row } of rowsIn(one, problems)) {
        tables.get(table)?.push(row);
        pathOf.set(row, one.path);
      }
  }
  const of = (table: string) => tables.get(table) ?? [];
  for (const [row, path] of pathOf) {
    const id: unknown = row.id;
    if (id !== undefined && !(typeof id === 'string' && UUID.test(id)))
      problems.push({ pointer: path, detail: say('has no id of ours') });
  }
  const isOurs = of('person').length > 0;
  if (of('person').length > 1)
    problems.push({ pointer: '/entry', detail: say('is of more than one person') });
  const person = isOurs
    ? null
    : personOf(
        foreign.filter((f) => f.resource.resourceType === 'Patient'),
        problems,
      );
  const again = of('kept_resource').map((k) => k['resource'] as FhirResource);
  const others = foreign.map((f) => f.resource).filter((r) => !again.some((k) => sameResource(k, r)));
  if (problems.length > 0) return { ok: false, problems: problems.slice(0, MOST_TOLD) };
  return {
    ok: true,
    read: {
      rows: Object.fromEntries(RECORD_TABLES.map(({ table }) => [table, of(table)])) as Record<
        RecordTableName,
        Row[]
      >,
      authors: of('app_user') as unknown as Author[],
      ownContent: Object.fromEntries(OWN_CONTENT_TABLES.map((t) => [t, of(t)])) as unknown as OwnContent,
      foreign: person,
      others,
      pathOf,
    },
  };
}
