import fc from 'fast-check';
import { exercise } from '../testing/exercises.js';
import { localTime } from '../quantity/day.js';
import { prescribe } from './prescribe.js';
import type { DayPart } from './prescription.js';
import { betterTime, displaced, momentAt, schedule, type ScheduleInput } from './schedule.js';
import type { WeekItem } from './week.js';

const of = (key: string, daysPerWeek: number, over: Parameters<typeof exercise>[0] = {}): WeekItem => {
  const definition = exercise({ key, name: key, ...over });
  return {
    definition,
    item: prescribe(definition, { slot: 's', sideRule: 'treated', affected: 'left', dose: { daysPerWeek } }),
  };
};
// A Monday.
const FROM = '2026-03-16';
const of2 = (over: Partial<ScheduleInput> = {}): ScheduleInput => ({
  items: [of('a', 7)],
  from: FROM,
  days: 7,
  timeZone: 'Europe/Berlin',
  busy: [],
  ...over,
});
const starts = (over: Partial<ScheduleInput> = {}) => schedule(of2(over)).items.map((i) => i.start);

describe('a plan in days', () => {
  it('stands at six in the evening, on its days', () => {
    expect(starts({ days: 2 })).toEqual(['2026-03-16T18:00:00+01:00', '2026-03-17T18:00:00+01:00']);
    expect(schedule(of2({ items: [of('a', 3)], days: 14 })).items.map((i) => i.day.slice(8))).toEqual([
      '16',
      '19',
      '21',
      '23',
      '26',
      '28',
    ]);
  });

  it('stays at its hour when the clocks change, in either zone', () => {
    expect(starts({ from: '2026-03-28', days: 3 })).toEqual([
      '2026-03-28T18:00:00+01:00',
      '2026-03-29T18:00:00+02:00',
      '2026-03-30T18:00:00+02:00',
    ]);
    expect(starts({ from: '2026-10-31', days: 2, timeZone: 'America/New_York' })).toEqual([
      '2026-10-31T18:00:00-04:00',
      '2026-11-01T18:00:00-05:00',
    ]);
    expect(starts({ days: 1, timeZone: 'Asia/Kathmandu' })).toEqual(['2026-03-16T18:00:00+05:45']);
  });

  it('moves as little as it can from what is taken, and says that it did', () => {
    const busy = [{ start: '2026-03-16T17:00:00+01:00', end: '2026-03-16T18:30:00+01:00' }];
    const [monday, tuesday] = schedule(of2({ days: 2, busy })).items;
    expect([monday?.start, monday?.moved]).toEqual(['2026-03-16T18:30:00+01:00', true]);
    expect([tuesday?.start, tuesday?.moved]).toEqual(['2026-03-17T18:00:00+01:00', false]);
  });

  it('puts what is given for a part of the day there, and moves it within that part only', () => {
    const at = (part: DayPart, busy: ScheduleInput['busy'] = []) => {
      const given = of('a', 7);
      const items = [{ ...given, item: { ...given.item, part } }, of('b', 7)];
      const { items: placed, conflicts } = schedule(of2({ items, days: 1, busy, usualTime: '20:00' }));
      return [placed.map((p) => [p.part, p.start.slice(11, 16), p.moved]), conflicts.map((c) => c.because)];
    };
    const usual = [null, '20:00', false];
    expect(at('morning')).toEqual([[['morning', '07:30', false], usual], []]);
    expect(at('midday')).toEqual([[['midday', '12:30', false], usual], []]);
    expect(at('evening')).toEqual([[['evening', '19:30', false], usual], []]);
    const taken = (from: string, to: string) => [
      { start: `2026-03-16T${from}:00+01:00`, end: `2026-03-16T${to}:00+01:00` },
    ];
    expect(at('morning', taken('07:00', '08:00'))[0]).toEqual([['morning', '08:00', true], usual]);
    // The whole morning: it is not pushed into the afternoon.
    expect(at('morning', taken('05:00', '11:30'))).toEqual([[usual], ['morning: no free time']]);
  });

  it('says what does not fit into a day that is full', () => {
    const busy = [{ start: '2026-03-16T05:00:00Z', end: '2026-03-16T22:00:00Z' }];
    const made = schedule(of2({ days: 2, busy }));
    expect(made.items.map((i) => i.day)).toEqual(['2026-03-17']);
    expect(made.conflicts).toEqual([
      { kind: 'busy', days: [FROM], exercises: ['a'], because: 'no free time within waking hours' },
    ]);
  });

  it('leaves what has its own part of the day where it is', () => {
    const items = [of('a', 7), of('b', 7, { when: 'before your first step' })];
    expect(starts({ items, days: 1 })).toEqual(['2026-03-16T07:00:00+01:00', '2026-03-16T18:00:00+01:00']);
    const busy = [{ start: '2026-03-16T06:00:00+01:00', end: '2026-03-16T08:00:00+01:00' }];
    expect(schedule(of2({ items, days: 1, busy })).conflicts[0]?.because).toBe(
      'before your first step: that time is taken',
    );
  });

  it('names by day what the week does against the rules of load', () => {
    const items = [of('run', 7, { tags: ['impact'], position: 'running' })];
    const [conflict] = schedule(of2({ items, days: 3 })).conflicts;
    expect(conflict).toMatchObject({
      kind: 'no-rest-between',
      days: ['2026-03-16', '2026-03-17', '2026-03-18'],
    });
  });

  it('never overlaps, never leaves out a day without saying so, and is the same each time', () => {
    const span = fc
      .tuple(fc.integer({ min: 0, max: 7 * 24 * 60 }), fc.integer({ min: 10, max: 900 }))
      .map(([at, minutes]) => {
        const start = Date.parse(`${FROM}T00:00:00Z`) + at * 60_000;
        return {
          start: new Date(start).toISOString(),
          end: new Date(start + minutes * 60_000).toISOString(),
        };
      });
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 7 }), { minLength: 1, maxLength: 4 }),
        fc.array(span, { maxLength: 8 }),
        (perWeek, busy) => {
          const items = perWeek.map((n, i) => of(`x${i}`, n));
          const made = schedule(of2({ items, busy }));
          expect(schedule(of2({ items, busy }))).toEqual(made);
          const spans = [...made.items, ...busy].map(
            (b) => [Date.parse(b.start), Date.parse(b.end)] as const,
          );
          for (const [i, item] of made.items.entries())
            for (const [j, [from, to]] of spans.entries())
              if (i !== j) expect(to <= Date.parse(item.start) || from >= Date.parse(item.end)).toBe(true);
          const days = perWeek.reduce((sum, n) => sum + n, 0);
          const told = [...made.items, ...made.conflicts.filter((c) => c.kind === 'busy')];
          expect(told.reduce((sum, t) => sum + t.exercises.length, 0)).toBe(days);
        },
      ),
    );
  });
});

