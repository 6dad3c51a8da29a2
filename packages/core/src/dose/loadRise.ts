import { say } from '../quantity/tongue.js';
import { above } from '../quantity/statistics.js';

/** Load of one exercise over a span of days on one side: relative load x tension seconds. */
export interface ExerciseLoad {
  readonly exercise: string;
  readonly load: number;
}

export interface LoadRise {
  /** What it is compared with: done in the last 7 days, and planned for other complaints. */
  readonly before: number;
  /** Rise of the coming week over the last 7 days done, in percent; null with the reason. */
  readonly percent: number | null;
  readonly reason: string | null;
  readonly over: boolean;
  /** The exercise that adds most, when over the limit. */
  readonly because: string | null;
}

/** Fewer logged days than this give no honest comparison. */
export const FEWEST_LOGGED_DAYS = 4;

export interface LoadRiseOn {
  readonly loggedDays: number;
  readonly limitPercent: number;
  /** Load of a week that plans for the person's other complaints ask for. */
  readonly elsewhere?: number;
}

const total = (loads: readonly ExerciseLoad[]): number => loads.reduce((sum, l) => sum + l.load, 0);

/**
 * Compares the coming week's load with what was actually done in the last 7 days.
 * With nothing, or under 4 logged days, before: no percentage is shown. What plans for other complaints ask of the same
 * tissue counts as done and as coming, also where nothing was logged for this one yet.
 */
export function loadRise(
  coming: readonly ExerciseLoad[],
  done: readonly ExerciseLoad[],
  { loggedDays, limitPercent, elsewhere = 0 }: LoadRiseOn,
): LoadRise {
  const comparable = loggedDays >= FEWEST_LOGGED_DAYS;
  const before = (comparable ? total(done) : 0) + elsewhere;
  if (!comparable && elsewhere <= 0) {
    return {
      before: 0,
      percent: null,
      reason: say('only {{loggedDays}} logged days in the last 7', { loggedDays }),
      over: false,
      because: null,
    };
  }
  if (before <= 0) {
    return {
      before: 0,
      percent: null,
      reason: say('nothing with a load estimate was done in the last 7 days'),
      over: false,
      because: null,
    };
  }
  const percent = ((total(coming) + elsewhere) / before - 1) * 100;
  const over = above(percent, limitPercent);
  const was = new Map((comparable ? done : []).map((d) => [d.exercise, d.load]));
  const adds = coming.map((c) => ({ exercise: c.exercise, rise: c.load - (was.get(c.exercise) ?? 0) }));
  const most = adds.reduce<(typeof adds)[number] | null>(
    (a, b) => (a === null || b.rise > a.rise ? b : a),
    null,
  );
  return { before, percent, reason: null, over, because: over && most !== null ? most.exercise : null };
}
