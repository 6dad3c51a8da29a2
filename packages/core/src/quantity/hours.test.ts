import fc from 'fast-check';
import { hoursOn, openDayFrom, withinHours, wrongHours } from './hours.js';

const nine = { from: '09:00', to: '17:30' };
/** Monday to Thursday, and a short Friday. */
const WEEK = [nine, nine, nine, nine, { from: '09:00', to: '12:00' }, null, null];

describe('the hours of a clinic', () => {
  it('hold for each weekday by its own day, and are unknown where none were told', () => {
    // 27 November 2026 is a Friday.
    expect(hoursOn(WEEK, '2026-11-27')).toEqual({ from: '09:00', to: '12:00' });
    expect(hoursOn(WEEK, '2026-11-28')).toBeNull();
    expect(hoursOn([], '2026-11-28')).toBeUndefined();
  });

  it.each([
    ['2026-11-27', '11:30', 30, true],
    ['2026-11-27', '11:31', 30, false],
    ['2026-11-27', '08:59', 30, false],
    ['2026-11-28', '10:00', 30, false],
    ['2026-11-30', '09:00', 510, true],
  ])('hold a visit on %s at %s for %i minutes: %s', (day, time, minutes, inside) => {
    expect(withinHours(WEEK, { day, time, minutes })).toBe(inside);
    expect(withinHours([], { day, time, minutes })).toBe(true);
  });

  it('lead from a closed day to the next open one, and nowhere else', () => {
    expect(openDayFrom(WEEK, '2026-11-28')).toBe('2026-11-30');
    expect(openDayFrom(WEEK, '2026-11-27')).toBe('2026-11-27');
    expect(openDayFrom([], '2026-11-28')).toBe('2026-11-28');
    expect(openDayFrom(Array(7).fill(null), '2026-11-28')).toBe('2026-11-28');
  });

  it('are refused at their day where they are none', () => {
    expect(wrongHours([])).toBeNull();
    expect(wrongHours(WEEK)).toBeNull();
    expect(wrongHours([...WEEK.slice(0, 2), { from: '18:00', to: '08:00' }, ...WEEK.slice(3)])).toBe(2);
    expect(wrongHours([...WEEK.slice(0, 6), { from: '9:00', to: '12:00' }])).toBe(6);
    expect(wrongHours([...WEEK.slice(0, 6), 'all day'])).toBe(6);
    expect(wrongHours(WEEK.slice(0, 5))).toBe(5);
    expect(wrongHours([...WEEK, nine])).toBe(7);
  });

  it('never send a visit to a day that is closed', () => {
    const day = fc.date({ min: new Date('2020-01-01'), max: new Date('2035-01-01'), noInvalidDate: true });
    fc.assert(
      fc.property(day, (d) => {
        const from = d.toISOString().slice(0, 10);
        const open = openDayFrom(WEEK, from);
        expect(hoursOn(WEEK, open)).not.toBeNull();
        expect(open >= from).toBe(true);
      }),
    );
  });
});
