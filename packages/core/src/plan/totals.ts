import { computeDose } from '../dose/dose.js';
import { type Impact, impactOf, isRun } from '../dose/impact.js';
import { relativeLoad } from '../dose/load.js';
import type { ExerciseDefinition } from '../exercise/definition.js';
import type { TissueDefinition } from '../exercise/tissue.js';
import type { PerSide, Side } from '../quantity/side.js';
import { ok, orThrow, type Result } from '../result/result.js';
import { type Prescription, toDoseInput } from './prescription.js';
import { prescriptionTime, type PrescriptionTime } from './timing.js';

export interface PrescriptionTotals extends PrescriptionTime {
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

/** Time and impact of one prescription over a week. */
export function prescriptionTotals(
  p: Prescription,
  exercise: ExerciseDefinition,
): Result<PrescriptionTotals> {
  const time = prescriptionTime(p, exercise);
  if (!time.ok) return time;
  return ok({ ...time.value, weekImpact: impactOfWeek(p, exercise) });
}

/** What one repetition puts on a tissue, in body weights; null where there is no estimate. */
export function loadOfOne(
  p: Prescription,
  exercise: ExerciseDefinition,
  tissue: Pick<TissueDefinition, 'key' | 'model'>,
  bodyMassKg: number,
): number | null {
  const addedKg = p.addedKg ?? 0;
  if (tissue.model === 'weights') {
    const own = exercise.loads[tissue.key];
    return own === undefined ? null : (own * (bodyMassKg + addedKg)) / bodyMassKg;
  }
  const of = (lever: { legs: 1 | 2; footPitchDeg: number }) =>
    orThrow(relativeLoad({ bodyMassKg, addedKg, ...lever })).relativeLoad;
  const own = exercise.load === null ? null : of(exercise.load);
  const slow = lands(exercise) ? of(SLOW_RAISE) : null;
  return own === null ? slow : Math.max(own, slow ?? 0);
}

/** A week's load of a tissue on each side: load of one repetition x seconds under it; null where there is no estimate. */
export function weekLoadOf(
  p: Prescription,
  exercise: ExerciseDefinition,
  tissue: Pick<TissueDefinition, 'key' | 'model'>,
  bodyMassKg: number,
): PerSide<number> | null {
  const dose = computeDose(toDoseInput(p, exercise));
  const load = loadOfOne(p, exercise, tissue, bodyMassKg);
  if (!dose.ok || load === null) return null;
  const { tensionSecondsPerSide, repsPerSide } = dose.value;
  const seconds = (side: Side) =>
    lands(exercise)
      ? Math.max(tensionSecondsPerSide[side], repsPerSide[side] * SLOW_RAISE_SECONDS)
      : tensionSecondsPerSide[side];
  const times = p.timesPerDay * p.daysPerWeek;
  return { left: load * seconds('left') * times, right: load * seconds('right') * times };
}

/** Seconds under tension of one repetition or hold: up, top hold and down, or the hold. */
export const tensionSeconds = (p: Prescription): number =>
  p.tempo === undefined ? (p.holdSeconds ?? 0) : p.tempo.upSeconds + p.tempo.topSeconds + p.tempo.downSeconds;

/** Impact of a week of a prescription. */
export const impactOfWeek = (p: Prescription, exercise: ExerciseDefinition): Impact =>
  impactOfWork(p, exercise, p.sets * p.reps * p.timesPerDay * p.daysPerWeek);

/** Minutes of running in one time of a prescription; 0 for what is not run. */
export const runMinutesOfOne = (p: Prescription, exercise: ExerciseDefinition): number =>
  impactOfWork(p, exercise, p.sets * p.reps).runMinutes;

/** Impact of some repetitions of a prescription. */
export const impactOfWork = (p: Prescription, exercise: ExerciseDefinition, repetitions: number): Impact =>
  impactOf(exercise, { repetitions, runSeconds: repetitions * (p.tempo?.upSeconds ?? p.holdSeconds ?? 0) });
