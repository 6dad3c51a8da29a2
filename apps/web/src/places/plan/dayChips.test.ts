import { loadContent } from '@heathstep/content';
import { type ComposedExercise, dueDays, prescribe } from '@heathstep/core';
import { withDay } from './DayChips.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const exercise = loaded.content.exercises.find((e) => e.key === 'raise-one-leg');
if (exercise === undefined) throw new Error('no exercise');
const item: ComposedExercise = {
  ...prescribe(exercise, { slot: 's', sideRule: 'treated', affected: 'left', dose: { daysPerWeek: 3 } }),
  why: [],
};

describe('choosing the days of an exercise', () => {
  it('adds a day and takes one off, and the dose says so many', () => {
    const more = withDay(item, exercise, 1);
    expect([more?.days, more?.daysPerWeek]).toEqual([[0, 1, 3, 5], 4]);
    const back = more === null ? null : withDay(more, exercise, 0);
    expect([back?.days, back?.daysPerWeek]).toEqual([[1, 3, 5], 3]);
    expect(back === null ? [] : dueDays(back)).toEqual([1, 3, 5]);
  });

  it('never goes under the fewest or over the most days of the exercise', () => {
    const [fewest, most] = exercise.range.daysPerWeek;
    let now: ComposedExercise | null = item;
    for (const day of [0, 1, 2, 3, 4, 5, 6]) {
      if (now === null || dueDays(now).includes(day)) continue;
      const next: ComposedExercise | null = withDay(now, exercise, day);
      if (now.daysPerWeek === most) expect(next).toBeNull();
      now = next ?? now;
    }
    expect(now?.daysPerWeek).toBe(most);
    const few = { ...item, daysPerWeek: fewest };
    expect(withDay(few, exercise, dueDays(few)[0] ?? 0)).toBeNull();
  });
});
