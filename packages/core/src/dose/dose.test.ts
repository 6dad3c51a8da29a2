import fc from 'fast-check';
import { orThrow } from '../result/result.js';
import { computeDose, type DoseInput } from './dose.js';
import { relativeLoad } from './load.js';
import { loadRise } from './loadRise.js';

const raise: DoseInput = {
  sets: 3,
  reps: 10,
  tempo: { upSeconds: 3, topSeconds: 2, downSeconds: 3, bottomSeconds: 0 },
  restSeconds: 90,
  setupSeconds: 20,
  sides: 'one-after-other',
  timesPerDay: 1,
  daysPerWeek: 3,
};

describe('dose', () => {
  it('takes 860 s for 3 x 10 at 3-2-3-0, one side after the other', () => {
    const dose = orThrow(computeDose(raise));
    expect(dose.exerciseSeconds).toBe(860);
    expect(dose.weekSeconds).toBe(2580);
    expect(dose.tensionSecondsPerSide).toEqual({ left: 240, right: 240 });
    expect(dose.repsPerSide).toEqual({ left: 30, right: 30 });
  });

  it('places alternating sets on the timeline, 520 s in all', () => {
    const dose = orThrow(computeDose({ ...raise, sides: 'alternating' }));
    expect(dose.exerciseSeconds).toBe(520);
    expect(dose.timeline.map((t) => [t.side, t.set, t.startSecond, t.endSecond])).toEqual([
      ['left', 1, 20, 100],
      ['right', 1, 100, 180],
      ['left', 2, 190, 270],
      ['right', 2, 270, 350],
      ['left', 3, 360, 440],
      ['right', 3, 440, 520],
    ]);
  });

  it('gives both feet the tension when they work together, in one timeline', () => {
    const dose = orThrow(computeDose({ ...raise, sides: 'together' }));
    expect(dose.exerciseSeconds).toBe(20 + 3 * 80 + 2 * 90);
    expect(dose.timeline.every((t) => t.side === 'both')).toBe(true);
    expect(dose.tensionSecondsPerSide).toEqual({ left: 240, right: 240 });
  });

  it('loads only the named side', () => {
    const dose = orThrow(computeDose({ ...raise, sides: 'right' }));
    expect(dose.tensionSecondsPerSide).toEqual({ left: 0, right: 240 });
    expect(dose.repsPerSide).toEqual({ left: 0, right: 30 });
  });

  it('counts holds with their release, the last one too, but only holds as tension', () => {
    const { tempo: _tempo, ...rest } = raise;
    const dose = orThrow(
      computeDose({
        ...rest,
        sets: 2,
        reps: 3,
        holdSeconds: 30,
        releaseSeconds: 5,
        restSeconds: 20,
        setupSeconds: 10,
        sides: 'left',
      }),
    );
    expect(dose.exerciseSeconds).toBe(10 + 2 * 3 * 35 + 20);
    expect(dose.tensionSecondsPerSide.left).toBe(180);
  });

  it('leaves the bottom pause out of the tension', () => {
    const dose = orThrow(
      computeDose({
        ...raise,
        sets: 1,
        sides: 'left',
        tempo: { upSeconds: 1, topSeconds: 0, downSeconds: 3, bottomSeconds: 2 },
      }),
    );
    expect(dose.exerciseSeconds).toBe(20 + 60);
    expect(dose.tensionSecondsPerSide.left).toBe(40);
  });

  it.each([
    [{ sets: 0 }, 'sets'],
    [{ sets: 2.5 }, 'sets'],
    [{ reps: -1 }, 'reps'],
    [{ restSeconds: -1 }, 'restSeconds'],
    [{ daysPerWeek: 8 }, 'daysPerWeek'],
    [{ timesPerDay: 0 }, 'timesPerDay'],
    [{ holdSeconds: 5 }, 'holdSeconds'],
    [{ tempo: undefined }, 'holdSeconds'],
    [{ tempo: { upSeconds: 0, topSeconds: 0, downSeconds: 0, bottomSeconds: 0 } }, 'tempo'],
    [{ tempo: { upSeconds: -1, topSeconds: 0, downSeconds: 0, bottomSeconds: 0 } }, 'tempo.upSeconds'],
  ])('refuses %p by its field', (change, path) => {
    const result = computeDose({ ...raise, ...change });
    expect(result.ok ? [] : result.issues.map((i) => i.path)).toContain(path);
  });

  it('never overlaps sets, never cuts a rest short, and alternating is never slower than one after the other', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 6 }),
        fc.integer({ min: 1, max: 15 }),
        fc.integer({ min: 0, max: 120 }),
        (sets, reps, restSeconds) => {
          const alternating = orThrow(
            computeDose({ ...raise, sets, reps, restSeconds, sides: 'alternating' }),
          );
          const inTurn = orThrow(computeDose({ ...raise, sets, reps, restSeconds }));
          alternating.timeline.reduce((end, t) => {
            expect(t.startSecond).toBeGreaterThanOrEqual(end);
            return t.endSecond;
          }, 20);
          for (const side of ['left', 'right']) {
            const own = alternating.timeline.filter((t) => t.side === side);
            own
              .slice(1)
              .forEach((t, i) =>
                expect(t.startSecond - (own[i]?.endSecond ?? 0)).toBeGreaterThanOrEqual(restSeconds),
              );
          }
          expect(alternating.exerciseSeconds).toBeLessThanOrEqual(inTurn.exerciseSeconds);
          expect(inTurn.exerciseSeconds).toBe(20 + 2 * (sets * reps * 8 + (sets - 1) * restSeconds));
        },
      ),
    );
  });
});

