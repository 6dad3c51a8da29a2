import fc from 'fast-check';
import { addDays } from '../quantity/day.js';
import { lookup } from '../testing/measures.js';
import { evaluateCriteria } from './criteria.js';
import type { Criterion, CriterionState, Facts, SessionFact } from './criteriaTypes.js';

const NOW = '2026-04-20T09:00:00Z';
const facts: Facts = {
  measures: [],
  sessions: [],
  skills: {},
  stageSince: '2026-04-01T09:00:00Z',
  affected: 'left',
};
const take = (measure: string, side: 'left' | 'right', value: number | null, day = '2026-04-18') => ({
  measure,
  side,
  value,
  at: `${day}T09:00:00Z`,
});
const evaluate = (criteria: Criterion, change: Partial<Facts> = {}) =>
  evaluateCriteria(criteria, { ...facts, ...change }, NOW, lookup);
const raises: Criterion = { measure: 'single-leg-heel-raise', side: 'treated', op: '>=', value: 15 };
const R = 'single-leg-heel-raise';

describe('a measure against its limit', () => {
  it.each([
    [14, 'not-met'],
    [15, 'met-within-error'],
    [16, 'met-within-error'],
    [17, 'met'],
  ] as const)('%d raises against 15, error 1.4: %s', (value, state) => {
    expect(evaluate(raises, { measures: [take(R, 'left', value)] }).state).toBe(state);
  });

  it('counts within error as met at two takes running on different days, not twice on one', () => {
    expect(
      evaluate(raises, { measures: [take(R, 'left', 15, '2026-04-10'), take(R, 'left', 16)] }).state,
    ).toBe('met');
    expect(evaluate(raises, { measures: [take(R, 'left', 15), take(R, 'left', 16)] }).state).toBe(
      'met-within-error',
    );
    expect(
      evaluate(raises, { measures: [take(R, 'left', 12, '2026-04-10'), take(R, 'left', 16)] }).state,
    ).toBe('met-within-error');
  });

  it('says what is missing or too old, and counts unable as the worst value', () => {
    expect(evaluate(raises).parts[0]).toMatchObject({
      state: 'not-known',
      because: 'Single-leg heel raise, left: not measured yet',
    });
    expect(evaluate(raises, { measures: [take(R, 'left', 20, '2026-03-22')] }).parts[0]?.because).toContain(
      '29 days ago, too old',
    );
    expect(evaluate(raises, { measures: [take(R, 'left', 20, '2026-03-23')] }).state).toBe('met');
    expect(
      evaluate(raises, { measures: [take(R, 'left', 20, '2026-04-10'), take(R, 'left', null)] }).parts[0],
    ).toMatchObject({ state: 'not-met', because: 'left unable' });
    const pain: Criterion = { measure: 'first-step-pain', side: 'treated', op: '<=', value: 3 };
    expect(evaluate(pain, { measures: [take('first-step-pain', 'left', null)] }).state).toBe('not-met');
    expect(evaluate({ measure: 'no-such', side: 'left', op: '>', value: 1 }).state).toBe('not-known');
  });

  it('asks each side when both are affected', () => {
    const both = { affected: 'both' as const, measures: [take(R, 'left', 20), take(R, 'right', 10)] };
    expect(evaluate(raises, both).state).toBe('not-met');
    expect(evaluate(raises, { ...both, measures: [take(R, 'left', 20)] }).state).toBe('not-known');
  });

  it('is never certain where the error is not known, until it is seen on two days', () => {
    const pain: Criterion = { measure: 'first-step-pain', side: 'treated', op: '<=', value: 3 };
    const once = evaluate(pain, { measures: [take('first-step-pain', 'left', 0)] });
    expect(once.state).toBe('met-within-error');
    expect(once.parts[0]?.because).toContain('error of the measure is not known');
    const twice = [take('first-step-pain', 'left', 2, '2026-04-10'), take('first-step-pain', 'left', 0)];
    expect(evaluate(pain, { measures: twice }).state).toBe('met');
    expect(evaluate(pain, { measures: [take('first-step-pain', 'left', 4)] }).state).toBe('not-met');
  });

  it('takes the newest by the moment, whatever zone it is written in', () => {
    const at = (value: number, when: string) => ({ measure: R, side: 'left' as const, value, at: when });
    const measures = [at(20, '2026-04-18T23:30:00-05:00'), at(10, '2026-04-19T01:00:00+02:00')];
    expect(evaluate(raises, { measures }).parts[0]?.because).toBe('left 20');
  });
});

