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

  it('says what is missing, too old or could not be taken', () => {
    expect(evaluate(raises).parts[0]).toMatchObject({
      state: 'not-known',
      because: 'Single-leg heel raise, left: not measured yet',
    });
    expect(evaluate(raises, { measures: [take(R, 'left', 20, '2026-03-22')] }).parts[0]?.because).toContain(
      '29 days ago, too old',
    );
    expect(evaluate(raises, { measures: [take(R, 'left', 20, '2026-03-23')] }).state).toBe('met');
    expect(
      evaluate(raises, { measures: [take(R, 'left', 20, '2026-04-10'), take(R, 'left', null)] }).parts[0]
        ?.because,
    ).toContain('could not be taken');
    expect(evaluate({ measure: 'no-such', side: 'left', op: '>', value: 1 }).state).toBe('not-known');
  });

  it('asks each side when both are affected', () => {
    const both = { affected: 'both' as const, measures: [take(R, 'left', 20), take(R, 'right', 10)] };
    expect(evaluate(raises, both).state).toBe('not-met');
    expect(evaluate(raises, { ...both, measures: [take(R, 'left', 20)] }).state).toBe('not-known');
  });

  it('passes without a margin where the error is not known', () => {
    expect(
      evaluate(
        { measure: 'first-step-pain', side: 'treated', op: '<=', value: 3 },
        { measures: [take('first-step-pain', 'left', 3)] },
      ).state,
    ).toBe('met');
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
    expect(evaluate({ noRed: 3 }, { sessions: sessions(['green', 'amber', 'green']) }).state).toBe('met');
    expect(evaluate({ noRed: 3 }, { sessions: sessions(['green', 'not-known', 'green']) }).state).toBe(
      'not-known',
    );
    expect(evaluate({ noRed: 3 }, { sessions: sessions(['red', 'green', 'green']) }).state).toBe('not-met');
    expect(evaluate({ noRed: 3 }, { sessions: sessions(['red', 'green', 'green', 'green']) }).state).toBe(
      'met',
    );
    expect(evaluate({ noRed: 3 }, { sessions: sessions(['stop', 'green']) }).state).toBe('not-met');
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
});
