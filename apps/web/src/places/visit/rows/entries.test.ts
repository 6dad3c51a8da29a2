import { loadContent } from '@heathstep/content';
import { parseQuick, photoValue, PHOTO_CONSTRUCTIONS, type MeasureDefinition } from '@heathstep/core';
import { asEntries, type MeasureEntry } from '@heathstep/contracts';
import { EntryStore } from '../../../api/entryStore.js';
import { SETUPS } from '../../../parts/Setup.js';
import { alignment } from '../photo/align.js';
import { SAMPLES } from '../photo/samples.js';
import { askedText, panelDone, stepText } from '../progress.js';
import { changesOf } from '../QuickLine.js';
import { EMPTY, nextPlace, nextTrial, readEntry, swapSides, withTrial, writeEntry } from './entries.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const { measures } = loaded.content;
const measure = (key: string): MeasureDefinition => {
  const found = measures.find((m) => m.key === key);
  if (found === undefined) throw new Error(key);
  return found;
};
const lunge = measure('lunge-knee-bent');
const taken = (trials: (number | null)[], more: Partial<MeasureEntry> = {}): MeasureEntry => ({
  ...EMPTY,
  trials,
  ...more,
});
let ids = 0;
const makeStore = () =>
  new EntryStore([], {
    send: () => new Promise(() => undefined),
    load: () => [],
    keep: () => undefined,
    newId: () => String((ids += 1)),
    after: () => () => undefined,
  });

describe('trials of an entry', () => {
  it('a trial is put in its place, gaps stay gaps, a cleared last one is gone', () => {
    expect(withTrial(taken([34]), 2, 33).trials).toEqual([34, null, 33]);
    expect(withTrial(taken([34, null, 33]), 2, null).trials).toEqual([34]);
  });

  it('a changed trial is asked about anew', () => {
    expect(withTrial(taken([60], { confirmed: true }), 0, 61)).not.toHaveProperty('confirmed');
  });

  it('what came from a simulated device says so until the last of it is gone', () => {
    const simulated = taken([34, 35], { simulated: true });
    expect(withTrial(simulated, 0, 33)).toMatchObject({ simulated: true });
    expect(withTrial(withTrial(simulated, 1, null), 0, null)).not.toHaveProperty('simulated');
  });

  it('the next value goes to the first gap, and nowhere when all are taken', () => {
    expect(nextTrial(lunge, taken([34, null, 33]))).toBe(1);
    expect(nextTrial(lunge, taken([34, 35, 33]))).toBeNull();
  });

  it.each([
    [false, [], [], 'left', 0],
    [false, [1, 2], [], 'left', 2],
    [false, [1, 2, 3], [], 'right', 0],
    [true, [1], [], 'right', 0],
    [true, [1], [1], 'left', 1],
    [true, [1, 2, 3], [1, 2], 'right', 2],
  ] as const)('alternating %s, left %j, right %j: %s trial %d is next', (alternating, l, r, side, trial) => {
    const entries = { left: taken([...l]), right: taken([...r]), none: EMPTY };
    expect(nextPlace(lunge, (s) => entries[s], ['left', 'right'], alternating)).toEqual({ side, trial });
  });

  it('a side that could not be done is passed over', () => {
    const entries = { left: taken([], { status: 'unable' }), right: EMPTY, none: EMPTY };
    expect(nextPlace(lunge, (s) => entries[s], ['left', 'right'], false)).toEqual({
      side: 'right',
      trial: 0,
    });
  });
});

describe('writing', () => {
  it('an entry that says nothing is cleared, one that says why there is no value is kept', () => {
    const store = makeStore();
    writeEntry(store, lunge, 'left', taken([34]));
    writeEntry(store, lunge, 'left', EMPTY);
    expect(store.get('measure.lunge-knee-bent.left')).toBeNull();
    writeEntry(store, lunge, 'left', taken([], { status: 'unable' }));
    expect(readEntry(store, lunge, 'left').status).toBe('unable');
  });

  it('swapped sides are one change: one undo puts them back', () => {
    const store = makeStore();
    writeEntry(store, lunge, 'left', taken([34], { pain: 2 }));
    writeEntry(store, lunge, 'right', taken([40]));
    swapSides(store, lunge);
    expect(readEntry(store, lunge, 'left').trials).toEqual([40]);
    expect(readEntry(store, lunge, 'right')).toEqual(taken([34], { pain: 2 }));
    store.undo();
    expect(readEntry(store, lunge, 'left')).toEqual(taken([34], { pain: 2 }));
    expect(readEntry(store, lunge, 'right').trials).toEqual([40]);
  });

  it('a quick line changes what it speaks of and leaves the rest', () => {
    const store = makeStore();
    writeEntry(store, lunge, 'left', taken([30], { pain: 4, method: 'goniometer', confirmed: true }));
    const line = parseQuick('lunge l pain 2 r 38 39', measures);
    if (!line.ok) throw new Error(line.problem.message);
    store.setMany(changesOf(line.items, store));
    expect(readEntry(store, lunge, 'left')).toEqual(taken([30], { pain: 2, method: 'goniometer' }));
    expect(readEntry(store, lunge, 'right')).toEqual(taken([38, 39]));
    store.undo();
    expect(readEntry(store, lunge, 'left').pain).toBe(4);
    expect(store.get('measure.lunge-knee-bent.right')).toBeNull();
  });
});

