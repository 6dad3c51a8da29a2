import type { MeasureDefinition } from './definition.js';

/** The value that being unable counts as: none at all where more is better, the most there can be where less is; null for a target. */
export function worstOf(measure: MeasureDefinition): number | null {
  if (measure.direction === 'target') return null;
  return measure.direction === 'more' ? measure.allowed.min : measure.allowed.max;
}
