import { say } from '../quantity/tongue.js';
import { computeDose, type DoseInput, type DoseSides } from '../dose/dose.js';
import type { ExerciseDefinition, ExerciseDose, Variant } from '../exercise/definition.js';
import type { Affected } from '../quantity/side.js';
import { doseRange } from './doseRange.js';
import type { InRound } from './rounds.js';
import { outsideRanges, type Issue } from '../result/result.js';

/** Parts of the day an exercise can be given for; else it is done at the person's usual time. */
export const DAY_PARTS = ['morning', 'midday', 'evening'] as const;
export type DayPart = (typeof DAY_PARTS)[number];

/** Once a day, and with no part of the day of its own: only then can another be chosen. */
export const mayHavePart = (p: { readonly timesPerDay: number }, exercise: ExerciseDefinition): boolean =>
  p.timesPerDay === 1 && exercise.when === null;

/** One exercise of a plan as prescribed. */
export interface Prescription extends ExerciseDose {
  readonly exercise: string;
  readonly slot: string;
  readonly sides: DoseSides;
  /** One of the exercise's variants; left out for the usual way. */
  readonly variant?: string | undefined;
  /** Weekdays it is done on, 0 Monday; left out where they are spread evenly. */
  readonly days?: readonly number[] | undefined;
  /** When of the day it is done; left out for the person's usual time. */
  readonly part?: DayPart | undefined;
  /** Done in turn with others; left out where it is done by itself. */
  readonly round?: InRound | undefined;
  /** Someone stands beside while it is done: asked for where safety allows it only so. */
  readonly beside?: boolean | undefined;
  /** Why its dose goes beyond the usual range; left out where it does not. */
  readonly beyond?: string | undefined;
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

/** The numbers of a prescription that its timeline is made of. */
export const toDoseInput = (p: Prescription, exercise: ExerciseDefinition): DoseInput => ({
  sets: p.sets,
  reps: p.reps,
  holdSeconds: p.holdSeconds,
  releaseSeconds: p.releaseSeconds,
  tempo: p.tempo,
  restSeconds: p.restSeconds,
  setupSeconds: exercise.setupSeconds,
  sides: p.sides,
  inRound: p.round?.feet,
  timesPerDay: p.timesPerDay,
  daysPerWeek: p.daysPerWeek,
});

/** In letters. [convention] */
export const SHORTEST_REASON = 5;

/** Numbers of a prescription outside the exercise's safe range, each by its field. */
export function prescriptionProblems(p: Prescription, exercise: ExerciseDefinition): Issue[] {
  const range = doseRange(p, exercise);
  const flat: Record<string, unknown> = { ...p, ...p.tempo };
  const ranges = Object.fromEntries(
    Object.entries(range).filter(
      ([key, span]) => span !== undefined && (key !== 'addedKg' || p.addedKg !== undefined),
    ),
  ) as Record<string, readonly [number, number]>;
  const problems = outsideRanges(flat, ranges);
  if (p.addedKg !== undefined && p.addedKg > 0 && range.addedKg === undefined) {
    problems.push({
      path: 'addedKg',
      value: p.addedKg,
      bound: say('left out: this exercise takes no weight'),
    });
  }
  if (p.variant !== undefined && variantOf(p, exercise) === null) {
    problems.push({ path: 'variant', value: p.variant, bound: say('a variant of this exercise') });
  }
  if (p.beyond !== undefined && p.beyond.trim().length < SHORTEST_REASON)
    problems.push({
      path: 'beyond',
      value: p.beyond,
      bound: say('a reason of at least {{shortestReason}} letters', { shortestReason: SHORTEST_REASON }),
    });
  const { days } = p;
  if (
    days !== undefined &&
    !(new Set(days).size === days.length && days.every((d) => Number.isInteger(d) && d >= 0 && d <= 6))
  )
    problems.push({ path: 'days', value: days, bound: say('weekdays from 0, Monday, to 6, each once') });
  if (p.part !== undefined && !(DAY_PARTS.includes(p.part) && mayHavePart(p, exercise)))
    problems.push({
      path: 'part',
      value: p.part,
      bound: say('morning, midday or evening, for what is done once a day and at no time of its own'),
    });
  const dose = computeDose(toDoseInput(p, exercise));
  if (!dose.ok) problems.push(...dose.issues.filter((i) => problems.every((q) => q.path !== i.path)));
  return problems;
}
