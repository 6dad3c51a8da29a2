import { parseNumber } from '../quantity/parseNumber.js';
import type { MeasureDefinition } from './definition.js';

/** Units people type, each as its dimension and its size in that dimension's base unit. */
const UNITS: Readonly<Record<string, { readonly dimension: string; readonly size: number }>> = {
  mm: { dimension: 'length', size: 1 },
  cm: { dimension: 'length', size: 10 },
  m: { dimension: 'length', size: 1000 },
  km: { dimension: 'distance', size: 1 },
  s: { dimension: 'time', size: 1 },
  sec: { dimension: 'time', size: 1 },
  min: { dimension: 'time', size: 60 },
  h: { dimension: 'time', size: 3600 },
  deg: { dimension: 'angle', size: 1 },
  '°': { dimension: 'angle', size: 1 },
  n: { dimension: 'force', size: 1 },
  kgf: { dimension: 'force', size: 9.80665 },
  kg: { dimension: 'mass', size: 1 },
  g: { dimension: 'mass', size: 0.001 },
  c: { dimension: 'temperature', size: 1 },
  '°c': { dimension: 'temperature', size: 1 },
  '%': { dimension: 'share', size: 1 },
  reps: { dimension: 'count', size: 1 },
  points: { dimension: 'points', size: 1 },
  'm/s': { dimension: 'speed', size: 1 },
  'km/h': { dimension: 'speed', size: 1 / 3.6 },
};

export type Reading =
  | { readonly kind: 'empty' }
  | { readonly kind: 'value'; readonly value: number }
  | { readonly kind: 'not-a-number' }
  | { readonly kind: 'wrong-unit'; readonly typed: string };

const MINUTES = /^(\d{1,3}):([0-5]\d(?:[.,]\d+)?)$/;

function inUnit(measure: MeasureDefinition, value: number, typed: string): Reading {
  const given = UNITS[typed.toLowerCase()];
  const own = UNITS[measure.unit.toLowerCase()];
  if (typed.toLowerCase() === measure.unit.toLowerCase() || typed === measure.unitLabel)
    return { kind: 'value', value };
  if (given === undefined || own === undefined || given.dimension !== own.dimension)
    return { kind: 'wrong-unit', typed };
  // Ten significant places keep 80 mm at 8 cm exactly.
  return { kind: 'value', value: Number(((value * given.size) / own.size).toPrecision(10)) };
}

/** A level's word, or an unmistakable beginning of it. */
function namedLevel(measure: MeasureDefinition, text: string): number | null {
  const asked = text.toLowerCase();
  const levels = measure.levels ?? [];
  const exact = levels.find((l) => l.word.toLowerCase() === asked);
  if (exact !== undefined) return exact.value;
  const begins = asked.length === 0 ? [] : levels.filter((l) => l.word.toLowerCase().startsWith(asked));
  return begins.length === 1 ? (begins[0]?.value ?? null) : null;
}

/**
 * Reads what was typed for a measure: a number, a number with a unit of the same kind (converted), minutes as
 * `1:05` for seconds, or the word of a level. A unit of another kind is told rather than guessed at.
 *
 * @example readText(lungeDistance, '80 mm') // { kind: 'value', value: 8 }
 */
export function readText(measure: MeasureDefinition, text: string): Reading {
  const trimmed = text.replace(/[\s\u00a0\u202f]+/g, ' ').trim();
  if (trimmed === '') return { kind: 'empty' };
  const level = namedLevel(measure, trimmed);
  if (level !== null) return { kind: 'value', value: level };
  const clock = measure.unit === 's' ? MINUTES.exec(trimmed) : null;
  if (clock !== null)
    return { kind: 'value', value: Number(clock[1]) * 60 + Number((clock[2] ?? '0').replace(',', '.')) };
  const parts = /^([+\-\u2212]?[\d.,]+)\s*([a-z%°/]+)?$/i.exec(trimmed);
  if (parts === null) return { kind: 'not-a-number' };
  const number = parseNumber(parts[1] ?? '');
  if (!number.ok || number.value === null) return { kind: 'not-a-number' };
  return parts[2] === undefined
    ? { kind: 'value', value: number.value }
    : inUnit(measure, number.value, parts[2]);
}
