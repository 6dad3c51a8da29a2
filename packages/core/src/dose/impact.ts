import type { ExerciseDefinition } from '../exercise/definition.js';
import { TOLERANCE } from '../quantity/statistics.js';

/** Impact has a ledger of its own: landings on a foot, and minutes of running. */
export interface Impact {
  readonly contacts: number;
  readonly runMinutes: number;
}

export const NO_IMPACT: Impact = { contacts: 0, runMinutes: 0 };

/** Landings and minutes of a first week, from which nothing is compared. [convention] */
export const FIRST_WEEK: Impact = { contacts: 60, runMinutes: 20 };

/** Two impacts together, landings and minutes each. */
export const addImpact = (a: Impact, b: Impact): Impact => ({
  contacts: a.contacts + b.contacts,
  runMinutes: a.runMinutes + b.runMinutes,
});

type Moving = Pick<ExerciseDefinition, 'tags' | 'position'>;

/** Whether it is run rather than hopped. */
export const isRun = (exercise: Moving): boolean =>
  exercise.tags.includes('impact') && exercise.position.includes('running');

/**
 * Impact of some repetitions of an exercise on one foot: minutes of a run (of a walk-run the fast halves), else a landing
 * for each repetition. Nothing for an exercise without the impact tag.
 *
 * @param runSeconds seconds of running in all of them
 */
export function impactOf(
  exercise: Moving,
  done: { readonly repetitions: number; readonly runSeconds: number },
): Impact {
  if (!exercise.tags.includes('impact')) return NO_IMPACT;
  return isRun(exercise)
    ? { contacts: 0, runMinutes: done.runSeconds / 60 }
    : { contacts: done.repetitions, runMinutes: 0 };
}

export interface ImpactRise {
  readonly over: boolean;
  /** Most of each in the coming week. */
  readonly most: Impact;
  /** Which of the two is over it. */
  readonly because: readonly (keyof Impact)[];
}

/**
 * The coming week's impact against the last 7 days done: so much more at most, and a first week's amount where nothing was.
 * @param limitPercent what the stage allows
 */
export function impactRise(coming: Impact, done: Impact, limitPercent: number): ImpactRise {
  const kinds = ['contacts', 'runMinutes'] as const;
  const limit = (kind: keyof Impact) => Math.max(FIRST_WEEK[kind], done[kind] * (1 + limitPercent / 100));
  const most: Impact = { contacts: limit('contacts'), runMinutes: limit('runMinutes') };
  const because = kinds.filter((kind) => coming[kind] > most[kind] + TOLERANCE);
  return { over: because.length > 0, most, because };
}
