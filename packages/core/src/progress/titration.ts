import type { Aim, ExerciseDose, DoseRanges } from '../exercise/definition.js';
import { leastSquares, TOLERANCE } from '../quantity/statistics.js';
import { daysBetween, dayOf } from '../quantity/day.js';
import type { PainState } from './painRule.js';

/** What was done of one exercise in one session. */
export interface DoneSession {
  readonly day: string;
  readonly setsDone: number;
  /** Repetitions of the weakest set. */
  readonly repsDone: number;
  /** 0 to 10. */
  readonly effort: number;
  readonly state: PainState;
}

export type DoseStep =
  | { readonly kind: 'keep'; readonly because: string }
  | { readonly kind: 'load'; readonly addedKg: number; readonly reps: number; readonly because: string }
  | { readonly kind: 'sets'; readonly sets: number; readonly because: string }
  | { readonly kind: 'harder'; readonly because: string }
  | { readonly kind: 'easier'; readonly because: string };

/** Effort up to here leaves room for more. */
const EFFORT_WITH_ROOM = 7;

const easily = (s: DoneSession, dose: ExerciseDose, top: number): boolean =>
  s.state === 'green' && s.effort <= EFFORT_WITH_ROOM && s.setsDone >= dose.sets && s.repsDone >= top;

/**
 * Double progression: two sessions running with every set at the top of the range, effort 7 or less and green ->
 * next owned load step with repetitions back at the bottom; no step owned -> one set more; at the top of that -> harder rung.
 */
export function doubleProgression(
  dose: ExerciseDose,
  range: DoseRanges,
  sessions: readonly DoneSession[],
  ownedStepsKg: readonly number[],
): DoseStep {
  const top = range.reps[1];
  const lastTwo = sessions.slice(-2);
  if (
    lastTwo.length < 2 ||
    !lastTwo.every((s) => easily(s, dose, Math.min(top, Math.max(dose.reps, range.reps[0]))))
  ) {
    return {
      kind: 'keep',
      because: 'not yet two green sessions running with every set done at effort 7 or less',
    };
  }
  const because = 'every set done, effort 7 or less, green, two sessions running';
  const now = dose.addedKg ?? 0;
  const limit = range.addedKg?.[1] ?? 0;
  const step = [...ownedStepsKg].sort((a, b) => a - b).find((kg) => kg > now + TOLERANCE && kg <= limit);
  if (step !== undefined) return { kind: 'load', addedKg: step, reps: range.reps[0], because };
  if (dose.sets < range.sets[1]) return { kind: 'sets', sets: dose.sets + 1, because };
  return { kind: 'harder', because: `${because}, and already at ${dose.sets} sets` };
}

/**
 * Whether an exercise of this aim is made smaller: after a red all but relief; after two ambers running, which count as
 * red for load and not for range, all but relief and range.
 */
export function isEased(aim: Aim, after: 'red' | 'two-ambers'): boolean {
  if (aim === 'relief' || aim === 'aid') return false;
  return after === 'red' || (aim !== 'range-static' && aim !== 'range-loaded');
}

/** After a red: two thirds of the sets, rounded up; already one set: the easier rung. */
export function easeDose(dose: ExerciseDose): DoseStep {
  if (dose.sets <= 1) return { kind: 'easier', because: 'red, and already one set: the easier exercise' };
  return {
    kind: 'sets',
    sets: Math.ceil((dose.sets * 2) / 3),
    because: `red: two thirds of ${dose.sets} sets, rounded up`,
  };
}

export interface RangeTrend {
  readonly slopePerWeek: number;
  readonly slopeErrorPerWeek: number;
  readonly totalChange: number;
  readonly improving: boolean;
}

/** One-sided 90 %. */
const Z = 1.28;

/**
 * Trend of comparable values (3 or more) by least squares; slope error = SEM / sqrt(Sxx). Improving when the slope less
 * 1.28 errors is above 0 and the total change is at least the SEM. Null with fewer than 3 values or one day only.
 */
export function rangeTrend(
  values: readonly { readonly at: string; readonly value: number }[],
  sem: number,
): RangeTrend | null {
  const [first] = values;
  if (first === undefined || values.length < 3) return null;
  const points = values.map((v) => ({ x: daysBetween(dayOf(first.at), dayOf(v.at)) / 7, y: v.value }));
  const fit = leastSquares(points);
  if (fit === null) return null;
  const slopeError = sem / Math.sqrt(fit.sxx);
  const totalChange = (values[values.length - 1]?.value ?? first.value) - first.value;
  return {
    slopePerWeek: fit.slope,
    slopeErrorPerWeek: slopeError,
    totalChange,
    improving: fit.slope - Z * slopeError > 0 && totalChange >= sem - TOLERANCE,
  };
}
