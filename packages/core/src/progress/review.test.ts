import { addDays } from '../quantity/day.js';
import { lookup } from '../testing/measures.js';
import type { SessionFact } from './criteriaTypes.js';
import { reviewEpisode, type Episode } from './review.js';
import { doubleProgression, easeDose, isEased, rangeTrend, type DoneSession } from './titration.js';

const TODAY = '2026-04-20';
const R = 'single-leg-heel-raise';
const sessions = (...states: NonNullable<SessionFact['state']>[]): SessionFact[] =>
  states.map((state, i) => ({ at: addDays(TODAY, i - states.length), state }));
const take = (value: number, day: string) => ({
  measure: R,
  side: 'left' as const,
  value,
  at: `${day}T09:00:00Z`,
});

const steady: Episode = {
  now: `${TODAY}T09:00:00Z`,
  lastReviewAt: '2026-04-06T09:00:00Z',
  stopsOpen: [],
  minimumDays: 14,
  leadingMeasure: R,
  criteria: { measure: R, side: 'treated', op: '>=', value: 15 },
  facts: {
    measures: [take(20, TODAY)],
    sessions: sessions('green', 'green', 'green', 'green', 'green'),
    skills: {},
    stageSince: '2026-04-01T09:00:00Z',
    affected: 'left',
    plannedPerWeek: 5,
  },
};
const review = (change: Partial<Episode>, facts: Partial<Episode['facts']> = {}) =>
  reviewEpisode({ ...steady, ...change, facts: { ...steady.facts, ...facts } }, lookup);

describe('the review decision, first match wins', () => {
  it('1: refers while a stop is open, whatever else holds', () => {
    expect(review({ stopsOpen: ['numb foot'] })).toMatchObject({ decision: 'refer', rule: 1 });
  });

  it('2: eases back after two reds running', () => {
    expect(review({}, { sessions: sessions('green', 'green', 'red', 'not-known', 'red') })).toMatchObject({
      decision: 'ease-back',
      rule: 2,
    });
  });

  it('3: makes the dose smaller after one red, or two ambers', () => {
    expect(review({}, { sessions: sessions('green', 'green', 'green', 'red') })).toMatchObject({
      decision: 'adjust-dose',
      rule: 3,
    });
    expect(review({}, { sessions: sessions('green', 'green', 'amber', 'amber') })).toMatchObject({
      decision: 'adjust-dose',
      rule: 3,
    });
  });

  it('4: holds and names what is missing', () => {
    const few = review({}, { sessions: sessions('green', 'green') });
    expect(few).toMatchObject({ decision: 'hold-and-retest', rule: 4 });
    expect(few.because[0]).toContain('2 sessions logged');
    const unknown = review({}, { measures: [] });
    expect(unknown).toMatchObject({ decision: 'hold-and-retest', rule: 4 });
    expect(unknown.because.join()).toContain('not measured yet');
  });

  it('5: progresses when all is met and the minimum days have passed', () => {
    expect(review({})).toMatchObject({ decision: 'progress', rule: 5 });
    expect(review({ minimumDays: 19 }).decision).toBe('progress');
    expect(review({ minimumDays: 20 })).toMatchObject({ decision: 'hold', rule: 9 });
  });

  it('6: holds and retests when only the error stands between', () => {
    expect(review({}, { measures: [take(15, TODAY)] })).toMatchObject({
      decision: 'hold-and-retest',
      rule: 6,
      confidence: 'fair',
    });
  });

  it('7: holds and asks why when under 60 % was done', () => {
    expect(
      review(
        {},
        { measures: [take(10, TODAY)], plannedPerWeek: 7, sessions: sessions('green', 'green', 'green') },
      ),
    ).toMatchObject({ decision: 'hold', rule: 7 });
  });

  it('8: looks again after 4 weeks and refers after 6 without a real gain', () => {
    const flat = (days: number) => ({
      stageSince: '2026-02-01',
      measures: [take(10, addDays(TODAY, -days)), take(12, TODAY)],
    });
    expect(review({}, flat(27))).toMatchObject({ rule: 9 });
    expect(review({}, flat(28))).toMatchObject({ decision: 'look-again', rule: 8 });
    expect(review({}, flat(42))).toMatchObject({ decision: 'refer', rule: 8 });
    expect(
      review({}, { stageSince: '2026-02-01', measures: [take(10, addDays(TODAY, -42)), take(14, TODAY)] }),
    ).toMatchObject({ rule: 9 });
  });

  it('9: changes a dose that is ready, else holds, with what is still open', () => {
    const low = { measures: [take(10, TODAY)] };
    const step = {
      exercise: 'raise-two-legs',
      step: { kind: 'sets' as const, sets: 4, because: 'two green sessions' },
    };
    expect(review({ doseSteps: [step] }, low)).toMatchObject({ decision: 'adjust-dose', rule: 9 });
    const hold = review({}, low);
    expect(hold).toMatchObject({ decision: 'hold', rule: 9 });
    expect(hold.because.join()).toContain('not yet');
    expect(hold.wouldChange.length).toBeGreaterThan(0);
  });

  it('never progresses past a red or an open stop', () => {
    for (const tail of ['red', 'stop'] as const) {
      expect(review({}, { sessions: sessions('green', 'green', 'green', 'green', tail) }).decision).not.toBe(
        'progress',
      );
    }
  });
});