describe('what others saved', () => {
  const theirs = (value: unknown, version = 1) => ({
    key: 'story.worst',
    version,
    value,
    at: '',
    author: 'Orla',
  });

  it('shows at once where nothing is being changed', () => {
    const store = makeStore();
    store.receive([theirs(5)]);
    expect(store.get('story.worst')).toBe(5);
    expect(store.status).toBe('saved');
  });

  it('stands beside one’s own while that is not saved yet, and an older one is no news', () => {
    const store = makeStore();
    store.receive([theirs(5, 2)]);
    store.receive([theirs(4, 1)]);
    expect(store.get('story.worst')).toBe(5);
    store.set('story.worst', 7);
    store.receive([theirs(6, 3)]);
    expect(store.conflictList).toMatchObject([{ key: 'story.worst', mine: 7, theirs: { value: 6 } }]);
    store.resolve('story.worst', 'theirs');
    expect(store.get('story.worst')).toBe(6);
  });
});

describe('every shipped measure on the bench', () => {
  it.each(measures.filter((m) => m.setup !== null).map((m) => [m.key, m.setup ?? '']))(
    '%s has its setup %s drawn',
    (_key, setup) => {
      expect(SETUPS[setup]).toBeDefined();
    },
  );

  it.each(measures.filter((m) => m.computed === null).map((m) => [m.key]))(
    '%s can be typed by its own name in the quick line',
    (key) => {
      const m = measure(key);
      const value =
        m.levels?.[0]?.word ?? String(Number(((m.usual.min + m.usual.max) / 2).toFixed(m.decimals)));
      const line = `${m.aliases[0] ?? key} ${m.sides === 'each' ? 'l ' : ''}${value}`;
      const result = parseQuick(line, measures);
      expect(result.ok ? result.items[0]?.measure : result.problem.message).toBe(key);
    },
  );
});

describe('the sample pictures', () => {
  it.each(SAMPLES.map((s) => [s.file, s] as const))('%s gives the value it was drawn with', (_file, s) => {
    const result = photoValue(s.construction, s.landmarks, s.side, s.rulerMm);
    expect(result.value).not.toBeNull();
    expect(Math.abs((result.value ?? NaN) - s.truth)).toBeLessThan(0.1);
  });

  it('are five, of different constructions', () => {
    expect(new Set(SAMPLES.map((s) => s.construction)).size).toBe(5);
    expect(SAMPLES.every((s) => PHOTO_CONSTRUCTIONS.some((c) => c.key === s.construction))).toBe(true);
  });
});

describe('before over after', () => {
  it('lays one line on the other by turn, scale and shift', () => {
    const from = { a: { x: 0, y: 0 }, b: { x: 10, y: 0 } };
    const to = { a: { x: 5, y: 5 }, b: { x: 5, y: 25 } };
    const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0] = alignment(from, to, ['a', 'b']) ?? [];
    const move = (x: number, y: number) => [a * x + c * y + e, b * x + d * y + f];
    expect(move(0, 0)).toEqual([5, 5]);
    expect(move(10, 0)[0]).toBeCloseTo(5, 9);
    expect(move(10, 0)[1]).toBeCloseTo(25, 9);
  });

  it('is nothing for a line without length or an end', () => {
    expect(alignment({ a: { x: 1, y: 1 }, b: { x: 1, y: 1 } }, {}, ['a', 'b'])).toBeNull();
    const dot = { a: { x: 1, y: 1 }, b: { x: 1, y: 1 } };
    expect(alignment(dot, { a: { x: 0, y: 0 }, b: { x: 1, y: 0 } }, ['a', 'b'])).toBeNull();
  });
});

describe('how far a step is', () => {
  it.each([
    [0, 0, null, true, 1, 'nothing wanted'],
    [1, 3, null, false, 1 / 3, '1 of 3'],
    [3, 3, null, true, 1, 'all 3'],
    [1, 3, 'too sore', true, 1, 'skipped'],
  ])('%d of %d, skipped %s', (done, of, skipped, isDone, share, text) => {
    expect(stepText(done, of, skipped)).toEqual({ done: isDone, share, text });
  });

  it.each([
    [0, 0, 'as needed'],
    [4, 1, '4 answered'],
  ])('of what is asked by choice, %d answered, nothing holds up', (answered, share, text) => {
    expect(askedText(answered)).toEqual({ done: true, share, text });
  });

  it('support points are looked at when one pose was, on both feet', () => {
    const down = { first: 'down' };
    expect(panelDone('points', asEntries([['look.points.squat.left', down]]))).toBe(false);
    const both = asEntries([
      ['look.points.squat.left', down],
      ['look.points.squat.right', down],
    ]);
    expect(panelDone('points', both)).toBe(true);
    expect(panelDone('callus', asEntries([['look.callus.left', []]]))).toBe(true);
  });
});
