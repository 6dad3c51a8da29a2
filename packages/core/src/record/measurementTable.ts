import type { MeasureDefinition } from '../measure/definition.js';
import type { DayText } from '../quantity/day.js';
import { parseNumber } from '../quantity/parseNumber.js';
import { shown } from '../quantity/statistics.js';
import { phrase, say } from '../quantity/tongue.js';
import { searchable } from '../quantity/words.js';
import { dateIn, type DateOrder } from './peopleTable.js';
import { factorTo } from './units.js';

/** What of a measurement a column can hold. */
export const MEASUREMENT_FIELDS = [
  'person',
  'birthDate',
  'complaint',
  'day',
  'measure',
  'side',
  'value',
  'unit',
] as const;
export type MeasurementField = (typeof MEASUREMENT_FIELDS)[number];

/** Without these nothing can be read. */
export const NEEDED_FIELDS: readonly MeasurementField[] = ['person', 'day', 'measure', 'value'];

export type MeasurementColumns = Readonly<Partial<Record<MeasurementField, number>>>;

export const MEASUREMENT_FIELD_WORDS: Readonly<Record<MeasurementField, string>> = {
  person: phrase('Person'),
  birthDate: phrase('Date of birth'),
  complaint: phrase('Complaint'),
  day: phrase('Day'),
  measure: phrase('Measure'),
  side: phrase('Side'),
  value: phrase('Value, or trials'),
  unit: phrase('Unit'),
};

const NAMES: Readonly<Record<MeasurementField, readonly string[]>> = {
  person: ['person', 'name', 'patient', 'full name'],
  birthDate: ['date of birth', 'birth date', 'born', 'dob', 'geburtsdatum'],
  complaint: ['complaint', 'condition', 'diagnosis', 'episode', 'beschwerde'],
  day: ['day', 'date', 'on', 'datum', 'tag', 'measured on'],
  measure: ['measure', 'test', 'measurement', 'messung'],
  side: ['side', 'foot', 'leg', 'seite'],
  value: ['value', 'result', 'trials', 'wert', 'reading'],
  unit: ['unit', 'units', 'einheit'],
};

/** Which column is likely which field, by its heading; trials, where there are any, say more than their one value. */
export function guessMeasurementColumns(heads: readonly string[]): MeasurementColumns {
  const plain = heads.map((h) =>
    searchable(h)
      .replaceAll(/[^a-z ]/g, ' ')
      .trim(),
  );
  return Object.fromEntries(
    MEASUREMENT_FIELDS.flatMap((field) => {
      const at = NAMES[field].map((n) => plain.indexOf(n)).find((i) => i >= 0);
      return at === undefined ? [] : [[field, at]];
    }),
  );
}

/** Someone of the clinic with what they have been seen for. */
export interface MeasuredPerson {
  readonly id: string;
  readonly name: string;
  readonly birthDate: DayText | null;
  readonly complaints: readonly MeasuredComplaint[];
}

interface MeasuredComplaint {
  readonly id: string;
  readonly condition: string;
  /** As the pathway is called. */
  readonly name: string;
  readonly open: boolean;
  /** The day of the first visit here; null before there is one. */
  readonly firstVisit: DayText | null;
  /** What a table brought already: `measure side day`. */
  readonly have: ReadonlySet<string>;
}

/** What becomes of a line. `same`: that measure of that side and day is here, or stands above. */
export type MeasurementLine =
  | {
      readonly line: number;
      readonly kind: 'new' | 'same';
      readonly person: string;
      readonly episodeId: string;
      readonly day: DayText;
      readonly measure: string;
      readonly label: string;
      readonly side: 'left' | 'right' | 'none';
      /** In the measure's own unit. */
      readonly trials: readonly number[];
      readonly text: string;
    }
  | {
      readonly line: number;
      readonly kind: 'wrong';
      readonly field: MeasurementField;
      readonly reason: string;
    };

type Read = Extract<MeasurementLine, { readonly kind: 'new' | 'same' }>;

interface Wrong {
  readonly field: MeasurementField;
  readonly reason: string;
}

type TableMeasure = Pick<
  MeasureDefinition,
  'key' | 'label' | 'also' | 'aliases' | 'sides' | 'unit' | 'unitLabel' | 'allowed' | 'trials' | 'decimals'
>;

export interface MeasurementTableOn {
  readonly order: DateOrder;
  readonly today: DayText;
  readonly people: readonly MeasuredPerson[];
  readonly measures: readonly TableMeasure[];
}

const SIDES: Readonly<Record<string, 'left' | 'right' | 'none'>> = {
  l: 'left',
  left: 'left',
  li: 'left',
  links: 'left',
  r: 'right',
  right: 'right',
  re: 'right',
  rechts: 'right',
  none: 'none',
  '': 'none',
};

const wrong = (field: MeasurementField, reason: string): Wrong => ({ field, reason });
const isWrong = (read: object): read is Wrong => 'field' in read;
/** Folded words, one space between. */
const plain = (text: string): string => searchable(text).trim();
const cut = (text: string): string => text.slice(0, 40);

function personOf(name: string, born: string, on: MeasurementTableOn): MeasuredPerson | Wrong {
  const birthDate = born === '' ? null : dateIn(born, on.order);
  if (born !== '' && birthDate === null)
    return wrong('birthDate', say('{{born}} is no date of birth in this order', { born: cut(born) }));
  const found = on.people.filter(
    (p) =>
      searchable(p.name) === searchable(name) &&
      (birthDate === null || p.birthDate === null || p.birthDate === birthDate),
  );
  const [only] = found;
  if (only === undefined) return wrong('person', say('{{name}} is not here', { name: cut(name) }));
  return found.length === 1
    ? only
    : wrong('person', say('More than one {{name}} is here; say the date of birth', { name: cut(name) }));
}

