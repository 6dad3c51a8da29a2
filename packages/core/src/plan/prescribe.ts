import type { ExerciseDefinition, ExerciseDose } from '../exercise/definition.js';
import type { Slot } from '../protocol/definition.js';
import type { Affected } from '../quantity/side.js';
import { type Prescription, sidesFor } from './prescription.js';
import { doseRange } from './doseRange.js';

const FLAT = ['sets', 'reps', 'holdSeconds', 'restSeconds', 'addedKg', 'timesPerDay', 'daysPerWeek'] as const;

/** A dose kept inside the safe range of an exercise. */
export function withinRange<T extends ExerciseDose & Pick<Prescription, 'round' | 'beyond'>>(
  dose: T,
  e: ExerciseDefinition,
): T {
  const range = doseRange(dose, e);
  const kept = FLAT.flatMap((field) => {
    const value = dose[field];
    const span = range[field];
    return value === undefined || span === undefined
      ? []
      : [[field, Math.min(span[1], Math.max(span[0], value))]];
  });
  return { ...dose, ...(Object.fromEntries(kept) as Partial<ExerciseDose>) };
}

export interface PrescribeOn {
  readonly slot: string;
  readonly sideRule: Slot['sideRule'];
  readonly affected: Affected;
  /** Numbers of the slot in place of the exercise's own, as far as the exercise can take them. */
  readonly dose?: Partial<ExerciseDose> | undefined;
}

/**
 * The one place that makes a prescription of an exercise: its own dose with the slot's numbers, inside its safe range, on
 * the sides it can be done. Nothing of another exercise's dose is ever carried over.
 */
export function prescribe(e: ExerciseDefinition, on: PrescribeOn): Prescription {
  const { tempo, holdSeconds, releaseSeconds, addedKg, ...rest } = withinRange({ ...e.dose, ...on.dose }, e);
  const held = e.dose.tempo === undefined;
  const hold = holdSeconds ?? e.dose.holdSeconds;
  const release = releaseSeconds ?? e.dose.releaseSeconds;
  return {
    ...rest,
    ...(held
      ? {
          ...(hold === undefined ? {} : { holdSeconds: hold }),
          ...(release === undefined ? {} : { releaseSeconds: release }),
        }
      : { tempo: tempo ?? e.dose.tempo }),
    ...(addedKg === undefined || e.range.addedKg === undefined ? {} : { addedKg }),
    exercise: e.key,
    slot: on.slot,
    sides: sidesFor(e, on.sideRule, on.affected),
  };
}
