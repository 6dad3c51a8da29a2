import { type ChangeResult, compareValues, isImportant } from '../measure/compare.js';
import type { MeasureDefinition } from '../measure/definition.js';
import { areLike } from '../measure/like.js';
import type { MeasuredFact } from '../progress/criteriaTypes.js';
import { dayOf, type DayText, instantOf } from '../quantity/day.js';
import { type Affected, otherSide, type Side, treatedSides } from '../quantity/side.js';

/** A value and its day; null is unable. */
export interface TakenOn {
  readonly day: DayText;
  readonly value: number | null;
}

/** One measure on one side, from its first to its last comparable take. */
export interface FirstToLast {
  readonly measure: MeasureDefinition;
  readonly side: Side | 'none';
  /** Null where nothing comparable was taken on an earlier day. */
  readonly first: TakenOn | null;
  readonly last: TakenOn;
  /** Null with nothing to compare, and where either is unable. */
  readonly change: ChangeResult | null;
  /** Whether the change is large enough to matter; null where that is not published. */
  readonly important: boolean | null;
  /** The other side's newest value, where one side is treated. */
  readonly other: TakenOn | null;
}

const takenOn = (f: MeasuredFact): TakenOn => ({ day: dayOf(f.at), value: f.value });

/** Takes of a measure on a side, oldest first. */
const takesOf = (facts: readonly MeasuredFact[], measure: string, side: Side | 'none'): MeasuredFact[] =>
  facts
    .filter((f) => f.measure === measure && f.side === side)
    .toSorted((a, b) => instantOf(a.at) - instantOf(b.at));

function rowOf(
  facts: readonly MeasuredFact[],
  measure: MeasureDefinition,
  side: Side | 'none',
  affected: Affected,
): FirstToLast[] {
  const takes = takesOf(facts, measure.key, side);
  const last = takes[takes.length - 1];
  if (last === undefined) return [];
  const first = takes.find((f) => areLike(measure, f, last) && dayOf(f.at) < dayOf(last.at));
  const then = first?.value ?? null;
  const now = last.value;
  const opposite =
    side !== 'none' && affected === side ? takesOf(facts, measure.key, otherSide(side)).at(-1) : undefined;
  return [
    {
      measure,
      side,
      first: first === undefined ? null : takenOn(first),
      last: takenOn(last),
      change: then === null || now === null ? null : compareValues(measure, then, now, last.method),
      important: then === null || now === null ? null : isImportant(measure, then, now),
      other: opposite === undefined || !areLike(measure, opposite, last) ? null : takenOn(opposite),
    },
  ];
}

/**
 * What was measured from first to last on what is treated, a row for each measure and side; only like is compared with like.
 *
 * @param measures in the order they are to stand
 */
export function firstToLast(
  facts: readonly MeasuredFact[],
  measures: readonly MeasureDefinition[],
  affected: Affected,
): FirstToLast[] {
  return measures.flatMap((measure) => {
    const sides: readonly (Side | 'none')[] = measure.sides === 'single' ? ['none'] : treatedSides(affected);
    return sides.flatMap((side) => rowOf(facts, measure, side, affected));
  });
}
