import { isDueOn, weekdayOf } from './due.js';

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
