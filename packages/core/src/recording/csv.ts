import { say } from '../quantity/tongue.js';
import { type Read, read, readHeader, unread } from './line.js';
import { PER_KPA, RECORDING_LIMITS, type RecordingHeader } from './recording.js';

export const CSV_FIRST = 'heathstep-recording';
export const LEG_COLUMNS = [
  'left_shin',
  'left_heel',
  'left_pitch',
  'right_shin',
  'right_heel',
  'right_pitch',
] as const;

/** How a file writes its columns: between them, and within a number. */
export interface CsvWay {
  readonly between: ',' | ';';
  readonly decimal: '.' | ',';
}

/** By the first line: sheets of some countries write `;` between columns and `,` within a number. */
export const csvWay = (firstLine: string): CsvWay =>
  firstLine.includes(';') ? { between: ';', decimal: ',' } : { between: ',', decimal: '.' };

const NAMES: Readonly<Record<string, string>> = {
  rate_hz: 'rateHz',
  cell_mm: 'cellMm',
  most_kpa: 'mostKpa',
  calibrated_on: 'calibratedOn',
  device: 'name',
};
const NUMBERS = new Set(['rateHz', 'columns', 'rows', 'cellMm', 'mostKpa']);

/** The lines above the column names, as the header they write. */
export function csvHeader(lines: readonly string[], way: CsvWay): Read<RecordingHeader> {
  const o: Record<string, unknown> = { version: 1 };
  for (const line of lines.slice(1)) {
    const cut = line.indexOf(way.between);
    const name = (cut < 0 ? line : line.slice(0, cut)).trim();
    const value =
      cut < 0
        ? ''
        : line
            .slice(cut + 1)
            .trim()
            .replace(/[,;]+$/, '');
    const key = NAMES[name] ?? name;
    o[key] = NUMBERS.has(key)
      ? Number(way.decimal === ',' ? value.replace(',', '.') : value)
      : key === 'simulated'
        ? value === 'yes'
        : value;
  }
  return readHeader(o);
}

/** The number a stretch of text writes; NaN for none. Quicker than Number on plain decimals, which are nearly all. */
function plainNumber(text: string, from: number, to: number, decimal: number): number {
  let i = from;
  let sign = 1;
  if (text.charCodeAt(i) === 45) {
    sign = -1;
    i += 1;
  }
  let whole = 0;
  let digits = 0;
  let scale = 0;
  for (; i < to; i += 1) {
    const c = text.charCodeAt(i);
    if (c >= 48 && c <= 57) {
      whole = whole * 10 + (c - 48);
      digits += 1;
      if (scale > 0) scale *= 10;
    } else if (c === decimal && scale === 0) scale = 1;
    else return slowNumber(text.slice(from, to), decimal);
  }
  if (digits === 0 || digits > 15) return slowNumber(text.slice(from, to), decimal);
  return (sign * whole) / (scale || 1);
}

function slowNumber(text: string, decimal: number): number {
  const trimmed = text.trim();
  if (!/^[+-]?[\d.,]+(e[+-]?\d+)?$/i.test(trimmed)) return Number.NaN;
  return Number(decimal === 44 ? trimmed.replace(',', '.') : trimmed);
}

/**
 * Calls `take` with the place and the bounds of every column of a line, and answers how many there were. Nothing is cut out
 * of the line: most columns of a mat are empty.
 */
function eachColumn(
  line: string,
  between: number,
  take: (column: number, from: number, to: number) => void,
): number {
  let column = 0;
  let from = 0;
  for (let i = 0; i <= line.length; i += 1) {
    if (i < line.length && line.charCodeAt(i) !== between) continue;
    take(column, from, i);
    column += 1;
    from = i + 1;
  }
  return column;
}

/** Why a line has not as many columns as it should. */
const columnsProblem = (found: number, wanted: number, way: CsvWay): string =>
  found > wanted && way.between === ','
    ? say(
        '{{found}} columns, {{wanted}} are wanted. Were commas written within the numbers? Then put ; between the columns',
        { found, wanted },
      )
    : say('{{found}} columns, {{wanted}} are wanted', { found, wanted });

/** One row of a mat into `cells`; the time, and how many cells were below nought. */
export function csvMatRow(
  line: string,
  way: CsvWay,
  cells: Uint16Array,
): Read<{ readonly t: number; readonly below: number }> {
  const decimal = way.decimal.charCodeAt(0);
  let t = Number.NaN;
  let below = 0;
  let wrong = '';
  cells.fill(0);
  const found = eachColumn(line, way.between.charCodeAt(0), (column, from, to) => {
    if (from === to || wrong !== '' || column > cells.length) return;
    const v = plainNumber(line, from, to, decimal);
    if (column === 0) t = v;
    else if (!(v <= RECORDING_LIMITS.kpa && v >= -RECORDING_LIMITS.belowNought))
      wrong = Number.isNaN(v)
        ? say('cell {{cell}}: not a number', { cell: column - 1 })
        : say('cell {{cell}}: {{value}} kPa is not from 0 to 6000', { cell: column - 1, value: v });
    else if (v < 0) below += 1;
    else cells[column - 1] = Math.round(v * PER_KPA);
  });
  if (found !== cells.length + 1) return unread(columnsProblem(found, cells.length + 1, way));
  if (wrong !== '') return unread(wrong);
  return t >= 0 ? read({ t, below }) : unread(say('a frame without its time'));
}

/** One row of a motion pair: the time and six angles, null where empty. */
export function csvLegRow(
  line: string,
  way: CsvWay,
): Read<{ readonly t: number; readonly angles: readonly (number | null)[] }> {
  const decimal = way.decimal.charCodeAt(0);
  const values: (number | null)[] = [];
  eachColumn(line, way.between.charCodeAt(0), (_, from, to) => {
    values.push(from === to ? null : plainNumber(line, from, to, decimal));
  });
  const wanted = LEG_COLUMNS.length + 1;
  if (values.length !== wanted) return unread(columnsProblem(values.length, wanted, way));
  const [t, ...angles] = values;
  if (angles.some((a) => a !== null && Number.isNaN(a))) return unread(say('an angle that is not a number'));
  if (t === null || t === undefined || !(t >= 0)) return unread(say('a frame without its time'));
  return read({ t, angles });
}
