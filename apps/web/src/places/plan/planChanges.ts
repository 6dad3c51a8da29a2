import { type ComposedExercise, doseSentence, sentenceText, say } from '@heathstep/core';
import type { PlanView } from '@heathstep/contracts';
import type { ClinicContent } from '../../api/queries.js';
import type { Change } from '../../parts/Changes.js';

/** A line of a plan as it is compared: the exercise with its dose and, where they were chosen, its days. */
function line(item: ComposedExercise, content: ClinicContent): string {
  const exercise = content.exercises.find((e) => e.key === item.exercise);
  return exercise === undefined
    ? item.exercise
    : `${exercise.name}: ${sentenceText(doseSentence(item, exercise))}`;
}

/** What a later version of a plan says otherwise than an earlier one. */
export function planChanges(before: PlanView, after: PlanView, content: ClinicContent): readonly Change[] {
  const linesOf = (plan: PlanView) => plan.items.map((i) => line(i, content));
  const [was, is] = [linesOf(before), linesOf(after)];
  const of = (title: string, gone: readonly string[], come: readonly string[]): Change[] =>
    gone.length + come.length === 0 ? [] : [{ stage: '', title, gone, come }];
  const [from, to] = [before.madeOf.name, after.madeOf.name];
  return [
    ...of(say('Stage'), from === to ? [] : [from], from === to ? [] : [to]),
    ...of(
      say('Exercises'),
      was.filter((l) => !is.includes(l)),
      is.filter((l) => !was.includes(l)),
    ),
  ];
}
