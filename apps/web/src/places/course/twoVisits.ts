import type { Column, MeasuredFact } from '@heathstep/core';

/** What was taken of a measure on a side on a day; the last where it was taken twice, undefined where it was not. */
export const measuredAt = (
  facts: readonly MeasuredFact[],
  day: string,
  measure: string,
  side: Column,
): MeasuredFact | undefined =>
  facts.findLast((f) => f.measure === measure && f.side === side && f.at.startsWith(day));
