import type { ExerciseDefinition, Tag } from '../exercise/definition.js';
import type { DoseStep } from '../progress/titration.js';
import type { Slot } from '../protocol/definition.js';
import type { Affected, PerSide } from '../quantity/side.js';
import { type EarlyOn, tooEarlyOn } from './ability.js';
import { withBeyond } from './doseRange.js';
import { prescribe, withinRange } from './prescribe.js';
import type { Prescription } from './prescription.js';
import { switchedOff } from './safety.js';

/** What steps along a ladder are taken in. */
export interface StepOn {
  readonly exercises: readonly ExerciseDefinition[];
  /** Whether a ladder is one: what stands side by side has no easier and harder. */
  readonly isOrdered: (ladder: string) => boolean;
  readonly affected: Affected;
  readonly tagsOff: PerSide<readonly Tag[]>;
  /** Exercises the plan has already. */
  readonly taken: readonly string[];
  /** What is too much yet by what was measured: no step up goes onto it or past it. */
  readonly early?: readonly EarlyOn[] | undefined;
  /** The side rule of the item's slot, where the stage has it. */
  readonly sideRule?: ((slot: string) => Slot['sideRule'] | undefined) | undefined;
}

/** The rule a prescription was given by, where no slot says: one side is the treated one. */
const ruleOf = (item: Prescription): Slot['sideRule'] =>
  item.sides === 'left' || item.sides === 'right' ? 'treated' : 'both';

/**
 * The next easier (-1) or harder (1) exercise of the ladder that safety leaves on, the measures allow and the plan does not
 * have yet, at its own dose; null when there is none. A harder one that is too early ends the way up: nothing beyond it is
 * easier.
 */
export function stepRung(item: Prescription, by: 1 | -1, on: StepOn): Prescription | null {
  const now = on.exercises.find((e) => e.key === item.exercise);
  if (now === undefined || !on.isOrdered(now.ladder)) return null;
  for (let rung = now.rung + by; ; rung += by) {
    const next = on.exercises.find((e) => e.ladder === now.ladder && e.rung === rung);
    if (next === undefined) return null;
    const stepped = prescribe(next, {
      slot: item.slot,
      sideRule: on.sideRule?.(item.slot) ?? ruleOf(item),
      affected: on.affected,
    });
    const early = tooEarlyOn(on.early ?? [], next.key, stepped.sides) !== null;
    if (early && by === 1) return null;
    if (early || on.taken.includes(next.key) || switchedOff(next, stepped.sides, on.tagsOff) !== null)
      continue;
    return item.round === undefined ? stepped : { ...stepped, round: item.round };
  }
}

/** What is left of repetitions where neither a rung nor a weight nor a set can go: two thirds, rounded down. [convention] */
const fewerReps = (item: Prescription): Prescription => ({ ...item, reps: Math.floor((item.reps * 2) / 3) });

function stepped(item: Prescription, step: DoseStep, on: StepOn): Prescription {
  switch (step.kind) {
    case 'keep':
      return item;
    case 'sets':
      return { ...item, sets: step.sets };
    case 'reps':
      return { ...item, reps: step.reps };
    case 'run':
      return item.tempo === undefined
        ? item
        : {
            ...item,
            tempo: { ...item.tempo, upSeconds: step.runSeconds, downSeconds: step.walkSeconds },
          };
    case 'load':
      return { ...item, addedKg: step.addedKg, reps: step.reps };
    case 'harder':
      return stepRung(item, 1, on) ?? item;
    case 'easier':
      return (
        stepRung(item, -1, on) ??
        (step.addedKg === null ? fewerReps(item) : { ...item, addedKg: step.addedKg })
      );
  }
}

/** A prescription after a step of its dose, always one that can be given. */
export function applyStep(item: Prescription, step: DoseStep, on: StepOn): Prescription {
  const next = stepped(item, step, on);
  const exercise = on.exercises.find((e) => e.key === next.exercise);
  return exercise === undefined ? next : withBeyond(withinRange(next, exercise), exercise);
}
