import fc from 'fast-check';
import { LEAST_SHARE, shareOfDay } from './shareOfDay.js';

const each = (minutes: number, daysPerWeek = 7, days?: readonly number[]) => ({
  daySeconds: minutes * 60,
  daysPerWeek,
  ...(days === undefined ? {} : { days }),
});

describe('the day’s minutes of a person with several complaints', () => {
  it('are all there where nothing else is given', () =>
    expect(shareOfDay(20, [])).toEqual({ here: 20, elsewhere: 0 }));

  it.each([
    ['what falls on one day is added up', [each(4), each(8)], { here: 8, elsewhere: 12 }],
    ['the longest day counts', [each(6, 1, [2]), each(5, 1, [4])], { here: 14, elsewhere: 6 }],
    ['days that meet add up', [each(6, 1, [2]), each(5, 2, [2, 4])], { here: 9, elsewhere: 11 }],
    ['a quarter is left, however much the other takes', [each(20)], { here: 5, elsewhere: 20 }],
    ['and where it takes more than there is', [each(35)], { here: 5, elsewhere: 35 }],
  ])('%s', (_what, given, share) => {
    const found = shareOfDay(20, given);
    expect(found.here).toBeCloseTo(share.here, 9);
    expect(found.elsewhere).toBeCloseTo(share.elsewhere, 9);
  });

  it('never grow by something given elsewhere, and never go under their share', () => {
    const time = fc.record({
      daySeconds: fc.integer({ min: 0, max: 3600 }),
      daysPerWeek: fc.integer({ min: 1, max: 7 }),
    });
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 120 }),
        fc.array(time, { maxLength: 8 }),
        time,
        (agreed, given, more) => {
          const before = shareOfDay(agreed, given).here;
          const after = shareOfDay(agreed, [...given, more]).here;
          expect(after).toBeLessThanOrEqual(before);
          expect(after).toBeGreaterThanOrEqual(agreed * LEAST_SHARE);
        },
      ),
    );
  });
});
