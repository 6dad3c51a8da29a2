import fc from 'fast-check';
import { measure } from '../testing/measures.js';
import { evaluateCriteria } from './criteria.js';
import type { Criterion, Facts } from './criteriaTypes.js';

const NOW = '2026-03-20T10:00:00';
const limp = measure({ key: 'limp', label: 'Limp', direction: 'less', error: { mdc: 0.5, source: '' } });
const total = measure({
  key: 'total',
  label: 'Total',
  direction: 'more',
  sides: 'each',
  error: { mdc: 5.54, source: '' },
});
const lookup = (key: string) => [limp, total].find((m) => m.key === key);

const base: Facts = { measures: [], sessions: [], skills: {}, stageSince: '2026-03-01', affected: 'left' };
const judge = (criterion: Criterion, facts: Partial<Facts> = {}, now = NOW) => {
  const result = evaluateCriteria(criterion, { ...base, ...facts }, now, lookup);
  return [result.state, result.parts[0]?.because];
};
const limits = (
  weightBearing: 'none' | 'partial' | 'full',
  what: 'surgery' | 'cast' | 'fracture' = 'cast',
  day = '2026-02-18',
) => ({
  what,
  day,
  weightBearing,
  partialKg: weightBearing === 'partial' ? 20 : null,
  allowed: [],
  text: 'as told',
  by: 'the surgeon',
});

describe('days since something happened', () => {
  const since = (daysSince: 'injury' | 'cast', min: number): Criterion => ({ daysSince, min });
  it.each([
    ['not known while nobody said', since('cast', 7), {}, 'not-known'],
    ['met on the very day', since('cast', 30), { limits: { left: limits('full') } }, 'met'],
    ['not met the day before', since('cast', 31), { limits: { left: limits('full') } }, 'not-met'],
    ['only the treated side counts', since('cast', 7), { limits: { right: limits('full') } }, 'not-known'],
    [
      'another event is not it',
      since('cast', 7),
      { limits: { left: limits('full', 'surgery') } },
      'not-known',
    ],
    [
      'the later of two sides counts',
      since('cast', 20),
      {
        affected: 'both',
        limits: { left: limits('full', 'cast', '2026-01-01'), right: limits('full', 'cast', '2026-03-10') },
      },
      'not-met',
    ],
    ['an injury by its own day', since('injury', 10), { injuredOn: '2026-03-10' }, 'met'],
    ['no injury', since('injury', 10), { injuredOn: null }, 'not-known'],
  ] as [string, Criterion, Partial<Facts>, string][])('%s', (_name, criterion, facts, state) =>
    expect(judge(criterion, facts)[0]).toBe(state),
  );

  it('counts a leap day', () =>
    expect(judge(since('injury', 2), { injuredOn: '2028-02-28' }, '2028-03-01T08:00:00')[0]).toBe('met'));
});

describe('weight-bearing as it was allowed', () => {
  const full: Criterion = { status: 'weight-bearing', atLeast: 'full' };
  it.each([
    ['silence is no permission', {}, 'not-known'],
    ['partial is not full', { limits: { left: limits('partial') } }, 'not-met'],
    ['full', { limits: { left: limits('full') } }, 'met'],
    ['both treated, one not said', { affected: 'both', limits: { left: limits('full') } }, 'not-known'],
    [
      'both treated, one partial',
      { affected: 'both', limits: { left: limits('full'), right: limits('partial') } },
      'not-met',
    ],
  ] as [string, Partial<Facts>, string][])('%s', (_name, facts, state) =>
    expect(judge(full, facts)[0]).toBe(state),
  );

  it('says who allowed it', () =>
    expect(judge(full, { limits: { left: limits('full') } })[1]).toContain('the surgeon'));
});

describe('no limp', () => {
  const seen = (value: number) => ({
    measures: [{ measure: 'limp', side: 'left' as const, value, at: NOW }],
  });
  it.each([
    ['not seen yet', {}, 'not-known'],
    ['none', seen(0), 'met-within-error'],
    ['slight', seen(1), 'not-met'],
  ] as [string, Partial<Facts>, string][])('%s', (_name, facts, state) =>
    expect(judge({ noLimp: true }, facts)[0]).toBe(state),
  );
});

