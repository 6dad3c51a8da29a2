import fc from 'fast-check';
import { dueDays, isDueOn, weekdayOf, withDayMoved, withDayToggled } from './due.js';

const week = (daysPerWeek: number) =>
  [0, 1, 2, 3, 4, 5, 6].filter((d) => isDueOn({ daysPerWeek: daysPerWeek }, d));

describe('days of the week', () => {
  it.each([1, 2, 3, 4, 5, 6, 7])('gives exactly %d days', (n) => expect(week(n)).toHaveLength(n));

  it('leaves a day between up to 3 days a week, over the turn of the week too', () => {
    for (const n of [2, 3]) {
      const days = week(n);
      days.forEach((d, i) => expect(((days[(i + 1) % n] ?? 0) - d + 7) % 7).toBeGreaterThanOrEqual(2));
    }
  });

  it('counts from Monday', () => {
    expect(weekdayOf('2026-11-23')).toBe(0);
    expect(weekdayOf('2026-11-29')).toBe(6);
  });
});

describe('days put on, taken off and moved', () => {
  const scheduled = fc
    .uniqueArray(fc.integer({ min: 0, max: 6 }), { minLength: 1, maxLength: 7 })
    .map((days) => ({ daysPerWeek: days.length, days: [...days].sort((a, b) => a - b) }));
  const day = fc.integer({ min: 0, max: 6 });

  it('a day is put on beside those that are, and off again', () => {
    const more = withDayToggled({ daysPerWeek: 3 }, 1, [1, 7]);
    expect(more).toEqual({ daysPerWeek: 4, days: [0, 1, 3, 5] });
    expect(more === null ? null : withDayToggled(more, 1, [1, 7])).toEqual({
      daysPerWeek: 3,
      days: [0, 3, 5],
    });
  });

  it('never leaves the days an exercise is done on', () =>
    fc.assert(
      fc.property(scheduled, day, (item, pressed) => {
        const next = withDayToggled(item, pressed, [2, 5]);
        if (next === null) return;
        expect(next.daysPerWeek).toBeGreaterThanOrEqual(2);
        expect(next.daysPerWeek).toBeLessThanOrEqual(5);
        expect(dueDays(next)).toHaveLength(next.daysPerWeek);
      }),
    ));

  it('moving keeps how often, leaves the one day and comes to the other', () =>
    fc.assert(
      fc.property(scheduled, day, day, (item, from, to) => {
        const next = withDayMoved(item, from, to);
        const can = item.days.includes(from) && !item.days.includes(to);
        expect(next !== null).toBe(can);
        if (next === null) return;
        expect(next.daysPerWeek).toBe(item.daysPerWeek);
        expect([isDueOn(next, from), isDueOn(next, to)]).toEqual([false, true]);
        expect(withDayMoved(next, to, from)).toEqual(item);
      }),
    ));

  it('moves a day of a dose whose days were never chosen', () =>
    expect(withDayMoved({ daysPerWeek: 3 }, 0, 1)).toEqual({ daysPerWeek: 3, days: [1, 3, 5] }));
});
