import fc from 'fast-check';
import { addDays } from '../quantity/day.js';
import { lookup } from '../testing/measures.js';
import type { SessionFact } from './criteriaTypes.js';
import { reviewEpisode, type Episode } from './review.js';
import {
  bodyShareKg,
  doubleProgression,
  easeDose,
  isEased,
  minDaysAtLevel,
  rangeTrend,
  type DoneSession,
} from './titration.js';

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
    sessions: sessions(...Array.from({ length: 10 }, () => 'green' as const)),
    skills: {},
    stageSince: '2026-04-01T09:00:00Z',
    affected: 'left',
    plannedPerWeek: 5,
  },
};
const review = (change: Partial<Episode>, facts: Partial<Episode['facts']> = {}) =>
  reviewEpisode({ ...steady, ...change, facts: { ...steady.facts, ...facts } }, lookup);

describe('the review decision, first match wins', () => {
  it('is the same from midnight to midnight, as long as nothing is recorded', () => {
    const state = fc.constantFrom('green' as const, 'amber' as const, 'red' as const, 'not-known' as const);
    const time = fc
      .tuple(fc.integer({ min: 0, max: 23 }), fc.integer({ min: 0, max: 59 }))
      .map(([h, m]) => `${String(h).padStart(2, '0')}:${String(m).padStart(2, '0')}:00Z`);
    fc.assert(
      fc.property(fc.array(state, { maxLength: 14 }), time, time, (states, one, other) => {
        const at = (t: string) => review({ now: `${TODAY}T${t}` }, { sessions: sessions(...states) });
        expect(at(one)).toEqual(at(other));
      }),
    );
  });

  it('1: refers while a stop is open, whatever else holds', () => {
    expect(review({ stopsOpen: ['numb foot'] })).toMatchObject({ decision: 'refer', rule: 1 });
  });

  it('2: eases back after two reds running', () => {
    expect(review({}, { sessions: sessions('green', 'green', 'red', 'not-known', 'red') })).toMatchObject({
      decision: 'ease-back',
      rule: 2,
    });
  });

  it('2: eases back after three reds in 14 days, not after three in longer', () => {
    const reds = (...ago: number[]) => ({
      stageSince: '2026-03-01',
      sessions: [
        ...ago.map((d): SessionFact => ({ at: addDays(TODAY, -d), state: 'red' })),
        ...ago.map((d): SessionFact => ({ at: addDays(TODAY, 1 - d), state: 'green' })),
      ],
    });
    expect(review({}, reds(13, 8, 4))).toMatchObject({ decision: 'ease-back', rule: 2 });
    expect(review({}, reds(14, 8, 4)).rule).not.toBe(2);
  });

  it('2: in the first stage cuts the dose instead, and does not forget the run', () => {
    const out = review({ firstStage: true }, { sessions: sessions('green', 'red', 'red') });
    expect(out).toMatchObject({ decision: 'ease-back', rule: 2 });
    expect(out.because.join()).toContain('first stage');
  });

  it.each([[['green', 'green', 'red']], [['green', 'amber', 'amber']], [['green', 'red', 'amber']]] as const)(
    '3: makes the dose smaller after %p',
    (states) => {
      expect(review({}, { sessions: sessions('green', ...states) })).toMatchObject({
        decision: 'adjust-dose',
        rule: 3,
      });
    },
  );

  it('4: progresses when all is met and the minimum days have passed, before anything is asked again', () => {
    expect(review({})).toMatchObject({ decision: 'progress', rule: 4 });
    expect(review({ minimumDays: 19 }).decision).toBe('progress');
    expect(review({ minimumDays: 20 })).toMatchObject({ decision: 'hold', rule: 9 });
  });

  it('5: holds and asks why when under 60 % was done in 14 days', () => {
    const low = { measures: [take(10, TODAY)], plannedPerWeek: 7 };
    const done = (n: number) => sessions(...Array.from({ length: n }, () => 'green' as const));
    expect(review({}, { ...low, sessions: done(8) })).toMatchObject({ decision: 'hold', rule: 5 });
    expect(review({}, { ...low, sessions: done(9) }).rule).not.toBe(5);
    // Three days a week, all done.
    const alternate = Array.from({ length: 6 }, (_, i): SessionFact => ({
      at: addDays(TODAY, -2 * i),
      state: 'green',
    }));
    expect(review({}, { ...low, plannedPerWeek: 3, sessions: alternate }).rule).not.toBe(5);
  });

  it('5: asks a young stage only for the days there were', () => {
    const out = review(
      {},
      {
        stageSince: addDays(TODAY, -7),
        measures: [take(10, TODAY)],
        sessions: sessions('green', 'green', 'green', 'green', 'green'),
      },
    );
    expect(out.rule).not.toBe(5);
  });

  const flat = (days: number, then: number | null = 5, now: number | null = 7) => ({
    stageSince: '2026-01-01',
    measures: [
      { ...take(0, addDays(TODAY, -days)), value: then },
      { ...take(0, TODAY), value: now },
    ],
  });

  it('6: looks again after 6 weeks and refers after 12 without a real gain, or after the protocol’s own', () => {
    expect(review({}, flat(41)).rule).toBe(9);
    expect(review({}, flat(42))).toMatchObject({ decision: 'look-again', rule: 6 });
    expect(review({}, flat(83))).toMatchObject({ decision: 'look-again', rule: 6 });
    expect(review({}, flat(84))).toMatchObject({ decision: 'refer', rule: 6 });
    const sprain = { lookAgainWeeks: 4, referWeeks: 6 };
    expect(review(sprain, flat(28))).toMatchObject({ decision: 'look-again' });
    expect(review(sprain, flat(42))).toMatchObject({ decision: 'refer' });
    expect(review({}, flat(84, 5, 9)).rule).toBe(9);
  });

  it('6: a value that is already what is wanted is no plateau; unable all along is one', () => {
    expect(review({ ageYears: 62, sex: 'female' }, flat(84, 8, 8)).decision).not.toBe('refer');
    expect(review({ ageYears: 30, sex: 'male' }, flat(84, 8, 8)).decision).toBe('refer');
    expect(review({}, flat(84, null, null))).toMatchObject({ decision: 'refer', rule: 6 });
    const pain = (now: number) => ({
      stageSince: '2026-01-01',
      measures: [addDays(TODAY, -84), TODAY].map((day) => ({
        ...take(now, day),
        measure: 'first-step-pain',
      })),
    });
    expect(review({ leadingMeasure: 'first-step-pain' }, pain(0)).rule).not.toBe(6);
    expect(review({ leadingMeasure: 'first-step-pain' }, pain(6)).rule).toBe(6);
  });

  it('6: with both sides treated, one that gains is no plateau', () => {
    const right = (then: number, now: number) => [
      { ...take(then, addDays(TODAY, -84)), side: 'right' as const },
      { ...take(now, TODAY), side: 'right' as const },
    ];
    const both = (gain: number) => ({
      ...flat(84),
      affected: 'both' as const,
      measures: [...flat(84).measures, ...right(5, 5 + gain)],
    });
    expect(review({}, both(6)).rule).not.toBe(6);
    expect(review({}, both(1)).rule).toBe(6);
  });

  it('7: holds and names what is missing', () => {
    const few = review(
      {},
      { sessions: sessions('green', 'green'), measures: [take(10, TODAY)], plannedPerWeek: undefined },
    );
    expect(few).toMatchObject({ decision: 'hold-and-retest', rule: 7 });
    expect(few.because[0]).toContain('2 sessions logged');
    const unknown = review({}, { measures: [], plannedPerWeek: undefined });
    expect(unknown).toMatchObject({ decision: 'hold-and-retest', rule: 7 });
    expect(unknown.because.join()).toContain('not measured yet');
  });

  it('8: holds and retests when only the error stands between', () => {
    expect(review({}, { measures: [take(15, TODAY)], plannedPerWeek: undefined })).toMatchObject({
      decision: 'hold-and-retest',
      rule: 8,
      confidence: 'fair',
    });
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

  describe('9: gives no more where the leading measure fell', () => {
    const step = {
      exercise: 'raise-two-legs',
      step: { kind: 'sets' as const, sets: 4, because: 'two green sessions' },
    };
    const at = (before: number | null, now: number | null, facts: Partial<Episode['facts']> = {}) =>
      review(
        { doseSteps: [step] },
        {
          measures: [
            { ...take(0, '2026-04-05'), value: before },
            { ...take(0, TODAY), value: now },
          ],
          ...facts,
        },
      );

    it.each([
      [12, 8, 'hold-and-retest'],
      [12, 9, 'adjust-dose'],
      [12, null, 'hold-and-retest'],
      [null, 3, 'adjust-dose'],
      [8, 12, 'adjust-dose'],
    ])('from %j to %j (error 4): %s', (before, now, decision) => {
      expect(at(before, now)).toMatchObject({ decision, rule: 9 });
    });

    it('says so with the numbers, and asks for another measurement', () => {
      const told = at(12, 8);
      expect(told.because[0]).toBe(
        'Single-leg heel raise, left went from 12 to 8, worse by more than the error',
      );
      expect(at(12, null).because[0]).toContain('from 12 to unable');
      expect(told.wouldChange).toEqual(['measured again, no worse than before']);
    });

    it('looks at each treated side, at this stage only, and at like with like', () => {
      const right = (value: number, day: string) => ({ ...take(value, day), side: 'right' as const });
      const both = [take(8, '2026-04-05'), take(10, TODAY), right(14, '2026-04-05'), right(9, TODAY)];
      expect(at(0, 0, { affected: 'both', measures: both }).because[0]).toContain(
        ', right went from 14 to 9',
      );
      expect(at(0, 0, { measures: both }).decision).toBe('adjust-dose');
      const before = [take(14, '2026-03-20'), take(9, TODAY)];
      expect(at(0, 0, { measures: before }).decision).toBe('adjust-dose');
      const otherwise = [{ ...take(14, '2026-04-05'), method: 'phone' }, take(9, TODAY)];
      expect(at(0, 0, { measures: otherwise }).decision).toBe('adjust-dose');
    });
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

  const on = { bodyShareKg: 70, daysAtLevel: 7, minDaysAtLevel: 7, loadStepPercent: 20 };
  const progress = (
    sessionsDone: readonly DoneSession[],
    owned: readonly number[],
    change: Partial<typeof dose> = {},
    where: Partial<typeof on> = {},
  ) => doubleProgression({ ...dose, ...change }, range, sessionsDone, { ...on, ownedKg: owned, ...where });

  it('takes the next owned weight with repetitions back at the bottom', () => {
    expect(progress([done(), done()], [10, 5, 7.5])).toMatchObject({ kind: 'load', addedKg: 7.5, reps: 8 });
  });

  it('waits until the days at this level have passed', () => {
    expect(progress([done(), done()], [7.5], {}, { daysAtLevel: 6 })).toMatchObject({ kind: 'keep' });
    expect(progress([done(), done()], [7.5], {}, { daysAtLevel: 4, minDaysAtLevel: 4 }).kind).toBe('load');
    expect(minDaysAtLevel({ tags: ['calf-load'] })).toBe(7);
    expect(minDaysAtLevel({ tags: ['barefoot'] })).toBe(4);
  });

  it.each([
    [70, 19, 'load'],
    [70, 20, 'load'],
    [70, 20.1, 'sets'],
    [0, 6, 'load'],
    [0, 6.1, 'sets'],
  ])('with %d kg of body share and 5 kg, the next weight of %d kg is: %s', (bodyShareKg, kg, kind) => {
    const wide = { ...range, addedKg: [0, 60] as const };
    const out = doubleProgression(dose, wide, [done(), done()], { ...on, ownedKg: [kg], bodyShareKg });
    expect(out.kind).toBe(kind);
  });

  it('lets repetitions grow first when the next owned weight is too large, and asks for smaller steps under a caution', () => {
    const few = [done({ repsDone: 8 }), done({ repsDone: 8 })];
    const out = progress(few, [20], { reps: 8, addedKg: 4 }, { bodyShareKg: 0 });
    expect(out).toMatchObject({ kind: 'reps', reps: 10 });
    expect(out.because).toContain('20 kg');
    expect(progress([done(), done()], [15], {}, { loadStepPercent: 10 }).kind).toBe('sets');
    expect(progress([done(), done()], [12], {}, { loadStepPercent: 10 }).kind).toBe('load');
  });

  it('adds a set when no step is owned, then a harder exercise', () => {
    expect(progress([done(), done()], [5])).toMatchObject({ kind: 'sets', sets: 4 });
    expect(progress([done({ setsDone: 4 }), done({ setsDone: 4 })], [], { sets: 4 })).toMatchObject({
      kind: 'harder',
    });
  });

  it('counts the body mass that the exercise puts on a side', () => {
    const load = { legs: 1 as const, footPitchDeg: 0 };
    const of = (change: object) =>
      bodyShareKg({ tags: ['weight-bearing'], load: null, laterality: 'together', ...change }, 80);
    expect(of({ load })).toBe(80);
    expect(of({ load: { ...load, legs: 2 } })).toBe(40);
    expect(of({})).toBe(40);
    expect(of({ laterality: 'per-side' })).toBe(80);
    expect(of({ tags: [] })).toBe(0);
  });

  it.each([{ effort: 8 }, { state: 'amber' as const }, { setsDone: 2 }, { repsDone: 11 }])(
    'keeps after %p',
    (change) => {
      expect(progress([done(), done(change)], [10]).kind).toBe('keep');
    },
  );

  it('keeps after a single session', () => {
    expect(progress([done()], [10]).kind).toBe('keep');
  });

  it.each([
    [5, 3],
    [4, 2],
    [3, 2],
    [2, 1],
  ])('eases %d sets to %d', (sets, to) =>
    expect(easeDose({ ...dose, sets })).toMatchObject({ kind: 'sets', sets: to }),
  );
  it('eases one set to the easier exercise, or a fifth less weight', () => {
    expect(easeDose({ ...dose, sets: 1 })).toMatchObject({ kind: 'easier', addedKg: 4 });
    expect(easeDose({ ...dose, sets: 1, addedKg: undefined })).toMatchObject({
      kind: 'easier',
      addedKg: null,
    });
  });
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
