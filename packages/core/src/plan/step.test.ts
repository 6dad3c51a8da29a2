import { NOTHING_SAID } from './safety.js';
import { exercise } from '../testing/exercises.js';
import { planProblems, keepGivable } from './check.js';
import { prescribe } from './prescribe.js';
import { applyStep, stepRung, type StepOn } from './step.js';

const low = exercise({
  key: 'seated',
  rung: 1,
  tags: ['push-off'],
  dose: {
    sets: 2,
    reps: 8,
    holdSeconds: 5,
    releaseSeconds: 2,
    restSeconds: 0,
    timesPerDay: 1,
    daysPerWeek: 7,
  },
  range: {
    sets: [1, 3],
    reps: [5, 12],
    holdSeconds: [3, 10],
    restSeconds: [0, 30],
    timesPerDay: [1, 3],
    daysPerWeek: [3, 7],
  },
});
const mid = exercise();
const high = exercise({ key: 'step', rung: 3, tags: ['step-edge'] });
const both = exercise({ key: 'two', rung: 4, laterality: 'together' });
const none = { left: [], right: [] };
const on: StepOn = {
  exercises: [low, mid, high, both],
  isOrdered: () => true,
  affected: 'left',
  tagsOff: none,
  taken: [],
};
const item = {
  ...prescribe(mid, { slot: 's', sideRule: 'treated', affected: 'left' }),
  addedKg: 4,
  variant: 'slow',
};
const exerciseOf = (key: string) => on.exercises.find((e) => e.key === key);

describe('a step along the ladder', () => {
  it('carries nothing of the old dose over: weight, tempo and variant stay behind', () => {
    const easier = stepRung(item, -1, on);
    expect(easier).toEqual({ ...low.dose, exercise: 'seated', slot: 's', sides: 'left' });
    expect(planProblems(easier === null ? [] : [easier], exerciseOf, NOTHING_SAID)).toEqual([]);
  });

  it('goes up to nothing that is too early by what was measured, nor past it, on the side it is done on', () => {
    const early = (side: 'left' | 'right') => [{ exercise: 'step', side, why: 'too early' }];
    expect(stepRung(item, 1, { ...on, early: early('left') })).toBeNull();
    expect(stepRung(item, 1, { ...on, early: early('right') })?.exercise).toBe('step');
    const lowToo = [{ exercise: 'seated', side: 'left' as const, why: 'too early' }];
    expect(stepRung(item, -1, { ...on, early: lowToo })).toBeNull();
  });

  it('steps over what safety switches off or the plan has already, and says null at the end', () => {
    expect(stepRung(item, 1, on)?.exercise).toBe('step');
    expect(stepRung(item, 1, { ...on, tagsOff: { left: ['step-edge'], right: [] } })?.exercise).toBe('two');
    expect(stepRung(item, 1, { ...on, taken: ['step'] })?.exercise).toBe('two');
    expect(stepRung(item, -1, { ...on, taken: ['seated'] })).toBeNull();
    expect(stepRung(item, 1, { ...on, isOrdered: () => false })).toBeNull();
  });

  it('is done on the sides it can be: together for two feet, by the rule of its slot', () => {
    const wide = { ...on, taken: ['step'] };
    const two = stepRung(item, 1, wide);
    expect(two?.sides).toBe('together');
    const back = two === null ? null : stepRung(two, -1, { ...on, sideRule: () => 'treated' });
    expect(back).toMatchObject({ exercise: 'step', sides: 'left' });
  });
});

describe('a step of the dose', () => {
  it.each([
    [{ kind: 'sets', sets: 9, because: '' }, { sets: 5 }],
    [{ kind: 'reps', reps: 40, because: '' }, { reps: 15 }],
    [
      { kind: 'load', addedKg: 8, reps: 6, because: '' },
      { addedKg: 8, reps: 6 },
    ],
    [{ kind: 'harder', because: '' }, { exercise: 'step' }],
    [{ kind: 'easier', addedKg: 3, because: '' }, { exercise: 'seated' }],
    [
      { kind: 'keep', because: '' },
      { sets: 3, reps: 10, addedKg: 4 },
    ],
  ] as const)('%j gives what can be given', (step, wanted) => {
    const next = applyStep(item, step, on);
    expect(next).toMatchObject(wanted);
    expect(planProblems([next], exerciseOf, NOTHING_SAID)).toEqual([]);
  });

  it('with no easier rung takes weight off, and without a weight repetitions, never below the least', () => {
    const lowest = { ...on, exercises: [mid] };
    expect(applyStep(item, { kind: 'easier', addedKg: 3, because: '' }, lowest).addedKg).toBe(3);
    const plain = prescribe(mid, { slot: 's', sideRule: 'treated', affected: 'left' });
    expect(applyStep(plain, { kind: 'easier', addedKg: null, because: '' }, lowest).reps).toBe(6);
  });
});

describe('what can be given', () => {
  const fine = prescribe(mid, { slot: 's', sideRule: 'treated', affected: 'left' });

  it('is told by index and field, an exercise twice too', () => {
    const wrong = [
      { ...fine, sets: 9 },
      { ...fine, sides: 'together' as const },
      { ...fine, exercise: 'x' },
      fine,
    ];
    expect(planProblems(wrong, exerciseOf, NOTHING_SAID).map((p) => p.path)).toEqual([
      'items.0.sets',
      'items.1.exercise',
      'items.2.exercise',
      'items.3.exercise',
    ]);
  });

  it('keeps what can stand and says why the rest cannot', () => {
    const kept = keepGivable(
      [fine, { ...fine, exercise: 'step' }, { ...fine, exercise: 'seated' }],
      exerciseOf,
      { ...NOTHING_SAID, tagsOff: { left: ['step-edge'], right: [] } },
    );
    expect(kept.kept.map((k) => k.exercise)).toEqual(['rise']);
    expect(kept.left.map((l) => l.exercise)).toEqual(['step', 'seated']);
    expect(kept.left[0]?.why).toBe('safety switches off step-edge');
  });
});
