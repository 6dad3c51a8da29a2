import { say } from '../quantity/tongue.js';
import { TOLERANCE } from '../quantity/statistics.js';
import { issue, ok, refused, type Result } from '../result/result.js';

/** Epley's estimate is read for so many repetitions and no more. */
const MOST_REPS = 12;

export interface RepetitionMaximumInput {
  /** Lifted so many times and not once more, in kg beside the body. */
  readonly loadKg: number;
  readonly reps: number;
  /** The load wanted is one that can be lifted so often. */
  readonly targetReps: number;
  /** Weights at home, in kg, in any order. */
  readonly stepsKg: readonly number[];
  /** Body mass that is lifted along, in kg; 0 where none is. */
  readonly bodyMassKg?: number;
}

export interface RepetitionMaximum {
  /** What could be lifted once, body mass included, in kg. */
  readonly oneRepMaxKg: number;
  /** The heaviest owned weight not over the load wanted; null where every one is heavier. */
  readonly loadKg: number | null;
  /** Why there is none; null where there is one. */
  readonly reason: string | null;
}

const factor = (reps: number): number => (reps === 1 ? 1 : 1 + reps / 30);

const wholeReps = (reps: number): boolean => Number.isInteger(reps) && reps >= 1 && reps <= MOST_REPS;

/**
 * One repetition maximum by Epley, w (1 + r/30) for 2 to 12 repetitions and w for one, and from it the load for another
 * number, rounded down to an owned weight. Body mass is added before and taken off after.
 *
 * @example 20 kg 10 times: once 26.7 kg; 6 times 22.2 kg, of 10, 15, 20 and 25 kg the 20
 */
export function repetitionMaximum(input: RepetitionMaximumInput): Result<RepetitionMaximum> {
  const { loadKg, reps, targetReps, stepsKg, bodyMassKg = 0 } = input;
  const weight = (path: string, kg: number, most: number) =>
    kg >= 0 && kg <= most ? [] : [issue(path, kg, say('from 0 to {{most}} kg', { most }))];
  const problems = [
    ...weight('loadKg', loadKg, 500),
    ...weight('bodyMassKg', bodyMassKg, 350),
    ...stepsKg.flatMap((kg, i) => weight(`stepsKg.${i}`, kg, 500)),
    ...(wholeReps(reps)
      ? []
      : [issue('reps', reps, say('a whole number from 1 to {{mostReps}}', { mostReps: MOST_REPS }))]),
    ...(wholeReps(targetReps)
      ? []
      : [
          issue(
            'targetReps',
            targetReps,
            say('a whole number from 1 to {{mostReps}}', { mostReps: MOST_REPS }),
          ),
        ]),
    ...(loadKg + bodyMassKg !== 0
      ? []
      : [issue('loadKg', loadKg, say('above 0 where no body mass is lifted along'))]),
  ];
  if (problems.length > 0) return refused(...problems);
  const oneRepMaxKg = (loadKg + bodyMassKg) * factor(reps);
  const wanted = oneRepMaxKg / factor(targetReps) - bodyMassKg;
  const fitting = stepsKg.filter((kg) => kg <= wanted + TOLERANCE);
  if (fitting.length > 0) return ok({ oneRepMaxKg, loadKg: Math.max(...fitting), reason: null });
  const reason =
    wanted < 0
      ? say('The body alone is heavier than the load for so many repetitions')
      : stepsKg.length === 0
        ? say('No weight is owned')
        : say('Every owned weight is heavier than {{floor}} kg', { floor: Math.floor(wanted * 10) / 10 });
  return ok({ oneRepMaxKg, loadKg: null, reason });
}
