import { say } from '../quantity/tongue.js';
import { TOLERANCE } from '../quantity/statistics.js';
import type { MeasureDefinition } from './definition.js';
import { semAt } from './error.js';

export interface ThresholdReading {
  readonly key: string;
  readonly meaning: string;
  /** Clear when it is passed by at least the standard error (or that is not known); else within error: repeat. */
  readonly margin: 'clear' | 'within-error';
  readonly source: string;
}

interface Limit {
  readonly key: string;
  readonly op: '>=' | '>' | '<=' | '<';
  readonly value: number;
  readonly meaning: string;
  readonly source: string;
}

function holds(op: Limit['op'], margin: number): boolean {
  return op === '>' || op === '<' ? margin > TOLERANCE : margin >= -TOLERANCE;
}

const marginOf = (limit: Limit, value: number): number =>
  limit.op === '>=' || limit.op === '>' ? value - limit.value : limit.value - value;

/** What is usual at an age, from the measure's age bands; null when it has none or the age is not known. */
export function usualAtAge(measure: MeasureDefinition, ageYears: number | null): number | null {
  if (measure.byAge === null || ageYears === null) return null;
  const band = [...measure.byAge.bands].reverse().find((b) => ageYears >= b.from);
  return band?.value ?? null;
}

/**
 * What a value says by the measure's own thresholds: the first that holds, in the order they are written,
 * and after them whether it is under what is usual at the person's age. Null when none holds.
 */
export function readThreshold(
  measure: MeasureDefinition,
  value: number,
  ageYears: number | null,
): ThresholdReading | null {
  const usual = usualAtAge(measure, ageYears);
  const ageLimit: Limit[] =
    usual === null
      ? []
      : [
          {
            key: 'under-usual-for-age',
            op: measure.direction === 'less' ? '>' : '<',
            value: usual,
            meaning: say('not what is usual at this age'),
            source: measure.byAge?.source ?? '',
          },
        ];
  const limit = [...measure.thresholds, ...ageLimit].find((t) => holds(t.op, marginOf(t, value)));
  if (limit === undefined) return null;
  const sem = semAt(measure, value);
  const clear = sem === null || marginOf(limit, value) >= sem - TOLERANCE;
  return {
    key: limit.key,
    meaning: limit.meaning,
    margin: clear ? 'clear' : 'within-error',
    source: limit.source,
  };
}
