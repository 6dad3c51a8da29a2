import { computeDose, type TimelineSet } from '../dose/dose.js';
import type { ExerciseDefinition } from '../exercise/definition.js';
import type { Side } from '../quantity/side.js';
import { type Prescription, toDoseInput } from './prescription.js';

/** One set of what is done in turn, and of which exercise. */
export interface TurnSet extends TimelineSet {
  /** Index into what is done in turn. */
  readonly turn: number;
}

export interface InTurn {
  readonly item: Prescription;
  readonly exercise: ExerciseDefinition;
}

const FEET: readonly Side[] = ['left', 'right'];

/** Sets of one exercise in one passage of a round, with the foot that passage is for where one foot goes through first. */
function passages(group: readonly InTurn[]): readonly (Side | null)[] {
  return group[0]?.item.round?.feet === 'through' ? FEET : [null];
}

/**
 * The sets of a round as they are done, on one timeline in seconds: set-up before the first of each exercise, rest after
 * every set, none after the very last. An exercise by itself has its own timeline. Empty where a dose cannot be laid out.
 */
export function turnTimeline(group: readonly InTurn[]): readonly TurnSet[] {
  const doses = group.map(({ item, exercise }) => computeDose(toDoseInput(item, exercise)));
  const timelines = doses.map((d) => (d.ok ? d.value.timeline : []));
  const [only] = timelines;
  if (timelines.some((t) => t.length === 0) || only === undefined) return [];
  if (group.length === 1) return only.map((t) => ({ ...t, turn: 0 }));
  const rounds = Math.max(...group.map((g) => g.item.sets));
  const order = Array.from({ length: rounds }, (_, i) => i + 1).flatMap((round) =>
    passages(group).flatMap((foot) =>
      timelines.flatMap((timeline, turn) => {
        const sets = timeline.filter((t) => t.set === round && (foot === null || t.side === foot));
        return sets.map((set, i) => ({ set, turn, last: i === sets.length - 1 }));
      }),
    ),
  );
  const met = new Set<number>();
  let at = 0;
  return order.map(({ set, turn, last }) => {
    const of = group[turn];
    const setup = met.has(turn) ? 0 : (of?.exercise.setupSeconds ?? 0);
    met.add(turn);
    const startSecond = at + setup;
    const endSecond = startSecond + (set.endSecond - set.startSecond);
    at = endSecond + (last ? (of?.item.restSeconds ?? 0) : 0);
    return { turn, side: set.side, set: set.set, startSecond, endSecond };
  });
}

/** An exercise of a round that comes again on the same foot sooner than its own shortest rest asks for. */
export interface SoonAgain {
  readonly exercise: string;
  /** Seconds from the end of a set to the next on that foot. */
  readonly afterSeconds: number;
  readonly leastSeconds: number;
}

/** What the others of a round leave too little rest for. */
export function soonAgain(group: readonly InTurn[]): readonly SoonAgain[] {
  const sets = turnTimeline(group);
  return group.flatMap(({ exercise }, turn): SoonAgain[] => {
    const own = sets.filter((s) => s.turn === turn);
    const gaps = own.flatMap((s) => {
      const next = own.find((o) => o.side === s.side && o.set === s.set + 1);
      return next === undefined ? [] : [next.startSecond - s.endSecond];
    });
    const [leastSeconds] = exercise.range.restSeconds;
    const afterSeconds = Math.min(...gaps);
    return gaps.length > 0 && afterSeconds < leastSeconds
      ? [{ exercise: exercise.name, afterSeconds, leastSeconds }]
      : [];
  });
}
