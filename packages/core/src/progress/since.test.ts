import fc from 'fast-check';
import { addDays } from '../quantity/day.js';
import type { PainState } from './painRule.js';
import { type LoggedDay, sinceVisit } from './since.js';

const FROM = '2026-03-01';
const on = (n: number): string => addDays(FROM, n);
const day = (n: number, tensionMinutes: number, state: PainState = 'green'): LoggedDay => ({
  day: on(n),
  state,
  tensionMinutes,
});
const since = (sessions: readonly LoggedDay[], pains: readonly number[] = [], today = on(14)) =>
  sinceVisit(
    sessions,
    pains.map((pain, i) => ({ day: on(i + 1), pain })),
    { from: FROM, today },
  );

describe('what happened since a visit', () => {
  it('counts the days done and how each was taken, without the day of the visit and those before', () => {
    const told = since([day(-3, 8, 'red'), day(0, 5), day(1, 5), day(3, 5, 'amber'), day(6, 5, 'not-known')]);
    expect(told).toMatchObject({ days: 14, done: 3 });
    expect(told.states).toEqual({ green: 1, amber: 1, red: 0, stop: 0, 'not-known': 1 });
    expect(told.flares).toEqual([]);
  });

  it('tells of a flare the minutes of its day and the two before, against the other days', () => {
    const told = since(
      [day(1, 6), day(3, 6), day(8, 12), day(9, 12), day(10, 12, 'red'), day(12, 6)],
      [],
      on(13),
    );
    // Days 8 to 10 have 36 minutes; the other ten have 18.
    expect(told.flares).toEqual([{ day: on(10), before: 12, usual: 1.8 }]);
  });

  it('takes a run of red days as one flare from its first day, a stop sign too', () => {
    const told = since([day(2, 5, 'red'), day(3, 5, 'red'), day(4, 5, 'stop'), day(6, 5), day(8, 5, 'stop')]);
    expect(told.flares.map((f) => f.day)).toEqual([on(2), on(8)]);
  });

  it('looks before the visit for the load of a flare right after it, and knows no usual where no other days are', () => {
    const [flare] = since([day(-1, 9), day(0, 9), day(1, 9, 'red')], [], on(1)).flares;
    expect(flare).toEqual({ day: on(1), before: 9, usual: null });
  });

  it('holds the first three mornings against the last three, and says nothing of fewer than six', () => {
    expect(since([], [6, 6, 6, 4, 3, 2, 1]).mornings).toEqual({ then: 6, now: 2 });
    expect(since([], [6, 6, 6, 2, 1]).mornings).toBeNull();
  });

  it('is of nothing logged none, and never more than the days there were', () => {
    expect(since([])).toMatchObject({ done: 0, flares: [], mornings: null });
    const state = fc.constantFrom<PainState>('green', 'amber', 'red', 'stop', 'not-known');
    const log = fc.uniqueArray(
      fc.record({ n: fc.integer({ min: -9, max: 20 }), minutes: fc.integer({ min: 0, max: 40 }), state }),
      { selector: (s) => s.n },
    );
    fc.assert(
      fc.property(log, (list) => {
        const told = since(list.map((s) => day(s.n, s.minutes, s.state)));
        expect(told.done).toBeLessThanOrEqual(14);
        expect(Object.values(told.states).reduce((a, b) => a + b, 0)).toBe(told.done);
        expect(told.flares.length).toBeLessThanOrEqual(told.states.red + told.states.stop);
        for (const f of told.flares) expect(f.before).toBeGreaterThanOrEqual(0);
      }),
    );
  });
});