describe('events with exposure', () => {
  const none: Criterion = { events: 'gave-way', max: 0, days: 28, exposure: { what: 'exposed', min: 8 } };
  const days = (list: readonly (readonly [gave: number, exposed: number])[]) => ({
    sessions: list.map(([gave, exposed], i) => ({
      at: `2026-03-${String(20 - i).padStart(2, '0')}`,
      answers: { 'gave-way': gave, exposed },
    })),
  });
  it.each([
    ['nothing logged', days([]), 'not-known'],
    [
      'none, but hardly exposed',
      days([
        [0, 3],
        [0, 4],
      ]),
      'not-known',
    ],
    [
      'none, exposed eight times',
      days([
        [0, 4],
        [0, 4],
      ]),
      'met',
    ],
    ['one', days([[1, 8]]), 'not-met'],
    ['one, hardly exposed: still not met', days([[1, 0]]), 'not-met'],
  ] as [string, Partial<Facts>, string][])('%s', (_name, facts, state) =>
    expect(judge(none, facts)[0]).toBe(state),
  );

  it('counts yes as one, and nothing outside the days', () => {
    const yes = {
      sessions: [
        { at: '2026-02-01', answers: { 'gave-way': true, exposed: true } },
        ...days([[0, 8]]).sessions,
      ],
    };
    expect(judge(none, yes)[0]).toBe('met');
  });

  it('is never met by logging less', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(2), fc.nat(6)), { maxLength: 20 }), (list) => {
        const order = ['not-met', 'not-known', 'met-within-error', 'met'];
        const whole = judge(none, days(list))[0] ?? '';
        const without = judge(none, days(list.map(([gave]) => [gave, 0] as const)))[0] ?? '';
        expect(order.indexOf(without)).toBeLessThanOrEqual(order.indexOf(whole));
      }),
    );
  });
});

describe('a total that has gained', () => {
  const by10: Criterion = { outcome: 'total', gain: 10 };
  const taken = (...values: readonly number[]) => ({
    measures: values.map((value, i) => ({
      measure: 'total',
      side: 'left' as const,
      value,
      at: `2026-03-${String(1 + i * 5).padStart(2, '0')}`,
    })),
  });
  it.each([
    ['never taken', taken(), 'not-known'],
    ['taken once', taken(50), 'not-known'],
    ['less than its important difference', taken(50, 59), 'not-met'],
    ['by just so much: within error', taken(50, 60), 'met-within-error'],
    ['by more than the error on top', taken(50, 64), 'met'],
    ['the newest counts, not the best', taken(50, 70, 55), 'not-met'],
    ['worse', taken(50, 40), 'not-met'],
  ] as [string, Partial<Facts>, string][])('%s', (_name, facts, state) =>
    expect(judge(by10, facts)[0]).toBe(state),
  );
});

describe('impact really done', () => {
  const run: Criterion = { impact: 'run-minutes', min: 60, maxPain: 2 };
  const done = (...list: readonly (readonly [day: string, minutes: number, pain: number | null])[]) => ({
    impactDone: list.map(([day, runMinutes, pain]) => ({ day, contacts: 0, runMinutes, pain })),
  });
  it.each([
    ['nothing', {}, 'not-met'],
    ['too little', done(['2026-03-19', 59, 0]), 'not-met'],
    ['enough in the week', done(['2026-03-15', 30, 1], ['2026-03-19', 30, 2]), 'met'],
    ['a day too old', done(['2026-03-13', 60, 0]), 'not-met'],
    ['too much pain once', done(['2026-03-15', 60, 3], ['2026-03-19', 60, 0]), 'not-met'],
    ['pain not told', done(['2026-03-19', 60, null]), 'not-known'],
  ] as [string, Partial<Facts>, string][])('%s', (_name, facts, state) =>
    expect(judge(run, facts)[0]).toBe(state),
  );
});