describe('double progression', () => {
  const dose = { sets: 3, reps: 12, restSeconds: 60, timesPerDay: 1, daysPerWeek: 3, addedKg: 5 };
  const range = {
    sets: [1, 4],
    reps: [8, 12],
    restSeconds: [30, 90],
    addedKg: [0, 20],
    timesPerDay: [1, 1],
    daysPerWeek: [2, 4],
  } as const;
  const done = (change: Partial<DoneSession> = {}): DoneSession => ({
    day: TODAY,
    setsDone: 3,
    repsDone: 12,
    effort: 7,
    state: 'green',
    ...change,
  });

  it('takes the next owned weight with repetitions back at the bottom', () => {
    expect(doubleProgression(dose, range, [done(), done()], [10, 5, 7.5])).toMatchObject({
      kind: 'load',
      addedKg: 7.5,
      reps: 8,
    });
  });

  it('adds a set when no step is owned, then a harder exercise', () => {
    expect(doubleProgression(dose, range, [done(), done()], [5])).toMatchObject({ kind: 'sets', sets: 4 });
    expect(
      doubleProgression({ ...dose, sets: 4 }, range, [done({ setsDone: 4 }), done({ setsDone: 4 })], []),
    ).toMatchObject({ kind: 'harder' });
  });

  it.each([{ effort: 8 }, { state: 'amber' as const }, { setsDone: 2 }, { repsDone: 11 }])(
    'keeps after %p',
    (change) => {
      expect(doubleProgression(dose, range, [done(), done(change)], [10]).kind).toBe('keep');
    },
  );

  it('keeps after a single session', () => {
    expect(doubleProgression(dose, range, [done()], [10]).kind).toBe('keep');
  });

  it.each([
    [4, 3],
    [3, 2],
    [2, 2],
  ])('eases %d sets to %d', (sets, to) =>
    expect(easeDose({ ...dose, sets })).toMatchObject({ kind: 'sets', sets: to }),
  );
  it('eases one set to the easier exercise', () =>
    expect(easeDose({ ...dose, sets: 1 }).kind).toBe('easier'));
});

describe('what is made smaller', () => {
  it.each([
    ['strength', 'red', true],
    ['range-static', 'red', true],
    ['relief', 'red', false],
    ['strength', 'two-ambers', true],
    ['skill', 'two-ambers', true],
    ['range-static', 'two-ambers', false],
    ['range-loaded', 'two-ambers', false],
  ] as const)('%s after %s: %s', (aim, after, eased) => expect(isEased(aim, after)).toBe(eased));
});

describe('range trend', () => {
  const weekly = (...values: number[]) =>
    values.map((value, i) => ({ at: addDays('2026-03-01', 7 * i), value }));
  it('needs 3 values', () => expect(rangeTrend(weekly(30, 32), 1.6)).toBeNull());
  it('sees 2 degrees a week over four weeks as improving', () => {
    expect(rangeTrend(weekly(30, 32, 34, 36), 1.62)).toMatchObject({
      slopePerWeek: expect.closeTo(2, 9),
      improving: true,
    });
  });
  it('does not take noise for a gain', () =>
    expect(rangeTrend(weekly(30, 31, 30), 1.62)?.improving).toBe(false));
});
