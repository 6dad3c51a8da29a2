import { above, mean, median } from '../quantity/statistics.js';
import type { Combine, MeasureDefinition } from './definition.js';
import { mdcBetween } from './error.js';
import { distanceOutside } from './direction.js';

export interface TrialsResult {
  /** In the measure's unit; null when no trial has a value. Never rounded. */
  readonly value: number | null;
  readonly how: Combine;
  /** Largest minus smallest; null when no trial has a value. */
  readonly spread: number | null;
  /** Indexes into the given trials that differ from the median of the others by more than the MDC. */
  readonly outliers: readonly number[];
}

function best(measure: MeasureDefinition, values: readonly number[]): number {
  if (measure.direction === 'more') return Math.max(...values);
  if (measure.direction === 'less') return Math.min(...values);
  return values.reduce((a, b) => (distanceOutside(measure, b) < distanceOutside(measure, a) ? b : a));
}

function worst(measure: MeasureDefinition, values: readonly number[]): number {
  if (measure.direction === 'more') return Math.min(...values);
  if (measure.direction === 'less') return Math.max(...values);
  return values.reduce((a, b) => (distanceOutside(measure, b) > distanceOutside(measure, a) ? b : a));
}

function combine(measure: MeasureDefinition, values: readonly number[]): number | null {
  if (values.length === 0) return null;
  switch (measure.trials.combine) {
    case 'mean':
      return mean(values);
    case 'best':
      return best(measure, values);
    case 'worst':
      return worst(measure, values);
    case 'last':
      return values[values.length - 1] as number;
  }
}

function outlierIndexes(
  measure: MeasureDefinition,
  taken: readonly { value: number; index: number }[],
): number[] {
  if (taken.length < 3) return [];
  return taken
    .filter(({ value, index }) => {
      const centre = median(taken.filter((t) => t.index !== index).map((t) => t.value)) as number;
      const mdc = mdcBetween(measure, value, centre);
      return mdc !== null && above(Math.abs(value - centre), mdc);
    })
    .map((t) => t.index);
}

/**
 * Trials to one value by the measure's own rule. A trial that is null was not taken and is left out;
 * an outlier is flagged and still counts, because dropping it is the clinician's decision.
 *
 * @example combineTrials(lungeKneeBent, [34, 35, 33]) // value 34, how 'mean', spread 2, outliers []
 */
export function combineTrials(measure: MeasureDefinition, trials: readonly (number | null)[]): TrialsResult {
  const taken = trials.flatMap((value, index) => (value === null ? [] : [{ value, index }]));
  const values = taken.map((t) => t.value);
  return {
    value: combine(measure, values),
    how: measure.trials.combine,
    spread: values.length === 0 ? null : Math.max(...values) - Math.min(...values),
    outliers: outlierIndexes(measure, taken),
  };
}
