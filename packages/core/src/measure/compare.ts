import { atLeast, TOLERANCE } from '../quantity/statistics.js';
import type { MeasureDefinition } from './definition.js';
import { gain } from './direction.js';
import { LIKELY_SEMS, mdcBetween, MDC_PER_SEM } from './error.js';

export type ChangeClass = 'real' | 'likely' | 'within-error' | 'not-known';

export interface ChangeResult {
  /** now - then, in the measure's unit. */
  readonly change: number;
  readonly class: ChangeClass;
  readonly direction: 'better' | 'worse' | 'same';
}

function changeClass(
  measure: MeasureDefinition,
  then: number,
  now: number,
  method: string | undefined,
): ChangeClass {
  const mdc = mdcBetween(measure, then, now, method);
  if (mdc === null) return 'not-known';
  const size = Math.abs(now - then);
  if (size < TOLERANCE) return 'within-error';
  if (atLeast(size, mdc)) return 'real';
  return atLeast(size, (LIKELY_SEMS * mdc) / MDC_PER_SEM) ? 'likely' : 'within-error';
}

/**
 * Change of one measure between two comparable values, against its measurement error.
 *
 * @example compareValues(lungeKneeBent, 30, 34.5) // change 4.5, class 'real', direction 'better'
 */
export function compareValues(
  measure: MeasureDefinition,
  then: number,
  now: number,
  method?: string,
): ChangeResult {
  const kind = changeClass(measure, then, now, method);
  const better = gain(measure, then, now);
  const same = kind === 'within-error' || Math.abs(better) < TOLERANCE;
  return {
    change: now - then,
    class: kind,
    direction: same ? 'same' : better > 0 ? 'better' : 'worse',
  };
}

/** Whether a change matters to patients (published importance), where the measure has one; null where not. */
export function isImportant(measure: MeasureDefinition, then: number, now: number): boolean | null {
  const rule = measure.important;
  if (rule === null) return null;
  const size = Math.abs(now - then);
  return (
    atLeast(size, rule.absolute) ||
    (rule.percent !== null && then !== 0 && atLeast((size / Math.abs(then)) * 100, rule.percent))
  );
}
