import { exercise } from '../testing/exercises.js';
import { doseSteps } from '../progress/doseSteps.js';
import { fillRoutine, isOfRoutine, routineDays, routineItems, type RoutineOn } from './routine.js';

const LIBRARY = ['a', 'b', 'c'].map((key) =>
  exercise({
    key,
    name: key.toUpperCase(),
    variants: [],
    tags: [key === 'b' ? ('impact' as const) : ('barefoot' as const)],
  }),
);
const NONE = { left: [], right: [] };
const ON: RoutineOn = {
  exerciseOf: (key) => LIBRARY.find((e) => e.key === key),
  affected: 'left',
  tagsOff: NONE,
  supervised: NONE,
  taken: [],
  rounds: [],
};
const SET = {
  key: 'evening',
  name: 'Evening',
  items: [
    {
      exercise: 'a',
      sideRule: 'both' as const,
      dose: { sets: 2 },
      round: { key: 'a', feet: 'each' as const },
    },
    {
      exercise: 'b',
      sideRule: 'treated' as const,
      dose: { sets: 2 },
      round: { key: 'a', feet: 'each' as const },
    },
    { exercise: 'c', sideRule: 'treated' as const },
  ],
};
const filled = (on: Partial<RoutineOn> = {}) => fillRoutine(SET, { ...ON, ...on });

describe('a routine for a person', () => {
  it('has its own doses, the sides of its rule, its rounds, and says where it comes from', () => {
    const { items, left } = filled();
    expect(left).toEqual([]);
    expect(items.map((i) => [i.exercise, i.sides, i.sets, i.round?.key ?? null, i.why])).toEqual([
      ['a', 'one-after-other', 2, 'a', ['Of the routine "Evening"']],
      ['b', 'left', 2, 'a', ['Of the routine "Evening"']],
      ['c', 'left', 3, null, ['Of the routine "Evening"']],
    ]);
    expect(items.every(isOfRoutine)).toBe(true);
  });

  it.each<[string, Partial<RoutineOn>, string, string]>([
    ['safety switches off', { tagsOff: { left: ['impact'], right: [] } }, 'b', 'safety switches off impact'],
    [
      'is only done with someone beside',
      { supervised: { left: [], right: ['barefoot'] } },
      'a',
      'only with someone beside, for barefoot: add it when that is so',
    ],
    ['is given already', { taken: ['c'] }, 'c', 'given already'],
    [
      'is no longer there',
      { exerciseOf: (k) => (k === 'a' ? undefined : ON.exerciseOf(k)) },
      'a',
      'no longer in the library',
    ],
  ])('leaves out what %s, with the reason', (_, on, exercise, why) => {
    const { items, left } = filled(on);
    expect(left).toContainEqual({ exercise, why });
    expect(items.some((i) => i.exercise === exercise)).toBe(false);
  });

  it('is in no round where only one is left of it, and takes a free key beside other rounds', () => {
    expect(filled({ taken: ['b'] }).items[0]?.round).toBe(undefined);
    expect(filled({ rounds: ['a'] }).items.map((i) => i.round?.key ?? null)).toEqual(['b', 'b', null]);
  });

  it('is kept from a plan without the weights and weekdays of the person', () => {
    const items = filled().items.map((i) => ({ ...i, addedKg: 8, days: [0, 3, 5] }));
    expect(routineItems(items).map((i) => [i.exercise, i.sideRule, i.round?.key ?? null])).toEqual([
      ['a', 'both', 'a'],
      ['b', 'treated', 'a'],
      ['c', 'treated', null],
    ]);
    expect(JSON.stringify(routineItems(items))).not.toMatch(/addedKg|days"/);
  });
});

describe('what came with a routine', () => {
  const plan = { id: 'p', items: [...filled().items.slice(0, 1), { ...filled().items[2], slot: 'calf' }] };
  const given = [
    { ...plan, items: plan.items.flatMap((i) => (i.exercise === undefined ? [] : [i as never])) },
  ];
  const did = (day: string, ...keys: string[]) => ({
    day,
    planId: 'p',
    exercises: keys.map((exercise) => ({ exercise, sets: 1, reps: 1, effort: 5 })),
  });

  it('is no session of the plan where nothing else was done that day', () => {
    const days = routineDays(
      [
        did('2026-03-01', 'a'),
        did('2026-03-02', 'a', 'c'),
        did('2026-03-03', 'a'),
        did('2026-03-03', 'c'),
        did('2026-03-04'),
      ],
      given,
    );
    expect([...days]).toEqual(['2026-03-01']);
  });

  it('is never raised, and eased after a red like all else', () => {
    const steps = (state: 'green' | 'red') =>
      doseSteps(
        {
          items: filled().items.slice(0, 1),
          work: [1, 2, 3, 4].map((n) => ({
            exercise: 'a',
            sets: 2,
            reps: 15,
            effort: 2,
            day: `2026-03-0${n}`,
            planId: 'p',
            item: filled().items[0] as never,
            definition: LIBRARY[0] as never,
          })),
          sessions: [1, 2, 3, 4].map((n) => ({ day: `2026-03-0${n}`, state, before: 0, during: 0 }) as never),
          exerciseOf: ON.exerciseOf,
          ownedKg: [],
          bodyMassKg: 70,
          daysAtLevel: 30,
          cautiousStepPercent: null,
        },
        '2026-03-01',
      );
    expect(steps('green')).toEqual([]);
    expect(steps('red').map((s) => s.exercise)).toEqual(['a']);
  });
});
