import { computeDose, type ComposedExercise, type ExerciseDefinition, toDoseInput } from '@heathstep/core';
import { beatAt, beatsOf } from '../../parts/pacer/beats.js';
import type { HomeEntryView, HomeView } from '@heathstep/contracts';
import { type Done, isDone, nextIndex, progressAt, putRight, roundOf, type Running } from './homeModel.js';
import { wasTooMuch } from './tooMuch.js';

const exercise = { setupSeconds: 20 } as ExerciseDefinition;
const raise: ComposedExercise = {
  exercise: 'raise',
  slot: 's',
  sides: 'alternating',
  sets: 3,
  reps: 10,
  restSeconds: 90,
  timesPerDay: 1,
  daysPerWeek: 3,
  why: [],
  tempo: { upSeconds: 3, topSeconds: 2, downSeconds: 3, bottomSeconds: 0 },
};

describe('the beats of the pacer', () => {
  const beats = beatsOf([{ item: raise, exercise }]);

  it('fill the whole dose without a gap, and end where the core says', () => {
    beats.slice(1).forEach((b, i) => expect(b.startSecond).toBe(beats[i]?.endSecond));
    const dose = computeDose(toDoseInput(raise, exercise));
    expect(beats[beats.length - 1]?.endSecond).toBe(dose.ok ? dose.value.exerciseSeconds : 0);
  });

  it('begin with getting ready, alternate the sides, and rest where the other side does not cover it', () => {
    expect(beats[0]).toMatchObject({ kind: 'ready', endSecond: 20 });
    expect(beatAt(beats, 20)).toMatchObject({ kind: 'up', side: 'left', set: 1, rep: 1 });
    expect(beatAt(beats, 100)).toMatchObject({ kind: 'up', side: 'right', set: 1 });
    expect(beatAt(beats, 185)).toMatchObject({ kind: 'rest', side: 'left', set: 2 });
    expect(beatAt(beats, 520)).toBeNull();
  });

  it('count holds with their release', () => {
    const { tempo: _tempo, ...rest } = raise;
    const hold = beatsOf([
      {
        item: { ...rest, sides: 'left', sets: 1, reps: 2, holdSeconds: 30, releaseSeconds: 5 },
        exercise: { setupSeconds: 0 } as ExerciseDefinition,
      },
    ]);
    expect(hold.map((b) => [b.kind, b.endSecond])).toEqual([
      ['hold', 30],
      ['release', 35],
      ['hold', 65],
      ['release', 70],
    ]);
  });

  it.each([
    [0, { sets: 0, reps: 0 }],
    [52, { sets: 1, reps: 4 }],
    [120, { sets: 1, reps: 10 }],
    [200, { sets: 1, reps: 10 }],
    [350, { sets: 2, reps: 10 }],
    [520, { sets: 3, reps: 10 }],
  ])('tell at second %d what was done', (second, done) =>
    expect(progressAt(beats, second, raise)).toEqual(done),
  );
});

describe('a session of today that hurt more than it should', () => {
  const questions = (['before', 'during', 'after', 'hour-above'] as const).map((role) => ({
    key: role,
    role,
  }));
  const on = (painSchool: string, scores: object, day = '2026-03-04') =>
    wasTooMuch({
      today: '2026-03-04',
      painSchool,
      questions,
      items: [],
      entries: [{ id: 's', kind: 'session', day, payload: { scores, exercises: [] } }],
    } as unknown as HomeView);

  it.each([
    ['next-morning', { before: 2, during: 5, after: 5, 'hour-above': false }, false],
    ['next-morning', { before: 2, during: 6, after: 2, 'hour-above': false }, true],
    ['next-morning', { before: 2, during: 3, after: 3, 'hour-above': true }, true],
    ['next-morning', { before: 2, during: 3, after: 3, 'hour-above': null }, false],
    ['comfort', { before: 1, during: 3, after: 1, 'hour-above': false }, true],
    ['comfort', { before: 1, during: 2, after: 1, 'hour-above': false }, false],
    ['bone', { before: 0, during: 1, after: 0, 'hour-above': false }, true],
  ])('by the %s rule, %j: %s, and the rest of the day goes by it', (school, scores, tooMuch) => {
    expect(on(school, scores)).toBe(tooMuch);
    expect(on(school, scores, '2026-03-03')).toBe(false);
  });
});