describe('sides against each other', () => {
  const symmetry: Criterion = { symmetry: R, min: 90 };

  it.each([
    [17, 20, 'not-met'],
    [18, 20, 'met-within-error'],
    [30, 20, 'met'],
  ] as const)('%d treated, %d other against 90 %%: %s', (left, right, state) => {
    expect(evaluate(symmetry, { measures: [take(R, 'left', left), take(R, 'right', right)] }).state).toBe(
      state,
    );
  });

  it('is not applicable with both sides affected: neutral in all, never met alone', () => {
    const measures = [take(R, 'left', 20), take(R, 'right', 20)];
    expect(evaluate({ all: [raises, symmetry] }, { affected: 'both', measures }).state).toBe('met');
    expect(evaluate(symmetry, { affected: 'both', measures }).state).toBe('not-known');
  });

  it.each([
    [3, 3, 'not-met'],
    [5, 5, 'met-within-error'],
    [4, 4, 'not-met'],
    [30, 20, 'met'],
  ] as const)('with a floor of 5: %d treated, %d other is %s', (left, right, state) => {
    const measures = [take(R, 'left', left), take(R, 'right', right)];
    expect(evaluate({ symmetry: R, min: 90, floor: 5 }, { measures }).state).toBe(state);
  });

  it('lets only the floor count with both sides affected, on each of them', () => {
    const both = (left: number | null, right: number | null) =>
      evaluate(
        { symmetry: R, min: 90, floor: 5 },
        { affected: 'both', measures: [take(R, 'left', left), take(R, 'right', right)] },
      ).state;
    expect(both(20, 9)).toBe('met');
    expect(both(20, 4)).toBe('not-met');
    expect(both(20, null)).toBe('not-met');
  });

  it('counts a side that was unable as nothing at all', () => {
    const measures = [take(R, 'left', null), take(R, 'right', 20)];
    expect(evaluate(symmetry, { measures }).state).toBe('not-met');
    expect(evaluate(symmetry, { measures: [take(R, 'left', 20), take(R, 'right', null)] }).state).toBe(
      'not-known',
    );
  });

  it.each([
    [31, 40, 'not-met'],
    [35, 40, 'met-within-error'],
    [38, 40, 'met'],
    [40, 40, 'met'],
    [49, 40, 'met'],
    [41, 40, 'met'],
  ] as const)('a treated ankle of %d against %d, at most 5 less: %s', (left, right, state) => {
    const measures = [take('lunge-knee-bent', 'left', left), take('lunge-knee-bent', 'right', right)];
    expect(evaluate({ lessThanOther: 'lunge-knee-bent', max: 5 }, { measures }).state).toBe(state);
  });

  it('holds both sides to the absolute twin, and is left out without one', () => {
    const measures = [take('lunge-knee-bent', 'left', 38), take('lunge-knee-bent', 'right', 24)];
    const on = (bothSides?: number | { op: '>='; value: number }) =>
      evaluate({ lessThanOther: 'lunge-knee-bent', max: 5, bothSides }, { affected: 'both', measures });
    expect(on(30).state).toBe('not-met');
    expect(on({ op: '>=', value: 20 }).state).toBe('met');
    expect(on().parts[0]?.state).toBe('not-applicable');
  });

  it('turns round where less is better', () => {
    const at = (left: number, right: number) =>
      evaluate(
        { lessThanOther: 'first-step-pain', max: 2 },
        { measures: [take('first-step-pain', 'left', left), take('first-step-pain', 'right', right)] },
      ).state;
    expect(at(5, 2)).toBe('not-met');
    expect(at(1, 4)).toBe('met');
  });

  it('compares a side difference with its error', () => {
    const within: Criterion = { sideDifference: 'lunge-knee-bent', max: 5 };
    const at = (left: number, right: number) =>
      evaluate(within, {
        measures: [take('lunge-knee-bent', 'left', left), take('lunge-knee-bent', 'right', right)],
      }).state;
    expect(at(30, 39)).toBe('not-met');
    expect(at(35, 40)).toBe('met-within-error');
    expect(at(38, 40)).toBe('met');
  });
});

