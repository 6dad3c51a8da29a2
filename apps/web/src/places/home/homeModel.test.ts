import { computeDose, type ComposedExercise, type ExerciseDefinition, toDoseInput } from '@heathstep/core';
import { beatAt, beatsOf } from '../../parts/pacer/beats.js';
import { progressAt } from './homeModel.js';

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
  const beats = beatsOf(raise, exercise);

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
    const hold = beatsOf({ ...rest, sides: 'left', sets: 1, reps: 2, holdSeconds: 30, releaseSeconds: 5 }, {
      setupSeconds: 0,
    } as ExerciseDefinition);
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