describe('what is done several times a day', () => {
  const item = (key: string, timesPerDay: number) => ({ prescription: { exercise: key, timesPerDay } });
  const items = [item('stretch', 2), item('raise', 1), item('pump', 3)];
  const did = (...keys: string[]): Done[] =>
    keys.map((exercise) => ({ exercise, sets: 1, reps: 1, effort: 3 }));
  const session = (id: string, day: string, ...keys: string[]) =>
    ({
      id,
      kind: 'session',
      day,
      payload: { scores: {}, exercises: did(...keys) },
    }) as unknown as HomeEntryView;
  const on = (...entries: HomeEntryView[]) =>
    ({ today: '2026-03-04', items, entries }) as unknown as HomeView;
  const keys = (view: HomeView) => roundOf(view).map((i) => i.prescription.exercise);
  const all = session('1', '2026-03-04', 'stretch', 'raise', 'pump');

  it('is due again in the next round, until it was done as often as the day asks', () => {
    expect(keys(on())).toEqual(['stretch', 'raise', 'pump']);
    expect(keys(on(session('0', '2026-03-03', 'stretch'), all))).toEqual(['stretch', 'pump']);
    expect(keys(on(all, session('2', '2026-03-04', 'stretch')))).toEqual(['pump']);
    expect(keys(on(all, session('2', '2026-03-04'), session('3', '2026-03-04')))).toEqual([]);
  });

  it('is gone through in order, past what is not in this round and what was done in it', () => {
    expect(nextIndex(on(), [])).toBe(0);
    expect(nextIndex(on(all), did('stretch'))).toBe(2);
    expect(nextIndex(on(all), [], 1)).toBe(2);
    expect(nextIndex(on(all), did('stretch', 'pump'))).toBe(items.length);
  });

  it('is ticked for the round under way, else only once nothing of it is to come and it was done', () => {
    const ticked = (view: HomeView, running: Running | null = null) =>
      view.items.filter((i) => isDone(view, running, i)).map((i) => i.prescription.exercise);
    const running: Running = { id: 'r', day: '2026-03-04', scores: {}, planId: null, done: did('stretch') };
    expect(ticked(on())).toEqual([]);
    expect(ticked(on(), running)).toEqual(['stretch']);
    expect(ticked(on(all))).toEqual(['raise']);
    expect(ticked(on(session('1', '2026-03-04', 'stretch')))).toEqual([]);
    expect(ticked(on(all), running)).toEqual(['stretch', 'raise']);
  });
});

describe('what was done, put right', () => {
  it.each([
    ['a first set is of what was planned', { sets: 0, reps: 0 }, 'sets', 1, { sets: 1, reps: 10 }],
    ['a set more changes no repetitions', { sets: 1, reps: 6 }, 'sets', 1, { sets: 2, reps: 6 }],
    ['a first repetition is of one set', { sets: 0, reps: 0 }, 'reps', 1, { sets: 1, reps: 1 }],
    ['no set is of nothing', { sets: 1, reps: 8 }, 'sets', -1, { sets: 0, reps: 0 }],
    ['no repetition is in no set', { sets: 2, reps: 1 }, 'reps', -1, { sets: 0, reps: 0 }],
    ['less than nothing is nothing', { sets: 0, reps: 0 }, 'sets', -1, { sets: 0, reps: 0 }],
  ] as const)('%s', (_, done, field, by, after) => {
    expect(putRight(done, field, by, 10)).toEqual(after);
  });
});
