import fc from 'fast-check';
import { exercise } from '../testing/exercises.js';
import { addDays, daysBetween } from '../quantity/day.js';
import { catchUps, type CatchUpOn } from './catchUp.js';
import { isDueOn, secondsOn, weekdayOf } from './due.js';
import { prescribe } from './prescribe.js';
import { prescriptionTime } from './timing.js';
import type { WeekItem } from './week.js';

// A Monday.
const MONDAY = '2026-03-16';
const day = (n: number) => addDays(MONDAY, n);

const of = (key: string, days: readonly number[], over: Parameters<typeof exercise>[0] = {}): WeekItem => {
  const definition = exercise({ key, name: key, ...over });
  const item = prescribe(definition, {
    slot: 's',
    sideRule: 'treated',
    affected: 'left',
    dose: { daysPerWeek: days.length },
  });
  return { item: { ...item, days: [...days] }, definition };
};
const light = (key: string, days: readonly number[]) => of(key, days, { tags: [] });
const heavy = (key: string, days: readonly number[]) => of(key, days, { tags: ['calf-load', 'heavy-load'] });
const run = (key: string, days: readonly number[]) =>
  of(key, days, { tags: ['impact', 'calf-load'], position: 'walking and running' });

const on = (over: Partial<CatchUpOn> = {}): CatchUpOn => ({
  done: [],
  today: day(1),
  since: day(-30),
  lastState: 'green',
  ...over,
});
const keys = (items: readonly WeekItem[], over: Partial<CatchUpOn> = {}) =>
  catchUps(items, on(over)).map((c) => c.exercise);

describe('something missed', () => {
  it('is done on the next day, and says from when it is', () =>
    expect(catchUps([light('a', [0, 3])], on())).toEqual([{ exercise: 'a', from: MONDAY }]));

  it.each([
    ['it is due today anyway', [light('a', [0, 1])], {}],
    ['it was done on its day', [light('a', [0, 3])], { done: [{ exercise: 'a', day: MONDAY }] }],
    [
      'it was caught up already',
      [light('a', [0, 3])],
      { today: day(2), done: [{ exercise: 'a', day: day(1) }] },
    ],
    ['it was due before the plan was given', [light('a', [0, 3])], { since: day(1) }],
    ['it is four days ago', [light('a', [0])], { today: day(4) }],
    ['the last session was amber', [light('a', [0, 3])], { lastState: 'amber' }],
    ['the last session was red', [light('a', [0, 3])], { lastState: 'red' }],
    ['it is not known how the last one was', [light('a', [0, 3])], { lastState: 'not-known' }],
    ['heavy work is due tomorrow', [heavy('a', [0, 2, 4])], {}],
    [
      'heavy work was done yesterday',
      [heavy('a', [0, 3])],
      { done: [{ exercise: 'a', day: day(-1) }], today: MONDAY },
    ],
  ] as const)('is let go where %s', (_why, items, over) => expect(keys(items, over)).toEqual([]));

  it('is not put beside a run, where it is heavy calf work', () => {
    const items = [heavy('heavy', [0, 4]), run('run', [1, 5])];
    expect(keys(items)).toEqual([]);
    expect(keys([heavy('heavy', [0, 4]), run('run', [2, 5])])).toEqual(['heavy']);
  });

  it('is done as far as the longest day has room, the most important first', () => {
    const five = [light('a', [0, 3]), light('b', [0, 3]), light('c', [1, 4])];
    // Monday takes two, Tuesday one: one more fits.
    expect(keys(five)).toEqual(['a']);
  });

  it('never makes a day longer than the longest of the plan, nor loads twice within 48 hours', () => {
    const days = fc.uniqueArray(fc.integer({ min: 0, max: 6 }), { minLength: 1, maxLength: 4 });
    const item = fc
      .record({ days, kind: fc.constantFrom('light', 'heavy', 'run') })
      .map(({ days: d, kind }) => ({ d: [...d].sort((a, b) => a - b), kind }));
    fc.assert(
      fc.property(fc.array(item, { maxLength: 6 }), fc.integer({ min: 0, max: 13 }), (list, n) => {
        const items = list.map(({ d, kind }, i) =>
          kind === 'light' ? light(`x${i}`, d) : kind === 'heavy' ? heavy(`x${i}`, d) : run(`x${i}`, d),
        );
        const today = day(n);
        const found = catchUps(items, on({ today }));
        const times = items.map(({ item: p, definition }) => {
          const time = prescriptionTime(p, definition);
          return { ...p, daySeconds: time.ok ? time.value.daySeconds : 0 };
        });
        const longest = Math.max(0, ...[0, 1, 2, 3, 4, 5, 6].map((w) => secondsOn(times, w)));
        const more = times
          .filter((t) => found.some((c) => c.exercise === t.exercise))
          .reduce((sum, t) => sum + t.daySeconds, 0);
        expect(secondsOn(times, weekdayOf(today)) + more).toBeLessThanOrEqual(longest + 1e-9);
        for (const c of found) {
          const entry = items.find((i) => i.item.exercise === c.exercise);
          if (entry === undefined) throw new Error('not of the plan');
          expect(isDueOn(entry.item, weekdayOf(today))).toBe(false);
          expect(daysBetween(c.from, today)).toBeLessThanOrEqual(3);
          if (entry.definition.tags.length > 0)
            expect(isDueOn(entry.item, weekdayOf(addDays(today, 1)))).toBe(false);
        }
      }),
    );
  });
});
