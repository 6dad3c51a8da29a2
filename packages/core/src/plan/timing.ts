import { computeDose } from '../dose/dose.js';
import type { ExerciseDefinition } from '../exercise/definition.js';
import { ok, refused, type Result } from '../result/result.js';
import { type Prescription, toDoseInput } from './prescription.js';

/** Seconds a prescription takes. */
export interface PrescriptionTime {
  /** One time through, set-up included. */
  readonly exerciseSeconds: number;
  readonly daySeconds: number;
  readonly weekSeconds: number;
}

/**
 * The one place that says how long a prescription takes, for plan, handout, phone and week. What is worn or done beside
 * other things takes the time to put it on, not the hours it stays on.
 */
export function prescriptionTime(p: Prescription, exercise: ExerciseDefinition): Result<PrescriptionTime> {
  const dose = computeDose(toDoseInput(p, exercise));
  if (!dose.ok) return refused(...dose.issues);
  const exerciseSeconds = exercise.aim === 'aid' ? exercise.setupSeconds : dose.value.exerciseSeconds;
  const daySeconds = exerciseSeconds * p.timesPerDay;
  return ok({ exerciseSeconds, daySeconds, weekSeconds: daySeconds * p.daysPerWeek });
}
