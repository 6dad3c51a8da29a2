import { say } from '../quantity/tongue.js';
import { LAB_TASKS, type LabTask } from '../lab/task.js';
import {
  type Angles,
  type MatHeader,
  PER_KPA,
  RECORDING_LIMITS,
  type RecordingHeader,
  type RecordingKind,
} from './recording.js';

/** What is read, or why not. */
export type Read<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly reason: string };

export const read = <T>(value: T): Read<T> => ({ ok: true, value });
export const unread = (reason: string): Read<never> => ({ ok: false, reason });

const UNITS: Readonly<Record<RecordingKind, string>> = { 'pressure-mat': 'kPa', 'motion-pair': 'deg' };

const isNumber = (v: unknown): v is number => typeof v === 'number' && Number.isFinite(v);
const isWhole = (v: unknown, least: number, most: number): v is number =>
  Number.isInteger(v) && (v as number) >= least && (v as number) <= most;

function taskOf(v: unknown): LabTask | null {
  return LAB_TASKS.find((t) => t === v) ?? null;
}

/** The first line of a recording, of a file and of a device alike; refused with the reason. */
export function readHeader(o: Readonly<Record<string, unknown>>): Read<RecordingHeader> {
  const kind = o['kind'];
  if (kind !== 'pressure-mat' && kind !== 'motion-pair')
    return unread(say('not of a pressure mat or a motion pair'));
  if (o['version'] !== 1) return unread(say('a version of the format other than 1'));
  if (o['unit'] !== UNITS[kind])
    return unread(
      say('the unit is {{unit}}, {{wanted}} is wanted', {
        unit: typeof o['unit'] === 'string' ? o['unit'].slice(0, 20) : say('not told'),
        wanted: UNITS[kind],
      }),
    );
  const rateHz = o['rateHz'];
  if (!isNumber(rateHz) || rateHz <= 0 || rateHz > RECORDING_LIMITS.rateHz)
    return unread(say('a rate that is not from 0 to 1000 Hz'));
  const day = o['calibratedOn'];
  const side = (['left', 'right', 'both'] as const).find((v) => v === o['side']) ?? null;
  const common = {
    name: typeof o['name'] === 'string' ? o['name'].slice(0, 80) : kind,
    rateHz,
    calibratedOn: typeof day === 'string' && /^\d{4}-\d{2}-\d{2}$/.test(day) ? day : null,
    simulated: o['simulated'] === true,
    task: taskOf(o['task']),
    side,
  };
  if (kind === 'motion-pair') return read({ kind, ...common });
  return matHeader(o, common);
}

function matHeader(
  o: Readonly<Record<string, unknown>>,
  common: Omit<MatHeader, 'kind' | 'columns' | 'rows' | 'cellMm' | 'mostKpa'>,
): Read<MatHeader> {
  const { columns, rows, cellMm } = o;
  if (!isWhole(columns, 4, 1000) || !isWhole(rows, 4, 1000) || columns * rows > RECORDING_LIMITS.cells)
    return unread(say('columns and rows must be whole numbers, at most 4096 cells together'));
  if (!isNumber(cellMm) || cellMm < 2 || cellMm > 20)
    return unread(say('the size of a cell must be from 2 to 20 mm'));
  const mostKpa = isNumber(o['mostKpa']) && o['mostKpa'] > 0 ? o['mostKpa'] : RECORDING_LIMITS.kpa;
  return read({
    kind: 'pressure-mat',
    ...common,
    columns,
    rows,
    cellMm,
    mostKpa: Math.min(mostKpa, RECORDING_LIMITS.kpa),
  });
}

/** A pressure in tenths of a kPa; null where it is none. What drifts a little below nought is nought. */
function cellOf(v: unknown): number | null {
  if (!isNumber(v) || v > RECORDING_LIMITS.kpa || v < -RECORDING_LIMITS.belowNought) return null;
  return v <= 0 ? 0 : Math.round(v * PER_KPA);
}

/** Why a value is no pressure, in words. */
const cellProblem = (cell: number, v: unknown): string =>
  isNumber(v)
    ? say('cell {{cell}}: {{value}} kPa is not from 0 to 6000', { cell, value: v })
    : say('cell {{cell}}: not a number', { cell });

/** The time of a frame. */
export const timeOf = (o: Readonly<Record<string, unknown>>): Read<number> => {
  const t = o['t'];
  return isNumber(t) && t >= 0 ? read(t) : unread(say('a frame without its time'));
};

/**
 * Reads the runs of a frame into `cells`, which is emptied first: each run is the number of its first cell, from 0, and the
 * pressures of it and those after it. Answers how many were below nought.
 */
export function readRuns(runs: unknown, cells: Uint16Array): Read<number> {
  cells.fill(0);
  if (!Array.isArray(runs)) return unread(say('a frame without its cells'));
  let below = 0;
  for (const run of runs as unknown[]) {
    if (!Array.isArray(run) || !isWhole(run[0], 0, cells.length - 1))
      return unread(say('a run of cells that begins outside the mat'));
    const first = run[0];
    if (first + run.length - 1 > cells.length) return unread(say('more cells than the mat has'));
    for (let i = 1; i < run.length; i += 1) {
      const given: unknown = run[i];
      const value = cellOf(given);
      if (value === null) return unread(cellProblem(first + i - 1, given));
      if ((given as number) < 0) below += 1;
      cells[first + i - 1] = value;
    }
  }
  return read(below);
}

/** The angles of one leg: null for a leg that wears none. */
export function readAngles(v: unknown): Read<Angles | null> {
  if (v === null || v === undefined) return read(null);
  if (!Array.isArray(v) || v.length !== 3)
    return unread(say('a leg must give the angles of shin, heel and heel against the floor'));
  for (const a of v as unknown[])
    if (!isNumber(a)) return unread(say('an angle that is not a number'));
    else if (Math.abs(a) > RECORDING_LIMITS.degrees)
      return unread(say('{{value}} deg is not from -180 to 180', { value: a }));
  return read(v as unknown as Angles);
}