describe('the moment of a local time', () => {
  it('is read back as that time in every zone, but for the hour that is skipped', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 730 }),
        fc.integer({ min: 240, max: 1439 }),
        fc.constantFrom('Europe/London', 'America/St_Johns', 'Australia/Lord_Howe', 'Pacific/Apia', 'UTC'),
        (n, minutes, zone) => {
          const day = new Date(Date.UTC(2026, 0, 1) + n * 86_400_000).toISOString().slice(0, 10);
          const two = (x: number) => String(Math.floor(x)).padStart(2, '0');
          expect(localTime(momentAt(day, minutes, zone), zone)).toBe(
            `${day}T${two(minutes / 60)}:${two(minutes % 60)}:00`,
          );
        },
      ),
    );
    expect(localTime(momentAt('2026-03-29', 150, 'Europe/Berlin'), 'Europe/Berlin')).toBe(
      '2026-03-29T03:30:00',
    );
  });
});

describe('a time of day of one’s own', () => {
  const evening = (day: string) => ({ start: `${day}T17:30:00+01:00`, end: `${day}T19:00:00+01:00` });

  it('is where sittings stand, also outside the hours they may move within', () => {
    expect(starts({ days: 1, usualTime: '06:15' })).toEqual(['2026-03-16T06:15:00+01:00']);
    expect(schedule(of2({ days: 1, usualTime: '06:15' })).items[0]?.moved).toBe(false);
  });

  it('is offered where fewer are taken, the nearest to the usual one', () => {
    const busy = [evening('2026-03-16'), evening('2026-03-17')];
    expect(betterTime(of2({ busy }))).toBe('17:15');
    expect(betterTime(of2({ busy: [] }))).toBeNull();
    expect(betterTime(of2({ busy, usualTime: '12:00' }))).toBeNull();
  });

  it('tells what moves for what is taken, not what stands after another sitting of the day', () => {
    const items = [of('a', 7), of('b', 3)];
    expect(displaced(of2({ items, busy: [] }))).toEqual({ moved: [], full: [] });
    const { moved } = displaced(of2({ items, busy: [evening('2026-03-17')] }));
    expect(moved.map((m) => m.day)).toEqual(['2026-03-17']);
  });

  it('is not offered where none does better', () => {
    const busy = Array.from({ length: 7 }, (_, i) => ({
      start: `2026-03-${16 + i}T00:00:00+01:00`,
      end: `2026-03-${16 + i}T23:59:00+01:00`,
    }));
    expect(betterTime(of2({ busy }))).toBeNull();
  });
});