describe('relative load', () => {
  const of = (legs: number, addedKg = 0, footPitchDeg = 0) =>
    orThrow(relativeLoad({ bodyMassKg: 70, addedKg, legs, footPitchDeg })).relativeLoad;

  it('is about 1.3 body weights on two legs and 2.6 on one', () => {
    expect(of(2)).toBeCloseTo(1.316, 3);
    expect(of(1)).toBeCloseTo(2.632, 3);
  });

  it('rises with added weight and falls as the foot points down', () => {
    expect(of(1, 7)).toBeCloseTo(2.632 * 1.1, 2);
    expect(of(1, 0, 30)).toBeCloseTo(2.632 * Math.cos(Math.PI / 6), 3);
  });

  it('refuses three legs and no mass', () => {
    const result = relativeLoad({ bodyMassKg: 0, addedKg: 0, legs: 3, footPitchDeg: 0 });
    expect(result.ok ? [] : result.issues.map((i) => i.path)).toEqual(['bodyMassKg', 'legs']);
  });
});

describe('rise of the coming week', () => {
  const done = [{ exercise: 'raise-two-legs', load: 1000 }];

  it('warns above the stage limit and names the exercise that did it', () => {
    const coming = [...done, { exercise: 'raise-one-leg', load: 400 }];
    expect(loadRise(coming, done, { loggedDays: 5, limitPercent: 30 })).toEqual({
      before: 1000,
      percent: expect.closeTo(40, 6),
      reason: null,
      over: true,
      because: 'raise-one-leg',
    });
  });

  it('does not warn at the limit', () => {
    expect(
      loadRise([{ exercise: 'raise-two-legs', load: 1300 }], done, { loggedDays: 4, limitPercent: 30 }),
    ).toMatchObject({
      over: false,
      because: null,
    });
  });

  it('counts what other complaints load as done and as coming, also where nothing was logged here yet', () => {
    const coming = [{ exercise: 'raise-one-leg', load: 1500 }];
    const on = { limitPercent: 30, elsewhere: 1000 };
    expect(loadRise(coming, done, { ...on, loggedDays: 5 }).percent).toBeCloseTo(25, 6);
    expect(loadRise(coming, done, { ...on, loggedDays: 5 }).over).toBe(false);
    expect(loadRise(coming, [], { ...on, loggedDays: 0 }).percent).toBeCloseTo(150, 6);
    expect(loadRise(coming, done, { ...on, loggedDays: 2 })).toMatchObject({
      over: true,
      because: 'raise-one-leg',
    });
  });

  it('shows no percentage with under 4 logged days or nothing done', () => {
    expect(loadRise(done, done, { loggedDays: 3, limitPercent: 30 })).toMatchObject({
      percent: null,
      over: false,
    });
    expect(loadRise(done, [], { loggedDays: 6, limitPercent: 30 })).toMatchObject({
      percent: null,
      over: false,
    });
  });
});
