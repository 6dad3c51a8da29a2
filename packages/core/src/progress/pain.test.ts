import fc from 'fast-check';
import { orThrow } from '../result/result.js';
import { judgePain, morningBaseline, type PainInput, restsToday, stricterSchool } from './painRule.js';
import { adherencePercent, currentRuns, doneByWeek, judgeSessions, redsWithin } from './sessions.js';
import { addDays } from '../quantity/day.js';
import { normal, seededRandom } from '../simulate/random.js';

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
    [{ nextMorning: 4 }, 'green'],
    [{ nextMorning: 5 }, 'amber'],
    [{ nextMorning: 6 }, 'red'],
    [{ morningBaseline: 2.5, nextMorning: 4 }, 'green'],
    [{ morningBaseline: 2.5, nextMorning: 5 }, 'amber'],
    [{ morningBaseline: 2.5, nextMorning: 6 }, 'red'],
    [{ morningBaseline: 8, nextMorning: 8 }, 'green'],
    [{ before: 5 }, 'green'],
    [{ before: 6 }, 'amber'],
    [{ before: 8, nextMorning: 8, morningBaseline: 8 }, 'amber'],
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
    [{ before: 3, during: 3 }, 'green'],
    [{ before: 3, during: 4 }, 'red'],
    [{ before: 4, during: 4, after: 4 }, 'amber'],
    [{ nextMorning: 2 }, 'green'],
    [{ nextMorning: 3 }, 'amber'],
    [{ nextMorning: 4 }, 'red'],
    [{ hourAbove: true }, 'amber'],
    [{ before: 5, during: 2, after: 2 }, 'green'],
  ] as const)('%p is %s', (change, state) => expect(stateOf({ ...comfort, ...change })).toBe(state));

  it.each([
    ['comfort', 3, false],
    ['comfort', 4, true],
    ['next-morning', 5, false],
    ['next-morning', 6, true],
    ['bone', 3, false],
    ['bone', 4, true],
  ] as const)('%s school, %d before starting: relief and range only %s', (school, before, rest) => {
    expect(orThrow(judgePain({ ...calm, ...comfort, school, before })).restOnly).toBe(rest);
    expect(restsToday(school, before)).toBe(rest);
  });
});

describe('pain rule, bone school', () => {
  const bone = {
    school: 'bone',
    before: 0,
    during: 0,
    after: 0,
    nextMorning: 0,
    morningBaseline: 0,
  } as const;
  it.each([
    [{}, 'green'],
    [{ during: 1 }, 'red'],
    [{ after: 1 }, 'red'],
    [{ before: 1, during: 1 }, 'amber'],
    [{ before: 2, during: 1 }, 'amber'],
    [{ before: 3 }, 'green'],
    [{ hourAbove: true }, 'amber'],
    [{ nextMorning: 1 }, 'amber'],
    [{ nextMorning: 2 }, 'red'],
    [{ nextMorning: null }, 'not-known'],
    [{ nextMorning: null, during: 1 }, 'red'],
  ] as const)('%p is %s', (change, state) => expect(stateOf({ ...bone, ...change })).toBe(state));
});

