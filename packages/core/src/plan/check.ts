import { say } from '../quantity/tongue.js';
import type { ExerciseDefinition } from '../exercise/definition.js';
import type { Issue } from '../result/result.js';
import { withinRange } from './prescribe.js';
import { prescriptionProblems, type Prescription } from './prescription.js';
import { isDoneAlone, roundProblems, tidyRounds } from './rounds.js';
import { type LeftOut, notAlone, type SafetyNow, switchedOff } from './safety.js';

/** A problem; of an exercise that is switched off, why by itself. */
type ItemProblem = Pick<Issue, 'path' | 'bound'> & { readonly value?: unknown; readonly why?: string };

/** What is wrong with one prescription now, by its field. */
function itemProblems(
  item: Prescription,
  exercise: ExerciseDefinition | undefined,
  now: SafetyNow,
): (Issue & ItemProblem)[] {
  if (exercise === undefined)
    return [{ path: 'exercise', value: item.exercise, bound: say('an exercise of the library') }];
  const off = switchedOff(exercise, item.sides, now.tagsOff);
  if (off !== null)
    return [{ path: 'exercise', value: item.exercise, bound: say('left out: {{off}}', { off }), why: off }];
  const alone = notAlone(exercise, item, now.supervised);
  if (alone !== null)
    return [
      { path: 'beside', value: item.beside ?? null, bound: say('said: someone is beside'), why: alone },
    ];
  const together = item.sides === 'together';
  if ((exercise.laterality === 'together') !== together)
    return [{ path: 'sides', value: item.sides, bound: say('a way this exercise is done') }];
  if (item.round !== undefined && isDoneAlone(exercise))
    return [{ path: 'round', value: item.round.key, bound: say('left out: this one is done by itself') }];
  return prescriptionProblems(item, exercise);
}

/** What is wrong with the items of a plan, by index and field; no exercise stands in it twice. */
export function planProblems(
  items: readonly Prescription[],
  exerciseOf: (key: string) => ExerciseDefinition | undefined,
  now: SafetyNow,
): Issue[] {
  const each = items.flatMap((item, i) => {
    const twice = items.findIndex((x) => x.exercise === item.exercise) !== i;
    const problems = twice
      ? [{ path: 'exercise', value: item.exercise, bound: say('in the plan once only') }]
      : itemProblems(item, exerciseOf(item.exercise), now);
    return problems.map((p) => ({ ...p, path: `items.${i}.${p.path}` }));
  });
  return [...each, ...roundProblems(items)];
}

/** The items that can be given as they stand, and those that cannot with why; no plan is written with any of these. */
export function keepGivable<T extends Prescription>(
  items: readonly T[],
  exerciseOf: (key: string) => ExerciseDefinition | undefined,
  now: SafetyNow,
): { readonly kept: readonly T[]; readonly left: readonly LeftOut[] } {
  const kept: T[] = [];
  const left: LeftOut[] = [];
  for (const item of items) {
    const [problem]: readonly ItemProblem[] = kept.some((k) => k.exercise === item.exercise)
      ? [{ path: 'exercise', bound: say('in the plan once only') }]
      : itemProblems(item, exerciseOf(item.exercise), now);
    if (problem === undefined) kept.push(item);
    else
      left.push({
        exercise: item.exercise,
        why:
          problem.why ??
          (problem.path === 'exercise'
            ? problem.bound
            : say('{{path}} must be {{bound}}', { path: problem.path, bound: problem.bound })),
      });
  }
  const leaves = (item: T): T => {
    const exercise = exerciseOf(item.exercise);
    return exercise === undefined ? item : withinRange(item, exercise);
  };
  return { kept: tidyRounds(kept, leaves), left };
}