describe('the home log', () => {
  const days = (...scores: (number | null)[]): SessionFact[] =>
    scores.map((firstStep, i) => ({ at: addDays('2026-04-20', i - scores.length + 1), firstStep }));
  const firstSteps: Criterion = { pain: 'first-step', max: 3, days: 5 };

  it('looks at the last n logged days', () => {
    expect(evaluate(firstSteps, { sessions: days(6, 3, 3, 2, 3, 1) }).state).toBe('met');
    expect(evaluate(firstSteps, { sessions: days(3, 3, 4, 3, 3) }).state).toBe('not-met');
  });

  it('needs them within the last 2n days', () => {
    expect(evaluate(firstSteps, { sessions: days(3, null, 3, null, 3, null, 3, null, 3) }).state).toBe('met');
    expect(
      evaluate(firstSteps, { sessions: days(3, null, null, null, null, null, null, 3, 3, 3, 3) }).state,
    ).toBe('not-known');
  });

  it('does not take an unjudged day for a good one', () => {
    const sessions = (states: SessionFact['state'][]) =>
      states.map((state, i) => ({ at: addDays('2026-04-20', i - states.length + 1), state }));
    const noRed: Criterion = { noRed: { days: 3, atLeast: 3 } };
    const of = (...states: SessionFact['state'][]) => evaluate(noRed, { sessions: sessions(states) }).state;
    expect(of('green', 'amber', 'green')).toBe('met');
    expect(of('green', 'not-known', 'green')).toBe('not-known');
    expect(of('red', 'green', 'green')).toBe('not-met');
    expect(of('red', 'green', 'green', 'green')).toBe('met');
    expect(of('stop', 'green')).toBe('not-met');
    expect(of()).toBe('not-known');
  });

  it('asks for no red in calendar days, so that alternate days are enough', () => {
    const every = (gap: number, n: number, state: SessionFact['state'] = 'green') =>
      Array.from({ length: n }, (_, i): SessionFact => ({ at: addDays('2026-04-20', -gap * i), state }));
    const seven: Criterion = { noRed: { days: 7, atLeast: 3 } };
    expect(evaluate(seven, { sessions: every(2, 4) }).state).toBe('met');
    expect(evaluate(seven, { sessions: every(3, 4) }).state).toBe('met');
    expect(evaluate(seven, { sessions: every(5, 4) }).state).toBe('not-known');
    expect(evaluate({ noRed: 7 }, { sessions: every(2, 4) }).state).toBe('met');
    // An older red does not count, one on the first of the days does.
    const red = (ago: number) => [...every(2, 3), { at: addDays('2026-04-20', -ago), state: 'red' as const }];
    expect(evaluate(seven, { sessions: red(7) }).state).toBe('met');
    expect(evaluate(seven, { sessions: red(6) }).state).toBe('not-met');
  });

  it('reads the worst pain of the day by either name', () => {
    const sessions = [9, 4, 4].map((day, i): SessionFact => ({ at: addDays('2026-04-18', i), day }));
    const at = (pain: 'day' | 'worst-of-day', days: number) =>
      evaluate({ pain, max: 4, days }, { sessions }).state;
    expect(at('worst-of-day', 3)).toBe('not-met');
    expect(at('day', 3)).toBe('not-met');
    expect(at('worst-of-day', 2)).toBe('met');
  });

  it('counts adherence against what was planned', () => {
    const sessions = days(1, 1, 1, 1);
    expect(evaluate({ adherence: { min: 80, days: 7 } }, { sessions, plannedPerWeek: 5 }).state).toBe('met');
    expect(evaluate({ adherence: { min: 80, days: 7 } }, { sessions, plannedPerWeek: 7 }).state).toBe(
      'not-met',
    );
    expect(evaluate({ adherence: { min: 80, days: 7 } }, { sessions }).state).toBe('not-known');
  });
});

