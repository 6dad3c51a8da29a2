import fc from 'fast-check';
import { type Slot, type Stage, stageKey } from '../protocol/definition.js';
import { completeStage } from '../protocol/complete.js';
import { exercise } from '../testing/exercises.js';
import { type ComposeInput, composePlan } from './compose.js';

const NOW = '2026-03-20T10:00:00';
const none = { left: [], right: [] } as const;
const rung = (key: string, at: number, over: Parameters<typeof exercise>[0] = {}) =>
  exercise({ key, name: key, rung: at, ladder: 'rises', ...over });

const seated = rung('seated', 1, { tags: [] });
const both = rung('both', 2, { tags: ['weight-bearing'] });
const single = rung('single', 3, { tags: ['weight-bearing', 'calf-load'] });
const other = exercise({ key: 'other', name: 'other', ladder: 'others', rung: 1, aim: 'skill', tags: [] });

const slot = (over: Partial<Slot> = {}): Slot => ({
  key: 'rise',
  purpose: 'Rises',
  aim: 'strength',
  ladder: 'rises',
  start: 'single',
  priority: 1,
  sideRule: 'treated',
  ...over,
});
const beside = slot({ key: 'beside', ladder: 'others', start: 'other', priority: 2 });

const stage = (...slots: readonly Slot[]): Stage =>
  completeStage(
    {
      key: stageKey('only'),
      name: 'Only',
      purpose: { clinician: '', patient: '' },
      usualWeeks: { min: 1, max: 2 },
      minimumDays: 0,
      entry: null,
      criteria: null,
      slots,
      adjuncts: [],
      painSchool: 'comfort',
      remeasure: [],
      leadingMeasure: 'none',
      evidence: { statement: '', source: '', kind: 'convention', version: 1 },
    },
    () => 'strength',
  );

const plan = (slots: readonly Slot[], change: Partial<ComposeInput> = {}) =>
  composePlan(
    {
      stage: stage(...slots),
      exercises: [seated, both, single, other],
      facts: { measures: [], sessions: [], skills: {}, stageSince: NOW, affected: 'left' },
      schools: {},
      equipment: [],
      minutesPerDay: 30,
      tagsOff: none,
      drivers: [],
      now: NOW,
      ...change,
    },
    () => undefined,
  );
const given = (...args: Parameters<typeof plan>) => plan(...args).exercises.map((e) => [e.exercise, e.sets]);

describe('which exercise of a ladder fills a slot', () => {
  it('is the one it starts from, with all its sets', () => expect(given([slot()])).toEqual([['single', 3]]));

  it('is an easier one only for whom the harder is barred, on the side that counts', () => {
    expect(given([slot()], { tagsOff: { left: ['calf-load'], right: [] } })).toEqual([['both', 3]]);
    expect(given([slot()], { tagsOff: { left: [], right: ['calf-load'] } })).toEqual([['single', 3]]);
    expect(given([slot()], { tagsOff: { left: ['weight-bearing'], right: [] } })).toEqual([['seated', 3]]);
  });

  it('is never easier than the least that still is what it is for', () => {
    const off = { tagsOff: { left: ['weight-bearing' as const], right: [] } };
    const made = plan([slot({ least: 'both' })], off);
    expect(made.exercises).toEqual([]);
    expect(made.left.map((l) => l.exercise)).toEqual(['single', 'both']);
    expect(made.warnings.length).toBeGreaterThan(0);
  });

  it('is never one that is locked out or given for another complaint', () => {
    expect(given([slot()], { locks: { keep: [], never: ['single'] } })).toEqual([['both', 3]]);
    expect(given([slot()], { elsewhere: ['single', 'both'] })).toEqual([['seated', 3]]);
  });

  it('is the easier one where that is to be kept', () =>
    expect(given([slot()], { locks: { keep: ['both'], never: [] } })).toEqual([['both', 3]]));
});

