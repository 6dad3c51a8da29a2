import { above } from '../quantity/statistics.js';

/** Load of one exercise over a span of days on one side: relative load x tension seconds. */
export interface ExerciseLoad {
  readonly exercise: string;
  readonly load: number;
}

export interface LoadRise {
  /** Rise of the coming week over the last 7 days done, in percent; null with the reason. */
  readonly percent: number | null;
  readonly reason: string | null;
  readonly over: boolean;
  /** The exercise that adds most, when over the limit. */
  readonly because: string | null;
}

/** Fewer logged days than this give no honest comparison. */
export const FEWEST_LOGGED_DAYS = 4;

const total = (loads: readonly ExerciseLoad[]): number => loads.reduce((sum, l) => sum + l.load, 0);

/**
 * Compares the coming week's load with what was actually done in the last 7 days.
 * With nothing, or under 4 logged days, before: no percentage is shown.
 */
export function loadRise(
  coming: readonly ExerciseLoad[],
  done: readonly ExerciseLoad[],
  loggedDays: number,
  limitPercent: number,
): LoadRise {
  const before = total(done);
  if (loggedDays < FEWEST_LOGGED_DAYS) {
    return {
      percent: null,
      reason: `only ${loggedDays} logged days in the last 7`,
      over: false,
      because: null,
    };
  }
  if (before <= 0) {
    return {
      percent: null,
      reason: 'nothing with a load estimate was done in the last 7 days',
      over: false,
      because: null,
    };
  }
  const percent = (total(coming) / before - 1) * 100;
  const over = above(percent, limitPercent);
  const was = new Map(done.map((d) => [d.exercise, d.load]));
  const adds = coming.map((c) => ({ exercise: c.exercise, rise: c.load - (was.get(c.exercise) ?? 0) }));
  const most = adds.reduce<(typeof adds)[number] | null>(
    (a, b) => (a === null || b.rise > a.rise ? b : a),
    null,
  );
  return { percent, reason: null, over, because: over && most !== null ? most.exercise : null };
}
