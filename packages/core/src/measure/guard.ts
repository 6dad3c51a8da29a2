import { parseNumber } from '../quantity/parseNumber.js';
import { issue, type Issue } from '../result/result.js';
import { withUnit } from './withUnit.js';
import type { MeasureDefinition } from './definition.js';

const full = (measure: MeasureDefinition, value: number): string => withUnit(measure, value, 3);

export type GuardResult =
  | { readonly state: 'empty' }
  | { readonly state: 'fine'; readonly value: number }
  | { readonly state: 'unusual'; readonly value: number; readonly ask: string }
  | { readonly state: 'impossible'; readonly message: string };

/**
 * Judges a reading as it is typed: impossible is refused with the allowed range,
 * unusual is asked about once, everything else is taken.
 */
export function guardReading(measure: MeasureDefinition, text: string): GuardResult {
  const parsed = parseNumber(text, measure.key);
  if (!parsed.ok) return { state: 'impossible', message: 'Type a number such as 34 or 34.5' };
  const value = parsed.value;
  if (value === null) return { state: 'empty' };
  const { allowed, usual } = measure;
  if (value < allowed.min || value > allowed.max) {
    return {
      state: 'impossible',
      message: `${measure.label} lies between ${allowed.min} and ${full(measure, allowed.max)}`,
    };
  }
  if (measure.decimals === 0 && !Number.isInteger(value)) {
    return { state: 'impossible', message: `${measure.label} is a whole number` };
  }
  if (value < usual.min || value > usual.max) {
    return {
      state: 'unusual',
      value,
      ask: `${full(measure, value)} is outside the usual ${usual.min} to ${usual.max}. Is it right?`,
    };
  }
  return { state: 'fine', value };
}

/** An issue when a reading is impossible for the measure; nothing when it can be. */
export function outsideAllowed(measure: MeasureDefinition, value: number, path: string): Issue[] {
  const { min, max } = measure.allowed;
  return value < min || value > max ? [issue(path, value, `from ${min} to ${full(measure, max)}`)] : [];
}
