import { say } from '../quantity/tongue.js';
import type { DoseSides } from '../dose/dose.js';
import type { ExerciseDefinition } from '../exercise/definition.js';
import { evaluateCriteria, type MeasureLookup } from '../progress/criteria.js';
import type { Facts } from '../progress/criteriaTypes.js';
import { SIDES, type Side } from '../quantity/side.js';
import { sidesTouched } from './safety.js';

/** For how many days a measured ability speaks for what someone can do. Convention. */
const ABILITY_DAYS = 120;

/**
 * Why an exercise is too much for someone yet, by what was measured on a side it is done on; null where nothing measured
 * within 120 days speaks against it. What was never measured bars nothing here: where a protocol starts says what it assumes.
 */
export function tooEarly(
  { abilities = [] }: Pick<ExerciseDefinition, 'abilities'>,
  sides: DoseSides,
  { facts, now }: { readonly facts: Facts; readonly now: string },
  lookup: MeasureLookup,
): string | null {
  for (const { measure, atLeast } of abilities)
    for (const side of sidesTouched(sides)) {
      const { state, parts } = evaluateCriteria(
        { measure, side, op: '>=', value: atLeast, maxAgeDays: ABILITY_DAYS },
        facts,
        now,
        lookup,
      );
      if (state === 'not-met')
        return say('too early: {{list}}', { list: parts.map((p) => `${p.text}: ${p.because}`).join('; ') });
    }
  return null;
}

/** An exercise that is too much yet on a side, and why. */
export interface EarlyOn {
  readonly exercise: string;
  readonly side: Side;
  readonly why: string;
}

/** Everything of a library that is too much yet, by side: what someone who adds it by hand is told. */
export const tooEarlyEach = (
  exercises: readonly Pick<ExerciseDefinition, 'key' | 'abilities'>[],
  at: Parameters<typeof tooEarly>[2],
  lookup: MeasureLookup,
): readonly EarlyOn[] =>
  exercises.flatMap((e) =>
    SIDES.flatMap((side) => {
      const why = tooEarly(e, side, at, lookup);
      return why === null ? [] : [{ exercise: e.key, side, why }];
    }),
  );

/** Of these, what speaks against an exercise on the sides it is done on; null where nothing does. */
export function tooEarlyOn(early: readonly EarlyOn[], exercise: string, sides: DoseSides): string | null {
  const touched = sidesTouched(sides);
  return early.find((e) => e.exercise === exercise && touched.includes(e.side))?.why ?? null;
}
