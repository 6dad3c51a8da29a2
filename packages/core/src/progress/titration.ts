import { say } from '../quantity/tongue.js';
import type { Aim, ExerciseDefinition, ExerciseDose, DoseRanges } from '../exercise/definition.js';
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
  | { readonly kind: 'reps'; readonly reps: number; readonly because: string }
  | { readonly kind: 'sets'; readonly sets: number; readonly because: string }
  /** Another step of running and walking in turn. */
  | {
      readonly kind: 'run';
      readonly runSeconds: number;
      readonly walkSeconds: number;
      readonly because: string;
    }
  | { readonly kind: 'harder'; readonly because: string }
  /** The easier rung; where there is none, this much weight instead (null where none is carried). */
  | { readonly kind: 'easier'; readonly addedKg: number | null; readonly because: string };

/** Effort up to here leaves room for more. */
const EFFORT_WITH_ROOM = 7;
/** Fewest days at a level before more: tendon and bone adapt more slowly than muscle. [convention] */
export const DAYS_AT_LEVEL = { tendonOrBone: 7, other: 4 } as const;
/** The largest step of body share and weight together, in percent. [convention] */
export const LOAD_STEP_PERCENT = 20;

/** Days at a level before more, by what the exercise loads: calf, heavy and impact load tendon and bone. */
export const minDaysAtLevel = (exercise: Pick<ExerciseDefinition, 'tags'>): number =>
  exercise.tags.some((t) => t === 'calf-load' || t === 'heavy-load' || t === 'impact')
    ? DAYS_AT_LEVEL.tendonOrBone
    : DAYS_AT_LEVEL.other;

/** Body mass that an exercise puts on one side, in kg: all of it on one leg, half on two, none where it is not stood on. */
export function bodyShareKg(
  exercise: Pick<ExerciseDefinition, 'tags' | 'load' | 'laterality'>,
  bodyMassKg: number,
): number {
  if (exercise.load !== null) return exercise.load.legs === 1 ? bodyMassKg : bodyMassKg / 2;
  if (!exercise.tags.includes('weight-bearing')) return 0;
  return exercise.laterality === 'per-side' ? bodyMassKg : bodyMassKg / 2;
}

export interface ProgressionOn {
  /** Weights at home, in kg, in any order. */
  readonly ownedKg: readonly number[];
  /** Body mass that the exercise puts on the side, in kg: all of it on one leg, half on two, none seated. */
  readonly bodyShareKg: number;
  /** Days since this level of the dose was given. */
  readonly daysAtLevel: number;
  readonly minDaysAtLevel: number;
  /** 20 unless a caution asks for smaller steps. */
  readonly loadStepPercent: number;
}

const easily = (s: DoneSession, dose: ExerciseDose, top: number): boolean =>
  s.state === 'green' && s.effort <= EFFORT_WITH_ROOM && s.setsDone >= dose.sets && s.repsDone >= top;

/** Rise of body share and weight together by a step, in percent; from nothing at all it is without bound. */
function risePercent(bodyShareKg: number, now: number, next: number): number {
  const before = bodyShareKg + now;
  return before <= TOLERANCE ? Number.POSITIVE_INFINITY : ((bodyShareKg + next) / before - 1) * 100;
}

/**
 * Double progression: two sessions running with every set done at effort 7 or less and green, and long enough at this
 * level -> next owned load step, if it is not too large, with repetitions back at the bottom; a larger one waits and
 * repetitions grow first; no step owned -> one set more; at the top of that -> harder rung. One thing at a time.
 */
export function doubleProgression(
  dose: ExerciseDose,
  range: DoseRanges,
  sessions: readonly DoneSession[],
  on: ProgressionOn,
): DoseStep {
  const [bottom, most] = range.reps;
  const asked = Math.min(most, Math.max(dose.reps, bottom));
  const lastTwo = sessions.slice(-2);
  if (lastTwo.length < 2 || !lastTwo.every((s) => easily(s, dose, asked))) {
    return {
      kind: 'keep',
      because: say('not yet two green sessions running with every set done at effort 7 or less'),
    };
  }
  if (on.daysAtLevel < on.minDaysAtLevel) {
    return {
      kind: 'keep',
      because: say('{{daysAtLevel}} of at least {{minDaysAtLevel}} days at this level', {
        daysAtLevel: on.daysAtLevel,
        minDaysAtLevel: on.minDaysAtLevel,
      }),
    };
  }
  const because = say('every set done, effort 7 or less, green, two sessions running');
  const now = dose.addedKg ?? 0;
  const limit = range.addedKg?.[1] ?? 0;
  const step = [...on.ownedKg].sort((a, b) => a - b).find((kg) => kg > now + TOLERANCE && kg <= limit);
  if (step !== undefined) {
    const rise = risePercent(on.bodyShareKg, now, step);
    if (rise <= on.loadStepPercent + TOLERANCE) return { kind: 'load', addedKg: step, reps: bottom, because };
    if (asked < most) {
      const by = Number.isFinite(rise)
        ? say('{{round}} % more, over {{loadStepPercent}} %', {
            round: Math.round(rise),
            loadStepPercent: on.loadStepPercent,
          })
        : say('a first weight');
      return {
        kind: 'reps',
        reps: Math.min(most, asked + 2),
        because: say('{{because}}; the next weight, {{step}} kg, is {{by}}: repetitions grow first', {
          because,
          step,
          by,
        }),
      };
    }
  }
  if (dose.sets < range.sets[1]) return { kind: 'sets', sets: dose.sets + 1, because };
  return {
    kind: 'harder',
    because: say('{{because}}, and already at {{sets}} sets', { because, sets: dose.sets }),
  };
}

/**
 * Whether an exercise of this aim is made smaller: after a red all but relief; after two running that are amber or worse
 * but not red last, which count as red for load and not for range, all but relief and range.
 */
export function isEased(aim: Aim, after: 'red' | 'two-ambers'): boolean {
  if (aim === 'relief' || aim === 'aid') return false;
  return after === 'red' || (aim !== 'range-static' && aim !== 'range-loaded');
}

/** After a red: two thirds of the sets, rounded down, at least one; already one set: the easier rung, or a fifth less load. */
export function easeDose(dose: ExerciseDose): DoseStep {
  if (dose.sets <= 1) {
    const kg = dose.addedKg ?? 0;
    return {
      kind: 'easier',
      addedKg: kg > 0 ? Math.floor(kg * 0.8 * 2) / 2 : null,
      because: say('red, and already one set: the easier exercise, or a fifth less load'),
    };
  }
  return {
    kind: 'sets',
    sets: Math.max(1, Math.floor((dose.sets * 2) / 3)),
    because: say('red: two thirds of {{sets}} sets, rounded down', { sets: dose.sets }),
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