describe('a run', () => {
  const running = { ladder: 'runs', laterality: 'together', tags: ['impact'], equipment: [] } as const;
  const turns = exercise({
    ...running,
    key: 'turns',
    rung: 1,
    position: 'walking and running',
    dose: {
      sets: 1,
      reps: 4,
      tempo: { upSeconds: 180, topSeconds: 0, downSeconds: 120, bottomSeconds: 0 },
      restSeconds: 0,
      timesPerDay: 1,
      daysPerWeek: 3,
    },
    range: {
      sets: [1, 1],
      reps: [1, 12],
      upSeconds: [30, 300],
      downSeconds: [30, 300],
      restSeconds: [0, 0],
      timesPerDay: [1, 1],
      daysPerWeek: [1, 4],
    },
  });
  const even = exercise({
    ...running,
    key: 'even',
    rung: 2,
    position: 'running',
    dose: { sets: 1, reps: 1, holdSeconds: 900, restSeconds: 0, timesPerDay: 1, daysPerWeek: 3 },
    range: {
      sets: [1, 1],
      reps: [1, 1],
      holdSeconds: [300, 3600],
      restSeconds: [0, 0],
      timesPerDay: [1, 1],
      daysPerWeek: [1, 4],
    },
  });
  const after = (mostRunMinutes: number | null) =>
    plan([slot({ ladder: 'runs', start: 'even', aim: 'endurance' })], {
      exercises: [turns, even],
      load: { of: () => ({}), most: {}, mostRunMinutes, elsewhere: {} },
    });

  it.each([
    // most minutes of one run, given, turns of three minutes
    [null, 'even', 1],
    [15, 'even', 1],
    [14, 'turns', 4],
    [10, 'turns', 3],
    [6, 'turns', 2],
  ])('of at most %s min is %s, %d times', (most, key, reps) =>
    expect(after(most).exercises.map((e) => [e.exercise, e.reps])).toEqual([[key, reps]]),
  );

  it('that would be too long is left out with the numbers', () =>
    expect(after(14).left).toContainEqual({
      exercise: 'even',
      why: 'one run would be longer than 14 min, 10 % over the longest of the last 30 days',
    }));
});

describe('minutes', () => {
  // 3 sets of 10 raises of 6 s with 60 s between and 10 s to set up: 310 s, 5.2 minutes; 2 sets 190 s; 1 set 70 s.
  it.each([
    [6, 3],
    [5, 2],
    [3, 1],
    [1, undefined],
  ])('%d a day hold %s sets', (minutesPerDay, sets) =>
    expect(plan([slot()], { minutesPerDay }).exercises[0]?.sets).toBe(sets),
  );

  it('the dose that is the point is filled whole before another exercise has its sets', () => {
    const filled = (whole: boolean) =>
      Object.fromEntries(
        given([{ ...beside, priority: 1 }, slot({ priority: 2, whole })], { minutesPerDay: 6.4 }),
      );
    expect(filled(false)).toEqual({ other: 2, single: 2 });
    expect(filled(true)).toEqual({ other: 1, single: 3 });
  });

  it('it is cut where the day cannot hold it, not left out', () =>
    expect(given([slot({ whole: true })], { minutesPerDay: 4 })).toEqual([['single', 2]]));

  it('more of them never make a plan worth less in exercises', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 20 }), fc.integer({ min: 0, max: 20 }), (minutes, more) => {
        const at = (minutesPerDay: number) => plan([slot(), beside], { minutesPerDay });
        expect(at(minutes + more).exercises.length).toBeGreaterThanOrEqual(at(minutes).exercises.length);
        expect(at(minutes).minutesPerDay).toBeLessThanOrEqual(minutes);
      }),
    );
  });
});

describe('weights at home', () => {
  const asked = slot({ dose: { addedKg: 4 } });
  it.each<[string, readonly number[], number]>([
    ['the very one', [2, 4, 8], 4],
    ['the heaviest that is not over it', [1, 3, 20], 3],
    ['none where all are heavier', [8, 20], 0],
    ['as asked where nothing is said of weights', [], 4],
  ])('%s', (_name, weightsKg, kg) => expect(plan([asked], { weightsKg }).exercises[0]?.addedKg).toBe(kg));

  it('as asked where the exercise needs some and all are heavier', () => {
    const needs = { ...single, range: { ...single.range, addedKg: [2, 20] as const } };
    const made = plan([asked], { weightsKg: [8], exercises: [needs] });
    expect(made.exercises[0]?.addedKg).toBe(4);
  });
});
