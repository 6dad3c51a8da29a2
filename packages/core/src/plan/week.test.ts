import fc from 'fast-check';
import { exercise } from '../testing/exercises.js';
import { prescribe } from './prescribe.js';
import type { DayPart } from './prescription.js';
import { dueDays } from './due.js';
import { arrangeWeek, sittingsOf, weekConflicts, type WeekItem } from './week.js';

const on = (daysPerWeek: number, over: Parameters<typeof exercise>[0] = {}): WeekItem => {
  const definition = exercise(over);
  const item = prescribe(definition, {
    slot: 's',
    sideRule: 'treated',
    affected: 'left',
    dose: { daysPerWeek },
  });
  return { item, definition };
};
const heavy = { key: 'heavy', name: 'Heavy', tags: ['calf-load', 'heavy-load'] as const };
const hop = { key: 'hop', name: 'Hop', tags: ['impact', 'calf-load'] as const };
const run = {
  key: 'run',
  name: 'Run',
  tags: ['impact', 'calf-load'] as const,
  position: 'walking and running',
};

describe('the days of a week', () => {
  it.each([
    [1, [0]],
    [2, [0, 4]],
    [3, [0, 3, 5]],
    [7, [0, 1, 2, 3, 4, 5, 6]],
  ])('%d a week', (daysPerWeek, days) => expect(dueDays({ daysPerWeek })).toEqual(days));

  it('are those chosen, as long as they are as many', () => {
    expect(dueDays({ daysPerWeek: 2, days: [6, 2] })).toEqual([2, 6]);
    expect(dueDays({ daysPerWeek: 3, days: [6, 2] })).toEqual([0, 3, 5]);
    expect(dueDays({ daysPerWeek: 2, days: [2, 9] })).toEqual([0, 4]);
  });

  it('are as many as asked for', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 7 }), (daysPerWeek) =>
        expect(dueDays({ daysPerWeek })).toHaveLength(daysPerWeek),
      ),
    );
  });
});

const inPart = (part: DayPart, entry: WeekItem): WeekItem => ({ ...entry, item: { ...entry.item, part } });

describe('sittings', () => {
  it('keep apart what is given for another part of the day, and an exercise with its own stays there', () => {
    const list = sittingsOf([
      inPart('evening', on(7, { key: 'a', name: 'A' })),
      on(7, { key: 'b', name: 'B' }),
      inPart('evening', on(7, { key: 'c', name: 'C' })),
      inPart('midday', on(7, { key: 'd', name: 'D', when: 'before the first step' })),
    ]);
    expect(list.map((s) => [s.key, s.exercises, s.part, s.when])).toEqual([
      ['evening-0123456', ['A', 'C'], 'evening', null],
      ['usual-0123456', ['B'], null, null],
      ['set-0123456', ['D'], null, 'before the first step'],
    ]);
  });

  it('puts together what shares days and part of the day', () => {
    const list = sittingsOf([
      on(3, { key: 'a', name: 'A' }),
      on(7, { key: 'b', name: 'B' }),
      on(3, { key: 'c', name: 'C' }),
      on(7, { key: 'd', name: 'D', when: 'before the first step' }),
    ]);
    expect(list.map((s) => [s.key, s.exercises, s.when])).toEqual([
      ['usual-035', ['A', 'C'], null],
      ['usual-0123456', ['B'], null],
      ['set-0123456', ['D'], 'before the first step'],
    ]);
    const each = sittingsOf([on(3)])[0]?.seconds ?? 0;
    expect(each).toBeGreaterThan(0);
    expect(list[0]?.seconds).toBe(2 * each);
  });
});

describe('what a week does against the rules of load', () => {
  it.each([
    ['nothing', [on(7)], []],
    ['impact twice a week', [on(2, hop)], []],
    ['impact three a week: two days between each but one', [on(3, hop)], []],
    ['impact on days running', [on(4, hop)], ['no-rest-between']],
    ['Sunday before Monday', [on(7, hop)], ['no-rest-between']],
    ['heavy calf and a run on one day', [on(3, heavy), on(3, run)], ['heavy-and-run']],
    ['heavy calf and hops', [on(3, heavy), on(3, hop)], []],
  ] as [string, WeekItem[], string[]][])('%s', (_name, items, kinds) =>
    expect(weekConflicts(items).map((c) => c.kind)).toEqual(kinds),
  );

  it('names the days and what is on them', () => {
    const [conflict] = weekConflicts([on(3, heavy), on(3, run)]);
    expect(conflict).toEqual({ kind: 'heavy-and-run', days: [0, 3, 5], exercises: ['Heavy', 'Run'] });
  });
});

describe('arranging a week', () => {
  it('moves heavy calf work off the days of a run', () => {
    const list = [on(3, heavy), on(3, run), on(7)];
    const items = arrangeWeek(list);
    expect(items[0]?.days).toEqual([1, 4, 6]);
    expect(items.slice(1).map((i) => i.days)).toEqual([undefined, undefined]);
    expect(weekConflicts(list.map((l, i) => ({ ...l, item: items[i] ?? l.item })))).toEqual([]);
  });

  it('leaves a week alone that is well, and one that cannot be cleared', () => {
    const well = [on(3, heavy), on(7)];
    expect(arrangeWeek(well)).toEqual(well.map((l) => l.item));
    const full = [on(7, heavy), on(3, run)];
    expect(arrangeWeek(full)).toEqual(full.map((l) => l.item));
  });

  it('never changes how often anything is done', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 7 }), fc.integer({ min: 1, max: 7 }), (a, b) => {
        const items = arrangeWeek([on(a, heavy), on(b, run)]);
        expect(items.map((i) => dueDays(i).length)).toEqual([a, b]);
      }),
    );
  });
});
