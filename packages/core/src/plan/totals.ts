import { computeDose } from '../dose/dose.js';
import { type Impact, impactOf, isRun } from '../dose/impact.js';
import { relativeLoad } from '../dose/load.js';
import type { ExerciseDefinition } from '../exercise/definition.js';
import type { PerSide, Side } from '../quantity/side.js';
import { ok, orThrow, refused, type Result } from '../result/result.js';
import { type Prescription, toDoseInput } from './prescription.js';
import { prescriptionTime, type PrescriptionTime } from './timing.js';

export interface PrescriptionTotals extends PrescriptionTime {
  /** Relative load x tension seconds over a week, per side; null where the exercise has no estimate. */
  readonly weekLoad: PerSide<number> | null;
  /** In body weights, one repetition; null where there is no estimate. */
  readonly relativeLoad: number | null;
  /** Landings on a foot and minutes of running in a week. */
  readonly weekImpact: Impact;
}

/** Used for load estimates until the person's own mass is known; said where it is used. [convention] */
export const ASSUMED_MASS_KG = 75;

/** What a landing counts as at least: one slow repetition on one leg. [convention] */
const SLOW_RAISE = { legs: 1, footPitchDeg: 0 } as const;
const SLOW_RAISE_SECONDS = 6;

/** A landing loads a leg at least as much as a slow raise on it does, however short it is. */
const lands = (exercise: ExerciseDefinition): boolean => exercise.tags.includes('impact') && !isRun(exercise);

/** Load of one repetition in body weights; null where there is no estimate. */
function loadOfOne(p: Prescription, exercise: ExerciseDefinition, bodyMassKg: number): number | null {
  const addedKg = p.addedKg ?? 0;
  const of = (lever: { legs: 1 | 2; footPitchDeg: number }) =>
    orThrow(relativeLoad({ bodyMassKg, addedKg, ...lever })).relativeLoad;
  const own = exercise.load === null ? null : of(exercise.load);
  const slow = lands(exercise) ? of(SLOW_RAISE) : null;
  return own === null ? slow : Math.max(own, slow ?? 0);
}

/** Time, load and impact of one prescription over a week, for a person of this mass. */
export function prescriptionTotals(
  p: Prescription,
  exercise: ExerciseDefinition,
  bodyMassKg: number,
): Result<PrescriptionTotals> {
  const dose = computeDose(toDoseInput(p, exercise));
  const time = prescriptionTime(p, exercise);
  if (!dose.ok) return refused(...dose.issues);
  if (!time.ok) return time;
  const { tensionSecondsPerSide, repsPerSide } = dose.value;
  const load = loadOfOne(p, exercise, bodyMassKg);
  const seconds = (side: Side) =>
    lands(exercise)
      ? Math.max(tensionSecondsPerSide[side], repsPerSide[side] * SLOW_RAISE_SECONDS)
      : tensionSecondsPerSide[side];
  const times = p.timesPerDay * p.daysPerWeek;
  const weekLoad =
    load === null ? null : { left: load * seconds('left') * times, right: load * seconds('right') * times };
  const weekImpact = impactOfWork(p, exercise, p.sets * p.reps * times);
  return ok({ ...time.value, weekLoad, relativeLoad: load, weekImpact });
}

/** Seconds under tension of one repetition or hold: up, top hold and down, or the hold. */
export const tensionSeconds = (p: Prescription): number =>
  p.tempo === undefined ? (p.holdSeconds ?? 0) : p.tempo.upSeconds + p.tempo.topSeconds + p.tempo.downSeconds;

/** Impact of some repetitions of a prescription. */
export const impactOfWork = (p: Prescription, exercise: ExerciseDefinition, repetitions: number): Impact =>
  impactOf(exercise, { repetitions, runSeconds: repetitions * (p.tempo?.upSeconds ?? p.holdSeconds ?? 0) });
