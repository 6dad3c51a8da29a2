import {
  type ChangeResult,
  type Column,
  combineTrials,
  compareValues,
  type MeasureDefinition,
} from '@heathstep/core';
import { entriesOfKind } from './entries/registry.js';
import type { Entries } from './entries/values.js';
import { entryValue } from './measured.js';

/** A reading taken again within a visit, after something was tried. */
export interface Retest {
  readonly measure: MeasureDefinition;
  readonly side: Column;
  readonly before: number;
  readonly after: number;
  readonly change: ChangeResult;
}

/** What was taken again at a visit, with its change against the error of the measure; what has no second value is left out. */
export function retestsOf(entries: Entries, measures: readonly MeasureDefinition[]): Retest[] {
  return entriesOfKind(entries, 'measure').flatMap(({ name, side, value: entry }): Retest[] => {
    const measure = measures.find((m) => m.key === name);
    if (measure === undefined || entry.again === undefined) return [];
    const before = entryValue(measure, entry);
    const after = combineTrials(measure, entry.again.trials).value;
    if (before === null || after === null) return [];
    return [{ measure, side, before, after, change: compareValues(measure, before, after, entry.method) }];
  });
}