function complaintOf(said: string, person: MeasuredPerson): MeasuredComplaint | Wrong {
  const wanted = plain(said);
  const all =
    wanted === ''
      ? person.complaints
      : person.complaints.filter((c) => [plain(c.condition), plain(c.name)].includes(wanted));
  const open = all.filter((c) => c.open);
  const [only] = all.length === 1 ? all : open;
  if (only !== undefined && (all.length === 1 || open.length === 1)) return only;
  return wrong(
    'complaint',
    all.length === 0
      ? say('{{name}} is not seen for this', { name: person.name })
      : say('{{name}} is seen for more than one complaint; say which', { name: person.name }),
  );
}

function dayOfLine(said: string, complaint: MeasuredComplaint, on: MeasurementTableOn): DayText | Wrong {
  const day = dateIn(said, on.order);
  if (day === null || day > on.today || day < '1950-01-01')
    return wrong('day', say('{{said}} is no day that was, in this order', { said: cut(said) }));
  return complaint.firstVisit !== null && day >= complaint.firstVisit
    ? wrong('day', say('Since the first visit here it is measured at visits; only what was before is taken'))
    : day;
}

function measureOf(said: string, measures: readonly TableMeasure[]): TableMeasure | Wrong {
  const wanted = plain(said);
  const found = measures.find((m) =>
    [m.key, m.label, ...(m.also ?? []), ...m.aliases].some((n) => plain(n) === wanted),
  );
  return found ?? wrong('measure', say('{{said}} is no measure of this clinic', { said: cut(said) }));
}

function sideOf(said: string, measure: TableMeasure): 'left' | 'right' | 'none' | Wrong {
  const side = SIDES[plain(said)];
  if (measure.sides === 'single')
    return side === 'none'
      ? 'none'
      : wrong('side', say('{{measure}} has no sides', { measure: say(measure.label) }));
  return side === 'left' || side === 'right'
    ? side
    : wrong('side', say('{{measure}} is of the left or the right', { measure: say(measure.label) }));
}

function trialsOf(said: string, unit: string, measure: TableMeasure): readonly number[] | Wrong {
  const factor = factorTo(measure.unit, unit);
  if (factor === null)
    return wrong(
      'unit',
      say('{{unit}} is no unit for {{measure}}', { unit: cut(unit), measure: say(measure.label) }),
    );
  const parts = said.split(/[\s/;]+/).filter((p) => p !== '');
  if (parts.length === 0) return wrong('value', say('There is no value'));
  if (parts.length > Math.max(measure.trials.count, 1) + 3)
    return wrong('value', say('More trials than this measure has'));
  const trials: number[] = [];
  for (const part of parts) {
    const read = parseNumber(part);
    if (!read.ok || read.value === null)
      return wrong('value', say('{{part}} is no number', { part: cut(part) }));
    const value = read.value * factor;
    const { min, max } = measure.allowed;
    if (value < min || value > max)
      return wrong(
        'value',
        say('{{part}} is outside what can be, {{min}} to {{max}} {{unit}}', {
          part: cut(part),
          min: shown(min),
          max: shown(max),
          unit: measure.unitLabel,
        }),
      );
    trials.push(Number(value.toFixed(6)));
  }
  return trials;
}

function readLine(
  cells: readonly string[],
  columns: MeasurementColumns,
  on: MeasurementTableOn,
): (Omit<Read, 'line' | 'kind'> & { readonly known: boolean }) | Wrong {
  const cell = (field: MeasurementField): string => {
    const at = columns[field];
    return at === undefined ? '' : (cells[at] ?? '').trim().replaceAll(/\s+/g, ' ');
  };
  const person = personOf(cell('person'), cell('birthDate'), on);
  if (isWrong(person)) return person;
  const complaint = complaintOf(cell('complaint'), person);
  if (isWrong(complaint)) return complaint;
  const day = dayOfLine(cell('day'), complaint, on);
  if (typeof day !== 'string') return day;
  const measure = measureOf(cell('measure'), on.measures);
  if (isWrong(measure)) return measure;
  const side = sideOf(cell('side'), measure);
  if (typeof side !== 'string') return side;
  const trials = trialsOf(cell('value'), cell('unit'), measure);
  if (isWrong(trials)) return trials;
  return {
    person: person.name,
    episodeId: complaint.id,
    day,
    measure: measure.key,
    label: say(measure.label),
    side,
    trials,
    text: `${trials.map((t) => shown(t, measure.decimals)).join(', ')} ${measure.unitLabel}`.trim(),
    known: complaint.have.has(`${measure.key} ${side} ${day}`),
  };
}

/**
 * What becomes of each line of a table of measurements; of one without a word nothing. Only what was measured before the first
 * visit of a complaint is taken: from then on it stands in visits.
 *
 * @param rows lines without the headings; the first is line 2 of the file
 */
export function readMeasurements(
  rows: readonly (readonly string[])[],
  columns: MeasurementColumns,
  on: MeasurementTableOn,
): MeasurementLine[] {
  const above = new Set<string>();
  return rows.flatMap((cells, i): MeasurementLine[] => {
    const line = i + 2;
    if (cells.every((c) => c.trim() === '')) return [];
    const read = readLine(cells, columns, on);
    if (isWrong(read)) return [{ line, kind: 'wrong', ...read }];
    const { known, ...told } = read;
    const key = `${told.episodeId} ${told.measure} ${told.side} ${told.day}`;
    const same = known || above.has(key);
    above.add(key);
    return [{ line, kind: same ? 'same' : 'new', ...told }];
  });
}
