import { say } from '../quantity/tongue.js';
import { above, atLeast, TOLERANCE } from '../quantity/statistics.js';
import type { Affected, Side } from '../quantity/side.js';
import type { MeasureDefinition } from './definition.js';
import { gain } from './direction.js';

export interface SymmetryResult {
  /** |left - right| in the measure's unit. */
  readonly difference: number;
  readonly worseSide: Side | 'none';
  /** Worse side's performance as a share of the better's, 0 to 100; null where a ratio has no meaning. */
  readonly symmetryPercent: number | null;
  /** Treated over other (inverted when less is better); may exceed 100. Null with the reason. */
  readonly criteriaPercent: number | null;
  readonly reason: string | null;
  /** By the measure's own side rule; null when it has none. */
  readonly flagged: boolean | null;
}

function noRatio(measure: MeasureDefinition): string | null {
  if (measure.scale === 'signed') return say('a signed scale has no ratio between sides');
  if (measure.direction === 'target') return say('a scale with a target band has no ratio between sides');
  return null;
}

/** One value's performance as a share of another's, in percent; null for a zero denominator. */
function share(measure: MeasureDefinition, of: number, against: number): number | null {
  const [top, bottom] = measure.direction === 'less' ? [against, of] : [of, against];
  return bottom === 0 ? null : (top / bottom) * 100;
}

/**
 * Treated over other side in percent (inverted when less is better), as criteria use it, so that
 * a weak sound side can neither pass nor fail anyone by itself.
 */
export function criteriaPercent(
  measure: MeasureDefinition,
  values: { readonly left: number; readonly right: number },
  affected: Affected,
): { percent: number } | { percent: null; reason: string } {
  const none = noRatio(measure);
  if (none !== null) return { percent: null, reason: none };
  if (affected === 'both') {
    return { percent: null, reason: 'both sides are affected: each must meet the absolute criterion' };
  }
  if (affected === 'none') return { percent: null, reason: say('there is no treated side') };
  const treated = values[affected];
  const other = affected === 'left' ? values.right : values.left;
  const percent = share(measure, treated, other);
  return percent === null ? { percent, reason: say('the value divided by is zero') } : { percent };
}

function flag(measure: MeasureDefinition, difference: number, percent: number | null): boolean | null {
  const rule = measure.sideFlag;
  if (rule === null) return null;
  if (rule.kind === 'symmetry') return percent === null ? null : above(rule.below, percent);
  return rule.op === '>' ? above(difference, rule.value) : atLeast(difference, rule.value);
}

/**
 * Both sides of one measure against each other.
 *
 * @example compareSides(singleLegHeelRaise, 11, 19, 'left').criteriaPercent // 57.89...
 */
export function compareSides(
  measure: MeasureDefinition,
  left: number,
  right: number,
  affected: Affected,
): SymmetryResult {
  const difference = Math.abs(left - right);
  const rightBetter = gain(measure, left, right);
  const worseSide = Math.abs(rightBetter) < TOLERANCE ? 'none' : rightBetter > 0 ? 'left' : 'right';
  const worse = worseSide === 'right' ? right : left;
  const better = worseSide === 'right' ? left : right;
  const symmetryPercent = noRatio(measure) === null ? share(measure, worse, better) : null;
  const criteria = criteriaPercent(measure, { left, right }, affected);
  return {
    difference,
    worseSide,
    symmetryPercent,
    criteriaPercent: criteria.percent,
    reason: criteria.percent === null ? criteria.reason : null,
    flagged: flag(measure, difference, symmetryPercent),
  };
}
