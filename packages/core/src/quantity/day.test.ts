import fc from 'fast-check';
import { localTime, momentOf } from './day.js';

describe('the moment at which clocks show a time', () => {
  it.each([
    ['2026-01-15T09:00:00', 'Europe/London', '2026-01-15T09:00:00.000Z'],
    ['2026-07-15T09:00:00', 'Europe/London', '2026-07-15T08:00:00.000Z'],
    ['2026-07-15T09:00:00', 'America/New_York', '2026-07-15T13:00:00.000Z'],
    ['2026-01-15T09:00:00', 'Asia/Kathmandu', '2026-01-15T03:15:00.000Z'],
    // Skipped: as long after the skip. Shown twice: the later.
    ['2026-03-29T01:30:00', 'Europe/London', '2026-03-29T01:30:00.000Z'],
    ['2026-10-25T01:30:00', 'Europe/London', '2026-10-25T01:30:00.000Z'],
  ])('%s in %s is %s', (local, zone, moment) => {
    expect(momentOf(local, zone).toISOString()).toBe(moment);
  });

  it('is one at which they show it', () => {
    const zones = ['Europe/Berlin', 'America/St_Johns', 'Pacific/Auckland', 'UTC'] as const;
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 60 * 24 * 365 * 30 }),
        fc.constantFrom(...zones),
        (minutes, zone) => {
          const local = localTime(new Date(Date.UTC(2000, 0, 1) + minutes * 60_000), zone);
          expect(localTime(momentOf(local, zone), zone)).toBe(local);
        },
      ),
    );
  });
});
