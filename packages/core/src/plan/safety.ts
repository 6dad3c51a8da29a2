import { say } from '../quantity/tongue.js';
import type { DoseSides } from '../dose/dose.js';
import { type ExerciseDefinition, type Tag, TAGS } from '../exercise/definition.js';
import type { PerSide, Side } from '../quantity/side.js';
import type { Prescription } from './prescription.js';

/** What is not in a plan, and why. */
export interface LeftOut {
  readonly exercise: string;
  readonly why: string;
}

/** The sides an exercise is done on. */
export function sidesTouched(sides: DoseSides): readonly Side[] {
  return sides === 'left' || sides === 'right' ? [sides] : ['left', 'right'];
}

/** Why this exercise cannot be given on these sides; null when it can. */
export function switchedOff(
  exercise: ExerciseDefinition,
  sides: DoseSides,
  tagsOff: PerSide<readonly Tag[]>,
): string | null {
  if (sidesTouched(sides).some((side) => TAGS.every((tag) => tagsOff[side].includes(tag)))) {
    return say('safety switches off everything');
  }
  const off = sidesTouched(sides).flatMap((side) =>
    exercise.tags.filter((tag) => tagsOff[side].includes(tag)),
  );
  return off.length === 0
    ? null
    : say('safety switches off {{list}}', { list: [...new Set(off)].join(', ') });
}

/** What safety says now of what may be done. */
export interface SafetyNow {
  readonly tagsOff: PerSide<readonly Tag[]>;
  /** Only with someone beside. */
  readonly supervised: PerSide<readonly Tag[]>;
}

/** Of someone of whom safety says nothing. */
export const NOTHING_SAID: SafetyNow = {
  tagsOff: { left: [], right: [] },
  supervised: { left: [], right: [] },
};

/** A given plan held against what safety says now: what may still be done, and what is held back with the reason. */
export function heldBack<T extends Pick<Prescription, 'exercise' | 'sides' | 'beside'>>(
  items: readonly T[],
  exerciseOf: (key: string) => ExerciseDefinition | undefined,
  now: SafetyNow,
): { readonly kept: readonly T[]; readonly held: readonly LeftOut[] } {
  const judged = items.map((item) => {
    const exercise = exerciseOf(item.exercise);
    const why =
      exercise === undefined
        ? null
        : (switchedOff(exercise, item.sides, now.tagsOff) ?? notAlone(exercise, item, now.supervised));
    return { item, why };
  });
  return {
    kept: judged.filter((j) => j.why === null).map((j) => j.item),
    held: judged.flatMap((j) => (j.why === null ? [] : [{ exercise: j.item.exercise, why: j.why }])),
  };
}

/** Why an exercise is not for home without someone beside; null when it is. */
export function onlySupervised(
  exercise: ExerciseDefinition,
  sides: DoseSides,
  supervised: PerSide<readonly Tag[]> | undefined,
): string | null {
  if (supervised === undefined) return null;
  const tags = sidesTouched(sides).flatMap((side) =>
    exercise.tags.filter((tag) => supervised[side].includes(tag)),
  );
  return tags.length === 0
    ? null
    : say('only with someone beside, for {{list}}: add it when that is so', {
        list: [...new Set(tags)].join(', '),
      });
}

/** Why an exercise as prescribed is not done at home: nobody is said to be beside, and safety asks for that; null when it may be. */
export const notAlone = (
  exercise: ExerciseDefinition,
  { sides, beside }: Pick<Prescription, 'sides' | 'beside'>,
  supervised: PerSide<readonly Tag[]>,
): string | null => (beside === true ? null : onlySupervised(exercise, sides, supervised));
