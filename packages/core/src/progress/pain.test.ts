import fc from 'fast-check';
import { orThrow } from '../result/result.js';
import { judgePain, morningBaseline, type PainInput } from './painRule.js';
import { adherencePercent, currentRuns, judgeSessions } from './sessions.js';
import { addDays } from '../quantity/day.js';

const calm: PainInput = {
  school: 'next-morning',
  before: 2,
  during: 3,
  after: 2,
  hourAbove: false,
  nextMorning: 3,
  morningBaseline: 3,
  stopSign: null,
};
const stateOf = (change: Partial<PainInput>) => orThrow(judgePain({ ...calm, ...change })).state;

describe('pain rule, next-morning school', () => {
  it.each([
    [{}, 'green'],
    [{ during: 4 }, 'amber'],
    [{ during: 5 }, 'amber'],
    [{ during: 6 }, 'red'],
    [{ after: 6 }, 'red'],
    [{ hourAbove: true }, 'red'],
    [{ nextMorning: 4 }, 'amber'],
    [{ nextMorning: 5 }, 'red'],
    [{ morningBaseline: 2.5, nextMorning: 3 }, 'green'],
    [{ morningBaseline: 2.5, nextMorning: 4 }, 'amber'],
    [{ morningBaseline: 2.5, nextMorning: 5 }, 'red'],
    [{ nextMorning: null }, 'not-known'],
    [{ morningBaseline: null }, 'not-known'],
    [{ nextMorning: null, during: 6 }, 'red'],
    [{ nextMorning: null, during: 5 }, 'not-known'],
    [{ stopSign: 'pause' }, 'green'],
    [{ stopSign: 'review', during: 9 }, 'stop'],
    [{ stopSign: 'emergency' }, 'stop'],
  ] as const)('%p is %s', (change, state) => expect(stateOf(change)).toBe(state));
});

describe('pain rule, comfort school', () => {
  const comfort = {
    school: 'comfort',
    before: 1,
    during: 1,
    after: 1,
    nextMorning: 1,
    morningBaseline: 1,
  } as const;
  it.each([
    [{}, 'green'],
    [{ during: 2 }, 'amber'],
    [{ during: 3 }, 'red'],
    [{ before: 3, during: 3 }, 'amber'],
    [{ before: 3, during: 4 }, 'red'],
    [{ before: 4, during: 4, after: 4 }, 'amber'],
    [{ nextMorning: 2 }, 'amber'],
    [{ nextMorning: 3 }, 'red'],
    [{ hourAbove: true }, 'green'],
    [{ before: 5, during: 2, after: 2 }, 'green'],
  ] as const)('%p is %s', (change, state) => expect(stateOf({ ...comfort, ...change })).toBe(state));

  it('allows relief and range only when it starts at 4 or more', () => {
    expect(orThrow(judgePain({ ...calm, ...comfort, before: 4 })).restOnly).toBe(true);
    expect(orThrow(judgePain({ ...calm, ...comfort, before: 3 })).restOnly).toBe(false);
    expect(orThrow(judgePain({ ...calm, before: 9 })).restOnly).toBe(false);
  });
});

describe('pain rule', () => {
  it('refuses fractions, numbers above 10 and quarter baselines, each by its field', () => {
    const result = judgePain({ ...calm, before: 2.5, during: 11, morningBaseline: 2.25 });
    expect(result.ok ? [] : result.issues.map((i) => i.path)).toEqual([
      'before',
      'during',
      'morningBaseline',
    ]);
  });

  it('is never green without a next morning, and never less severe for more pain', () => {
    const score = fc.integer({ min: 0, max: 10 });
    const rank = { green: 0, 'not-known': 0, amber: 1, red: 2, stop: 3 };
    fc.assert(
      fc.property(
        score,
        score,
        score,
        score,
        fc.constantFrom('comfort' as const, 'next-morning' as const),
        (before, during, after, morning, school) => {
          const input = { ...calm, school, before, during, after, nextMorning: morning, morningBaseline: 3 };
          expect(stateOf({ ...input, nextMorning: null })).not.toBe('green');
          expect(rank[stateOf({ ...input, during: Math.min(10, during + 1) })]).toBeGreaterThanOrEqual(
            rank[stateOf(input)],
          );
        },
      ),
    );
  });
});

describe('morning baseline', () => {
  const from = '2026-03-02';
  const mornings = (...pains: number[]) => pains.map((pain, i) => ({ day: addDays(from, i), pain }));

  it('is null with fewer than 3 mornings', () => {
    expect(morningBaseline(mornings(4, 4), addDays(from, 1), from)).toBeNull();
  });

  it('is the lower of the last seven and the first seven of the stage, halves allowed', () => {
    expect(morningBaseline(mornings(4, 4, 3, 3), addDays(from, 3), from)).toBe(3.5);
    const worse = mornings(2, 2, 2, 2, 2, 2, 2, 6, 6, 6, 6, 6, 6, 6);
    expect(morningBaseline(worse, addDays(from, 13), from)).toBe(2);
    const better = mornings(6, 6, 6, 6, 6, 6, 6, 2, 2, 2, 2, 2, 2, 2);
    expect(morningBaseline(better, addDays(from, 13), from)).toBe(2);
  });

  it('does not look at mornings after the session', () => {
    expect(morningBaseline(mornings(4, 4, 4, 0, 0, 0, 0), addDays(from, 2), from)).toBe(4);
  });
});

describe('sessions in a row', () => {
  it('joins each session to the morning after it', () => {
    const session = { before: 1, during: 2, after: 1, hourAbove: false, stopSign: null };
    const days = ['2026-03-04', '2026-03-05'];
    const mornings = [
      ['2026-03-02', 3],
      ['2026-03-03', 3],
      ['2026-03-04', 3],
      ['2026-03-05', 6],
    ].map(([day, pain]) => ({ day: String(day), pain: Number(pain) }));
    const judged = judgeSessions(
      days.map((day) => ({ ...session, day })),
      mornings,
      'next-morning',
      '2026-03-02',
    );
    expect(judged.map((j) => [j.day, j.nextMorning, j.state])).toEqual([
      ['2026-03-04', 6, 'red'],
      ['2026-03-05', null, 'not-known'],
    ]);
  });

  it('lets not-known neither extend nor break a run', () => {
    expect(currentRuns(['green', 'red', 'not-known', 'red'])).toMatchObject({ reds: 2 });
    expect(currentRuns(['red', 'green', 'not-known'])).toMatchObject({ reds: 0, last: 'green' });
    expect(currentRuns(['amber', 'not-known', 'amber'])).toMatchObject({ twoAmbers: true });
    expect(currentRuns([])).toEqual({ reds: 0, twoAmbers: false, last: null });
  });

  it('counts adherence by days, at most 100 %', () => {
    const days = ['2026-03-03', '2026-03-03', '2026-03-05', '2026-03-07'];
    expect(adherencePercent(days, 7, '2026-03-07', 7)).toBeCloseTo((3 / 7) * 100, 6);
    expect(adherencePercent(days, 2, '2026-03-07', 7)).toBe(100);
    expect(adherencePercent(days, 0, '2026-03-07', 7)).toBeNull();
  });
});
