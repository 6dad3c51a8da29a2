import { say } from '../quantity/tongue.js';
import { shown } from '../quantity/statistics.js';
import { issue, type Issue } from '../result/result.js';
import { readText } from './reading.js';
import { unitAfter, withUnit } from './withUnit.js';
import type { MeasureDefinition } from './definition.js';

const full = (measure: MeasureDefinition, value: number): string => withUnit(measure, value, 3);

export type GuardResult =
  | { readonly state: 'empty' }
  | { readonly state: 'fine'; readonly value: number }
  | {
      readonly state: 'unusual';
      readonly value: number /** What is unusual. */;
      readonly told: string;
      /** The same, and whether it is right. */
      readonly ask: string;
    }
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
  const range = say('{{label}} lies between {{min}} and {{measure}}', {
    label: measure.label,
    min: allowed.min,
    measure: full(measure, allowed.max),
  });
  const meant = slipped(measure, value);
  return meant === null
    ? impossible(range)
    : {
        state: 'impossible',
        message: say('{{range}}. Did you mean {{meant}}?', { range, meant: shown(meant, 3) }),
        meant,
      };
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
      say('{{label}} is {{value}}, not {{typed}}', {
        label: measure.label,
        value:
          measure.unitLabel === ''
            ? say('counted in {{unit}}', { unit: measure.unit })
            : say('in {{unitLabel}}', { unitLabel: measure.unitLabel }),
        typed: read.typed,
      }),
    );
  if (read.kind === 'not-a-number')
    return impossible(
      measure.levels === null
        ? say('Type a number such as 34 or 34.5')
        : say('Choose {{list}}', { list: measure.levels.map((l) => l.word).join(', ') }),
    );
  const { value } = read;
  const { allowed, usual } = measure;
  if (value < allowed.min || value > allowed.max) return outside(measure, value);
  if (measure.levels !== null && measure.levels.every((l) => l.value !== value))
    return impossible(say('Choose {{list}}', { list: measure.levels.map((l) => l.word).join(', ') }));
  if (measure.decimals === 0 && !Number.isInteger(value))
    return impossible(say('{{label}} is a whole number', { label: measure.label }));
  if (value < usual.min || value > usual.max) {
    return {
      state: 'unusual',
      value,
      ...unusual(
        say('{{measure}} is outside the usual {{min}} to {{max}}{{unitAfter}}.', {
          measure: full(measure, value),
          min: usual.min,
          max: usual.max,
          unitAfter: unitAfter(measure),
        }),
      ),
    };
  }
  return { state: 'fine', value };
}

/** An issue when a reading is impossible for the measure; nothing when it can be. */
export function outsideAllowed(measure: MeasureDefinition, value: number, path: string): Issue[] {
  const { min, max } = measure.allowed;
  return value < min || value > max
    ? [issue(path, value, say('from {{min}} to {{measure}}', { min, measure: full(measure, max) }))]
    : [];
}

const unusual = (told: string) => ({ told, ask: say('{{told}} Is it right?', { told }) });

/**
 * Whether what was typed can only be whole: an ordinary reading with every decimal that is taken. A whole number never is:
 * the mark may still follow.
 */
export const isWhole = (measure: MeasureDefinition, text: string): boolean =>
  measure.decimals > 0 &&
  new RegExp(`^[+\\-\u2212]?\\d+[.,]\\d{${measure.decimals}}$`).test(text.trimStart()) &&
  guardReading(measure, text).state === 'fine';
