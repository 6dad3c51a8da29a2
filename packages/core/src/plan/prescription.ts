import { computeDose, type DoseInput, type DoseSides } from '../dose/dose.js';
import { type Impact, impactOf, isRun } from '../dose/impact.js';
import { relativeLoad } from '../dose/load.js';
import type { ExerciseDefinition, ExerciseDose, Variant } from '../exercise/definition.js';
import type { Affected, PerSide, Side } from '../quantity/side.js';
import { ok, orThrow, outsideRanges, refused, type Issue, type Result } from '../result/result.js';

/** One exercise of a plan as prescribed. */
export interface Prescription extends ExerciseDose {
  readonly exercise: string;
  readonly slot: string;
  readonly sides: DoseSides;
  /** One of the exercise's variants; left out for the usual way. */
  readonly variant?: string | undefined;
}

/** The variant a prescription asks for; null for the usual way. */
export const variantOf = (p: Prescription, exercise: ExerciseDefinition): Variant | null =>
  p.variant === undefined ? null : (exercise.variants.find((v) => v.key === p.variant) ?? null);

/** Sides for an exercise under a slot's rule; a two-footed exercise is always done together. */
export function sidesFor(
  exercise: ExerciseDefinition,
  rule: 'treated' | 'both',
  affected: Affected,
): DoseSides {
  if (exercise.laterality === 'together') return 'together';
  if (rule === 'both' || affected === 'both' || affected === 'none') return 'one-after-other';
  return affected;
}

export const toDoseInput = (p: Prescription, exercise: ExerciseDefinition): DoseInput => ({
  sets: p.sets,
  reps: p.reps,
  holdSeconds: p.holdSeconds,
  releaseSeconds: p.releaseSeconds,
  tempo: p.tempo,
  restSeconds: p.restSeconds,
  setupSeconds: exercise.setupSeconds,
  sides: p.sides,
  timesPerDay: p.timesPerDay,
  daysPerWeek: p.daysPerWeek,
});

/** Numbers of a prescription outside the exercise's safe range, each by its field. */
export function prescriptionProblems(p: Prescription, exercise: ExerciseDefinition): Issue[] {
  const { range } = exercise;
  const flat: Record<string, unknown> = { ...p, ...p.tempo };
  const ranges = Object.fromEntries(
    Object.entries(range).filter(
      ([key, span]) => span !== undefined && (key !== 'addedKg' || p.addedKg !== undefined),
    ),
  ) as Record<string, readonly [number, number]>;
  const problems = outsideRanges(flat, ranges);
  if (p.addedKg !== undefined && p.addedKg > 0 && range.addedKg === undefined) {
    problems.push({ path: 'addedKg', value: p.addedKg, bound: 'left out: this exercise takes no weight' });
  }
  if (p.variant !== undefined && variantOf(p, exercise) === null) {
    problems.push({ path: 'variant', value: p.variant, bound: 'a variant of this exercise' });
  }
  const dose = computeDose(toDoseInput(p, exercise));
  if (!dose.ok) problems.push(...dose.issues.filter((i) => problems.every((q) => q.path !== i.path)));
  return problems;
}

export interface PrescriptionTotals {
  readonly exerciseSeconds: number;
  readonly daySeconds: number;
  readonly weekSeconds: number;
  /** Relative load x tension seconds over a week, per side; null where the exercise has no estimate. */
  readonly weekLoad: PerSide<number> | null;
  /** In body weights, one repetition; null where there is no estimate. */
  readonly relativeLoad: number | null;
  /** Landings on a foot and minutes of running in a week. */
  readonly weekImpact: Impact;
}

/** What a landing counts as at least: one slow repetition on one leg. [convention] */
const SLOW_RAISE = { legs: 1, footPitchDeg: 0 } as const;
const SLOW_RAISE_SECONDS = 6;

/** Time and load of one prescription for a person of this mass. */
export function prescriptionTotals(
  p: Prescription,
  exercise: ExerciseDefinition,
  bodyMassKg: number,
): Result<PrescriptionTotals> {
  const dose = computeDose(toDoseInput(p, exercise));
  if (!dose.ok) return refused(...dose.issues);
  const { tensionSecondsPerSide } = dose.value;
  // What is worn or done beside other things takes the time to put it on, not the hours it stays on.
  const setUp = exercise.aim === 'aid' ? exercise.setupSeconds : null;
  const exerciseSeconds = setUp ?? dose.value.exerciseSeconds;
  const daySeconds = exerciseSeconds * p.timesPerDay;
  const weekSeconds = daySeconds * p.daysPerWeek;
  const addedKg = p.addedKg ?? 0;
  const own =
    exercise.load === null
      ? null
      : orThrow(relativeLoad({ bodyMassKg, addedKg, ...exercise.load })).relativeLoad;
  // A landing loads a leg at least as much as a slow raise on it does, however short it is.
  const lands = exercise.tags.includes('impact') && !isRun(exercise);
  const slow = lands ? orThrow(relativeLoad({ bodyMassKg, addedKg, ...SLOW_RAISE })).relativeLoad : null;
  const load = own === null ? slow : Math.max(own, slow ?? 0);
  const { repsPerSide } = dose.value;
  const seconds = (side: Side) =>
    lands
      ? Math.max(tensionSecondsPerSide[side], repsPerSide[side] * SLOW_RAISE_SECONDS)
      : tensionSecondsPerSide[side];
  const times = p.timesPerDay * p.daysPerWeek;
  const weekLoad =
    load === null
      ? null
      : {
          left: load * seconds('left') * times,
          right: load * seconds('right') * times,
        };
  const repetitions = p.sets * p.reps * times;
  const impact = impactOf(exercise, {
    repetitions,
    runSeconds: repetitions * (p.tempo?.upSeconds ?? p.holdSeconds ?? 0),
  });
  return ok({ exerciseSeconds, daySeconds, weekSeconds, weekLoad, relativeLoad: load, weekImpact: impact });
}