describe('what is usual for age and sex', () => {
  const usual: Criterion = { atLeastForAge: R, share: 1 };
  const at = (value: number | null, change: Partial<Facts> = {}) =>
    evaluate(usual, { ageYears: 62, sex: 'female', measures: [take(R, 'left', value)], ...change });

  it.each([
    [62, 'female', 2, 'not-met'],
    [62, 'female', 3, 'met-within-error'],
    [62, 'female', 8, 'met'],
    [62, 'male', 3, 'not-met'],
    [45, 'male', 11, 'not-met'],
    [45, 'male', 14, 'met'],
    [30, 'male', 20, 'not-met'],
  ] as const)('at %d, %s: %d raises are %s', (ageYears, sex, value, state) =>
    expect(at(value, { ageYears, sex }).state).toBe(state),
  );

  it('is certain without a sex only where both medians agree', () => {
    expect(at(8, { sex: null }).state).toBe('met');
    expect(at(2, { sex: null }).state).toBe('not-met');
    expect(at(3, { sex: null })).toMatchObject({ state: 'not-known' });
    expect(at(3, { sex: null }).parts[0]?.because).toContain('by sex, which is not known');
  });

  it('takes a share of it, unable as none, and says what is not known', () => {
    expect(
      evaluate(
        { atLeastForAge: R, share: 0.5 },
        { ageYears: 45, sex: 'male', measures: [take(R, 'left', 8)] },
      ).state,
    ).toBe('met');
    expect(at(null).state).toBe('not-met');
    expect(at(8, { ageYears: null }).parts[0]?.because).toBe('the age is not known');
    expect(at(8, { ageYears: 12 }).parts[0]?.because).toBe('nothing is published for this age');
    expect(at(8, { affected: 'both' }).state).toBe('not-known');
  });
});

describe('skills and days', () => {
  const learned: Criterion = { skill: 'foot-shortening', state: 'learned' };
  it('reads a skill of the treated side', () => {
    expect(evaluate(learned).state).toBe('not-known');
    expect(evaluate(learned, { skills: { 'foot-shortening': 'learned' } }).state).toBe('met');
    expect(
      evaluate(learned, { skills: { 'foot-shortening': { left: 'partial', right: 'learned' } } }).state,
    ).toBe('not-met');
    expect(
      evaluate(learned, { skills: { 'foot-shortening': { left: 'learned', right: 'none' } } }).state,
    ).toBe('met');
  });

  it('counts whole days in the stage', () => {
    expect(evaluate({ minDays: 19 }).state).toBe('met');
    expect(evaluate({ minDays: 20 }).state).toBe('not-met');
  });
});

describe('combining', () => {
  const leaf: Record<CriterionState, Criterion> = {
    met: { minDays: 1 },
    'not-met': { minDays: 100 },
    'not-known': { skill: 'x', state: 'learned' },
    'met-within-error': raises,
  };
  const order: CriterionState[] = ['not-met', 'not-known', 'met-within-error', 'met'];
  const measures = [take(R, 'left', 15)];

  it('takes the lowest for all, the highest for any, the n-th highest for at least n', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...order), { minLength: 1, maxLength: 6 }),
        fc.integer({ min: 1, max: 6 }),
        (states, n) => {
          const parts = states.map((s) => leaf[s]);
          const ranked = states.map((s) => order.indexOf(s)).sort((a, b) => b - a);
          expect(evaluate({ all: parts }, { measures }).state).toBe(
            order[ranked[ranked.length - 1] as number],
          );
          expect(evaluate({ any: parts }, { measures }).state).toBe(order[ranked[0] as number]);
          expect(evaluate({ atLeast: n, of: parts }, { measures }).state).toBe(
            n > states.length ? 'not-met' : order[ranked[n - 1] as number],
          );
          expect(evaluate({ all: parts }, { measures }).parts).toHaveLength(states.length);
        },
      ),
    );
  });

  it('marks as spare what falls short beside another way that is met, and nothing else', () => {
    const spareOf = (criterion: Criterion) =>
      evaluate(criterion, { measures }).parts.map((p) => p.spare === true);
    const { met, 'not-met': short, 'not-known': unknown } = leaf;
    expect(spareOf({ any: [met, short, unknown] })).toEqual([false, true, true]);
    expect(spareOf({ any: [short, unknown] })).toEqual([false, false]);
    expect(spareOf({ all: [met, short] })).toEqual([false, false]);
    expect(spareOf({ all: [{ any: [{ all: [short, unknown] }, met] }, short] })).toEqual([
      true,
      true,
      false,
      false,
    ]);
    expect(spareOf({ atLeast: 2, of: [met, met, unknown] })).toEqual([false, false, true]);
    expect(spareOf({ atLeast: 2, of: [met, short, unknown] })).toEqual([false, false, false]);
  });
});