describe('the stricter school', () => {
  it.each([
    ['next-morning', null, 'next-morning'],
    ['next-morning', 'comfort', 'comfort'],
    ['bone', 'comfort', 'bone'],
    ['comfort', 'bone', 'bone'],
  ] as const)('%s with a caution asking for %s is %s', (stage, asked, strict) =>
    expect(stricterSchool(stage, asked)).toBe(strict),
  );
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
        fc.constantFrom('comfort' as const, 'next-morning' as const, 'bone' as const),
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

  it('is the median of the last seven and the first seven of the stage together, halves allowed', () => {
    expect(morningBaseline(mornings(4, 4, 3, 3), addDays(from, 3), from)).toBe(3.5);
    const worse = mornings(2, 2, 2, 2, 2, 2, 2, 6, 6, 6, 6, 6, 6, 6);
    expect(morningBaseline(worse, addDays(from, 13), from)).toBe(4);
    expect(morningBaseline(worse, addDays(from, 10), from)).toBe(2);
  });

  it('counts a morning that is among both once', () => {
    expect(morningBaseline(mornings(1, 1, 5, 5, 5), addDays(from, 4), from)).toBe(5);
  });

  it('takes the last seven answered mornings, however far apart', () => {
    const sparse = [0, 3, 6, 9, 12].map((i) => ({ day: addDays(from, i), pain: 4 }));
    expect(morningBaseline(sparse, addDays(from, 12), addDays(from, 11))).toBe(4);
  });

  it('calls under 3 % of mornings red in people who do not change', () => {
    const random = seededRandom(20261126);
    let red = 0;
    let judged = 0;
    for (let person = 0; person < 120; person++) {
      const level = 2 + (person % 5);
      const pains = Array.from({ length: 56 }, () =>
        Math.min(10, Math.max(0, Math.round(normal(random, level, 1)))),
      );
      const log = mornings(...pains);
      for (let day = 7; day < 55; day++) {
        const state = stateOf({
          before: 2,
          during: 2,
          after: 2,
          nextMorning: pains[day + 1] ?? null,
          morningBaseline: morningBaseline(log, addDays(from, day), from),
        });
        judged += 1;
        if (state === 'red') red += 1;
      }
    }
    expect(judged).toBe(120 * 48);
    expect(red / judged).toBeLessThan(0.03);
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
    expect(currentRuns(['amber', 'not-known', 'amber'])).toMatchObject({ twoAmberOrWorse: true });
    expect(currentRuns([])).toEqual({ reds: 0, twoAmberOrWorse: false, last: null });
  });

  it('never judges red then amber more mildly than amber then amber', () => {
    for (const first of ['amber', 'red', 'stop'] as const)
      expect(currentRuns(['green', first, 'amber'])).toMatchObject({ reds: 0, twoAmberOrWorse: true });
    expect(currentRuns(['red', 'green', 'amber']).twoAmberOrWorse).toBe(false);
  });

  it('counts reds of the last calendar days, stops among them', () => {
    const at = (ago: number, state: 'red' | 'stop' | 'amber') => ({
      day: addDays('2026-03-20', -ago),
      state,
    });
    const log = [at(14, 'red'), at(13, 'red'), at(5, 'stop'), at(4, 'amber'), at(0, 'red')];
    expect(redsWithin(log, '2026-03-20', 14)).toBe(3);
  });

  it('counts adherence by days, at most 100 %', () => {
    const days = ['2026-03-03', '2026-03-03', '2026-03-05', '2026-03-07'];
    expect(adherencePercent(days, 7, '2026-03-07', 7)).toBeCloseTo((3 / 7) * 100, 6);
    expect(adherencePercent(days, 2, '2026-03-07', 7)).toBe(100);
    expect(adherencePercent(days, 0, '2026-03-07', 7)).toBeNull();
  });
});

describe('Done by week', () => {
  const done = (days: readonly string[], since = '2026-01-01') =>
    doneByWeek(days, { end: '2026-03-28', weeks: 3, since });

  it('counts days, not sessions, in weeks that end on a day, the oldest first', () => {
    expect(
      done([
        '2026-03-28',
        '2026-03-28',
        '2026-03-22',
        '2026-03-21',
        '2026-03-15',
        '2026-03-08',
        '2026-03-07',
      ]),
    ).toEqual([1, 2, 2]);
    expect(done([])).toEqual([0, 0, 0]);
  });

  it('tells no week that began before there was a plan', () => {
    expect(done(['2026-03-28', '2026-03-10'], '2026-03-15')).toEqual([0, 1]);
    expect(done(['2026-03-28'], '2026-03-16')).toEqual([1]);
    expect(done(['2026-03-28'], '2026-03-23')).toEqual([]);
  });
});
