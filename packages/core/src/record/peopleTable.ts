import { dayOf, type DayText } from '../quantity/day.js';
import { phrase, say } from '../quantity/tongue.js';
import { searchable } from '../quantity/words.js';

/** What of a person a column can hold. */
export const PERSON_FIELDS = ['name', 'family', 'birthDate', 'occupation', 'sex'] as const;
export type PersonField = (typeof PERSON_FIELDS)[number];

/** In which order day, month and year of a date stand, where it does not say so itself. */
export const DATE_ORDERS = ['dmy', 'mdy', 'ymd'] as const;
export type DateOrder = (typeof DATE_ORDERS)[number];

/** The column of each field, counted from 0; a field without one stays empty. */
export type PersonColumns = Readonly<Partial<Record<PersonField, number>>>;

interface TablePerson {
  readonly name: string;
  readonly birthDate: DayText | null;
  readonly occupation: string;
  readonly sex: 'female' | 'male' | null;
}

/**
 * What becomes of a line. `same`: someone of that name and date of birth is here, or stands above. `alike`: someone of that
 * name, and one of the two dates of birth is not known.
 */
export type TableLine =
  | { readonly line: number; readonly kind: 'new' | 'same' | 'alike'; readonly person: TablePerson }
  | { readonly line: number; readonly kind: 'wrong'; readonly field: PersonField; readonly reason: string };

const NAMES: Readonly<Record<PersonField, readonly string[]>> = {
  name: ['name', 'full name', 'patient', 'first name', 'given name', 'vorname', 'forename'],
  family: ['surname', 'last name', 'family name', 'nachname', 'familienname'],
  birthDate: ['date of birth', 'birth date', 'birthdate', 'born', 'dob', 'geburtsdatum', 'birthday'],
  occupation: ['occupation', 'job', 'work', 'profession', 'beruf'],
  sex: ['sex', 'gender', 'geschlecht'],
};

/** Which column is likely which field, by its heading. */
export function guessColumns(heads: readonly string[]): PersonColumns {
  const plain = heads.map((h) =>
    searchable(h)
      .replaceAll(/[^a-z ]/g, ' ')
      .trim(),
  );
  return Object.fromEntries(
    PERSON_FIELDS.flatMap((field) => {
      const at = NAMES[field].map((n) => plain.indexOf(n)).find((i) => i >= 0);
      return at === undefined ? [] : [[field, at]];
    }),
  );
}

const ORDER: Readonly<Record<DateOrder, readonly [day: number, month: number, year: number]>> = {
  dmy: [0, 1, 2],
  mdy: [1, 0, 2],
  ymd: [2, 1, 0],
};

/** A date as it is written in a table, as ISO; null where there is no such day. A year of four digits first says its order itself. */
export function dateIn(text: string, order: DateOrder): DayText | null {
  const parts = /^(\d{1,4})[-./ ](\d{1,2})[-./ ](\d{1,4})(?:[T ].*)?$/.exec(text.trim())?.slice(1);
  if (parts === undefined) return null;
  const [d, m, y] = ORDER[(parts[0] ?? '').length === 4 ? 'ymd' : order].map((i) => parts[i] ?? '') as [
    string,
    string,
    string,
  ];
  // Two digits of a year say too little of a date of birth.
  if (y.length !== 4 || d.length > 2) return null;
  const iso = `${y}-${m.padStart(2, '0')}-${d.padStart(2, '0')}`;
  const time = Date.parse(`${iso}T00:00:00Z`);
  return Number.isNaN(time) || dayOf(new Date(time).toISOString()) !== iso ? null : iso;
}

const SEXES: Readonly<Record<string, 'female' | 'male'>> = {
  f: 'female',
  female: 'female',
  woman: 'female',
  w: 'female',
  weiblich: 'female',
  m: 'male',
  male: 'male',
  man: 'male',
  mannlich: 'male',
};

const LONGEST = { name: 80, occupation: 80 } as const;

export const PERSON_FIELD_WORDS: Readonly<Record<PersonField, string>> = {
  name: phrase('Name, or first name'),
  family: phrase('Last name, where apart'),
  birthDate: phrase('Date of birth'),
  occupation: phrase('Work or main activity'),
  sex: phrase('Sex'),
};

interface Known {
  readonly name: string;
  readonly birthDate: DayText | null;
}

/** Reads one line; what is wrong with it by its field. */
function readLine(
  cells: readonly string[],
  columns: PersonColumns,
  { order, today }: { readonly order: DateOrder; readonly today: DayText },
): TablePerson | { readonly field: PersonField; readonly reason: string } {
  const cell = (field: PersonField): string => {
    const at = columns[field];
    return at === undefined ? '' : (cells[at] ?? '').trim().replaceAll(/\s+/g, ' ');
  };
  const name = `${cell('name')} ${cell('family')}`.trim();
  if (name === '' || name.length > LONGEST.name)
    return { field: 'name', reason: say('A name of 1 to {{n}} characters', { n: LONGEST.name }) };
  const born = cell('birthDate');
  const birthDate = born === '' ? null : dateIn(born, order);
  if (born !== '' && (birthDate === null || birthDate > today || birthDate < '1900-01-01'))
    return {
      field: 'birthDate',
      reason: say('{{born}} is no date of birth in this order', { born: born.slice(0, 40) }),
    };
  const said = cell('sex');
  const sex = said === '' ? null : (SEXES[searchable(said).trim()] ?? undefined);
  if (sex === undefined)
    return {
      field: 'sex',
      reason: say('{{said}} is neither female nor male; leave it empty', { said: said.slice(0, 40) }),
    };
  const occupation = cell('occupation');
  if (occupation.length > LONGEST.occupation)
    return { field: 'occupation', reason: say('At most {{n}} characters', { n: LONGEST.occupation }) };
  return { name, birthDate, occupation, sex };
}

/**
 * What becomes of each line of a table of people; of one without a word nothing.
 *
 * @param rows lines without the headings; the first is line 2 of the file
 * @param known people of the clinic
 */
export function readPeople(
  rows: readonly (readonly string[])[],
  columns: PersonColumns,
  on: { readonly order: DateOrder; readonly today: DayText; readonly known: readonly Known[] },
): TableLine[] {
  const byName = new Map<string, (DayText | null)[]>();
  const note = ({ name, birthDate }: Known): void => {
    const key = searchable(name);
    byName.set(key, [...(byName.get(key) ?? []), birthDate]);
  };
  on.known.forEach(note);
  return rows.flatMap((cells, i): TableLine[] => {
    const line = i + 2;
    if (cells.every((c) => c.trim() === '')) return [];
    const read = readLine(cells, columns, on);
    if ('field' in read) return [{ line, kind: 'wrong', ...read }];
    const others = byName.get(searchable(read.name)) ?? [];
    const kind = others.some((b) => b === read.birthDate && b !== null)
      ? 'same'
      : others.some((b) => b === null || read.birthDate === null)
        ? 'alike'
        : 'new';
    note(read);
    return [{ line, kind, person: read }];
  });
}
