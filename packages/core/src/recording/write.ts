import { CSV_FIRST, LEG_COLUMNS } from './csv.js';
import {
  type Angles,
  isMat,
  type LegAngles,
  type MatRecording,
  PER_KPA,
  type Recording,
  type RecordingHeader,
} from './recording.js';

const round = (v: number): number => Math.round(v * 1000) / 1000;

/** Cells that are loaded, as runs: the number of the first, and the pressures from it on. */
export function runsOf(cells: Uint16Array, from: number, size: number): string {
  const runs: string[] = [];
  let run = '';
  for (let i = 0; i < size; i += 1) {
    const v = cells[from + i] as number;
    if (v === 0) {
      if (run !== '') runs.push(`${run}]`);
      run = '';
    } else run = run === '' ? `[${i},${v / PER_KPA}` : `${run},${v / PER_KPA}`;
  }
  if (run !== '') runs.push(`${run}]`);
  return `[${runs.join(',')}]`;
}

const leg = (angles: LegAngles | null, n: number): string =>
  angles === null || Number.isNaN(angles.shin[n])
    ? 'null'
    : `[${round(angles.shin[n] as number)},${round(angles.heel[n] as number)},${round(angles.pitch[n] as number)}]`;

const three = (a: Angles | null): string => (a === null ? 'null' : `[${a.map(round).join(',')}]`);

/** Both legs of one sample, as a frame writes them. */
export const legsLine = (left: Angles | null, right: Angles | null): string =>
  `"left":${three(left)},"right":${three(right)}`;

const unitOf = (h: RecordingHeader): string => (h.kind === 'pressure-mat' ? 'kPa' : 'deg');

/** The heading of a recording, as the first line of its JSON. */
function jsonHeading(h: RecordingHeader): string {
  const { kind, ...rest } = h;
  const text = JSON.stringify({ format: CSV_FIRST, version: 1, kind, unit: unitOf(h), ...rest });
  return `${text.slice(0, -1)},"frames":[`;
}

/** A recording as JSON, a line at a time: one JSON document with a frame on each line. Read back, it is the same. */
export function* jsonLines(r: Recording): Generator<string> {
  yield `${jsonHeading(r.header)}\n`;
  const count = r.times.length;
  for (let n = 0; n < count; n += 1) {
    const t = `{"t":${Math.round((r.times[n] as number) * 1e4) / 1e4}`;
    const end = n + 1 < count ? '},\n' : '}\n';
    if (isMat(r)) {
      const size = r.header.columns * r.header.rows;
      yield `${t},"runs":${runsOf(r.cells, n * size, size)}${end}`;
    } else yield `${t},"left":${leg(r.left, n)},"right":${leg(r.right, n)}${end}`;
  }
  yield ']}\n';
}

function csvHeading(h: RecordingHeader): string[] {
  const mat =
    h.kind === 'pressure-mat'
      ? [`columns,${h.columns}`, `rows,${h.rows}`, `cell_mm,${h.cellMm}`, `most_kpa,${h.mostKpa}`]
      : [];
  const plain = h.name.replace(/[\r\n,;]+/g, ' ');
  return [
    `${CSV_FIRST},1`,
    `kind,${h.kind}`,
    `unit,${unitOf(h)}`,
    `rate_hz,${h.rateHz}`,
    ...mat,
    `device,${plain}`,
    `calibrated_on,${h.calibratedOn ?? ''}`,
    `simulated,${h.simulated ? 'yes' : 'no'}`,
    ...(h.task === null ? [] : [`task,${h.task}`]),
    ...(h.side === null ? [] : [`side,${h.side}`]),
  ];
}

function matRow(r: MatRecording, n: number): string {
  const size = r.header.columns * r.header.rows;
  let text = '';
  for (let i = 0; i < size; i += 1) {
    const v = r.cells[n * size + i] as number;
    text += v === 0 ? ',' : `,${v / PER_KPA}`;
  }
  return text;
}

const legCells = (angles: LegAngles | null, n: number): string =>
  angles === null || Number.isNaN(angles.shin[n])
    ? ',,,'
    : `,${round(angles.shin[n] as number)},${round(angles.heel[n] as number)},${round(angles.pitch[n] as number)}`;

/** A recording as CSV, a line at a time: its heading, the column names, a row a frame, and how many there were. */
export function* csvLines(r: Recording): Generator<string> {
  yield `${csvHeading(r.header).join('\n')}\n`;
  const size = isMat(r) ? r.header.columns * r.header.rows : 0;
  const names = isMat(r) ? Array.from({ length: size }, (_, i) => String(i)) : LEG_COLUMNS;
  yield `t,${names.join(',')}\n`;
  for (let n = 0; n < r.times.length; n += 1) {
    const t = String(Math.round((r.times[n] as number) * 1e4) / 1e4);
    yield `${t}${isMat(r) ? matRow(r, n) : `${legCells(r.left, n)}${legCells(r.right, n)}`}\n`;
  }
  yield `end,${r.times.length}\n`;
}
