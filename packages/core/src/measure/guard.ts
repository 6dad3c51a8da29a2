import { shown } from '../quantity/statistics.js';
import { issue, type Issue } from '../result/result.js';
import { readText } from './reading.js';
import { unitAfter, withUnit } from './withUnit.js';
import type { MeasureDefinition } from './definition.js';

const full = (measure: MeasureDefinition, value: number): string => withUnit(measure, value, 3);

export type GuardResult =
  | { readonly state: 'empty' }
  | { readonly state: 'fine'; readonly value: number }
  | { readonly state: 'unusual'; readonly value: number; readonly ask: string }
  | { readonly state: 'impossible'; readonly message: string; readonly meant?: number };

const impossible = (message: string): GuardResult => ({ state: 'impossible', message });

/** A slipped decimal mark: a tenth of the number is an ordinary reading. */
function slipped(measure: MeasureDefinition, value: number): number | null {
  const tenth = value / 10;
  const wanted = measure.decimals > 0 && tenth >= measure.usual.min && tenth <= measure.usual.max;
  return wanted && value !== 0 ? tenth : null;
}

function outside(measure: MeasureDefinition, value: number): GuardResult {
  const { allowed } = measure;
  const range = `${measure.label} lies between ${allowed.min} and ${full(measure, allowed.max)}`;
  const meant = slipped(measure, value);
  return meant === null
    ? impossible(range)
    : { state: 'impossible', message: `${range}. Did you mean ${shown(meant, 3)}?`, meant };
}

/**
 * Judges a reading as it is typed: impossible is refused with the allowed range,
 * unusual is asked about once, everything else is taken.
 */
export function guardReading(measure: MeasureDefinition, text: string): GuardResult {
  const read = readText(measure, text);
  if (read.kind === 'empty') return { state: 'empty' };
  if (read.kind === 'wrong-unit')
    return impossible(
      `${measure.label} is ${measure.unitLabel === '' ? `counted in ${measure.unit}` : `in ${measure.unitLabel}`}, not ${read.typed}`,
    );
  if (read.kind === 'not-a-number')
    return impossible(
      measure.levels === null
        ? 'Type a number such as 34 or 34.5'
        : `Choose ${measure.levels.map((l) => l.word).join(', ')}`,
    );
  const { value } = read;
  const { allowed, usual } = measure;
  if (value < allowed.min || value > allowed.max) return outside(measure, value);
  if (measure.levels !== null && measure.levels.every((l) => l.value !== value))
    return impossible(`Choose ${measure.levels.map((l) => l.word).join(', ')}`);
  if (measure.decimals === 0 && !Number.isInteger(value))
    return impossible(`${measure.label} is a whole number`);
  if (value < usual.min || value > usual.max) {
    return {
      state: 'unusual',
      value,
      ask: `${full(measure, value)} is outside the usual ${usual.min} to ${usual.max}${unitAfter(measure)}. Is it right?`,
    };
  }
  return { state: 'fine', value };
}

/** An issue when a reading is impossible for the measure; nothing when it can be. */
export function outsideAllowed(measure: MeasureDefinition, value: number, path: string): Issue[] {
  const { min, max } = measure.allowed;
  return value < min || value > max ? [issue(path, value, `from ${min} to ${full(measure, max)}`)] : [];
}
