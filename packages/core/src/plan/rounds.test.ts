import fc from 'fast-check';
import { NOTHING_SAID } from './safety.js';
import { orThrow } from '../result/result.js';
import { exercise } from '../testing/exercises.js';
import { keepGivable, planProblems } from './check.js';
import { patientPlan } from './patientPlan.js';
import type { Prescription } from './prescription.js';
import { prescribe, withinRange } from './prescribe.js';
import {
  followRound,
  joinNext,
  partNext,
  roundProblems,
  roundSentence,
  stretches,
  tidyRounds,
} from './rounds.js';
import { soonAgain, turnTimeline } from './roundTimeline.js';
import { doseSentence, sentenceText } from './sentence.js';
import { prescriptionTime } from './timing.js';

const NAMES = ['up', 'down', 'in', 'out', 'curl'] as const;
const LIBRARY = NAMES.map((key) => exercise({ key, name: key, ladder: key, rung: 1, variants: [] }));
const of = (key: string) => LIBRARY.find((e) => e.key === key);
const give = (key: string, over: Partial<Prescription> = {}): Prescription => ({
  ...prescribe(of(key) ?? exercise(), { slot: key, sideRule: 'both', affected: 'left' }),
  ...over,
});
const keys = (items: readonly Prescription[]) => items.map((i) => i.exercise);
const NONE = { left: [], right: [] };

/** Three exercises in rounds: up, down, in; then out by itself. */
const series = (): Prescription[] =>
  joinNext(joinNext([give('up'), give('down'), give('in'), give('out')], 0), 1);

describe('exercises done in rounds', () => {
  it('go in turn, a short rest within the round and a longer one between rounds', () => {
    const items = series();
    expect(items.map((i) => i.round?.key ?? null)).toEqual(['a', 'a', 'a', null]);
    expect(items.map((i) => i.restSeconds)).toEqual([15, 15, 60, 60]);
    expect(stretches(items).map(keys)).toEqual([['up', 'down', 'in'], ['out']]);
    expect(roundSentence(items.slice(0, 3))).toBe(
      'In turn, 3 rounds of the next 3: one set of each, both feet in each.',
    );
  });

  it('are said as rounds, not as sets', () => {
    const [up] = series();
    const rise = of('up');
    if (up === undefined || rise === undefined) throw new Error('nothing to say');
    expect(sentenceText(doseSentence(up, rise))).toBe(
      'Left, then right, 3 rounds of 10, 2 s up, 1 s hold, 3 s down, with no weight, rest 15 s, once a day, 3 days a week.',
    );
  });

  it('take set-up once and a rest after every set: 10 s, then 3 times 2 x 60 s and 15 s', () => {
    const [up] = series();
    const rise = of('up');
    if (up === undefined || rise === undefined) throw new Error('nothing to time');
    expect(orThrow(prescriptionTime(up, rise)).exerciseSeconds).toBe(10 + 3 * (120 + 15));
    const through = { ...up, round: { key: 'a', feet: 'through' as const } };
    expect(orThrow(prescriptionTime(through, rise)).exerciseSeconds).toBe(10 + 6 * (60 + 15));
  });

  it('stand on one timeline: left and right of each, then the next', () => {
    const group = series()
      .slice(0, 2)
      .map((item) => ({ item: { ...item, sets: 2 }, exercise: of(item.exercise) ?? exercise() }));
    expect(turnTimeline(group).map((t) => [t.turn, t.side, t.set, t.startSecond, t.endSecond])).toEqual([
      [0, 'left', 1, 10, 70],
      [0, 'right', 1, 70, 130],
      [1, 'left', 1, 155, 215],
      [1, 'right', 1, 215, 275],
      [0, 'left', 2, 290, 350],
      [0, 'right', 2, 350, 410],
      [1, 'left', 2, 425, 485],
      [1, 'right', 2, 485, 545],
    ]);
  });

  it('say what comes again on the same foot sooner than its own shortest rest', () => {
    const group = (least: number) =>
      series()
        .slice(0, 2)
        .map((item) => ({
          item: { ...item, sides: 'left' as const },
          exercise: exercise({
            key: item.exercise,
            name: item.exercise,
            range: { ...exercise().range, restSeconds: [least, 180] },
          }),
        }));
    // up: 60 s; rest 15, down's set-up 10 and 60 s, rest 15: 100 s the first time, 90 s later.
    expect(soonAgain(group(90))).toEqual([]);
    expect(soonAgain(group(180)).map((s) => [s.exercise, s.leastSeconds])).toEqual([
      ['up', 180],
      ['down', 180],
    ]);
    expect(soonAgain(group(180).slice(0, 1))).toHaveLength(1);
  });

  it('go through with one foot first where that is asked for', () => {
    const group = series()
      .slice(0, 2)
      .map((item) => ({
        item: { ...item, sets: 1, round: { key: 'a', feet: 'through' as const } },
        exercise: of(item.exercise) ?? exercise(),
      }));
    expect(turnTimeline(group).map((t) => `${t.turn} ${t.side}`)).toEqual([
      '0 left',
      '1 left',
      '0 right',
      '1 right',
    ]);
  });

  it('share rounds and days: who changes one changes all', () => {
    const before = series();
    const after = before.map((i) =>
      i.exercise === 'in' ? { ...i, sets: 2, days: [1, 4], daysPerWeek: 2 } : i,
    );
    const now = followRound(before, after);
    expect(now.map((i) => [i.sets, i.days ?? null])).toEqual([
      [2, [1, 4]],
      [2, [1, 4]],
      [2, [1, 4]],
      [3, null],
    ]);
  });

  it('are done at one part of the day: who changes it in one changes it in all', () => {
    const before = series();
    const after = before.map((i) => (i.exercise === 'down' ? { ...i, part: 'morning' as const } : i));
    expect(followRound(before, after).map((i) => i.part ?? null)).toEqual([
      'morning',
      'morning',
      'morning',
      null,
    ]);
  });

  it('are parted again, and what is left alone is in no round', () => {
    expect(partNext(series(), 0).map((i) => i.round?.key ?? null)).toEqual([null, 'b', 'b', null]);
    expect(tidyRounds(series().filter((i) => i.exercise !== 'up' && i.exercise !== 'in'))[0]?.round).toBe(
      undefined,
    );
  });

  it('lose no member and no rest when two rounds are joined', () => {
    const two = joinNext(joinNext([give('up'), give('down'), give('in'), give('out')], 0), 2);
    expect(two.map((i) => i.round?.key)).toEqual(['a', 'a', 'b', 'b']);
    expect(joinNext(two, 1).map((i) => i.round?.key)).toEqual(['a', 'a', 'a', 'a']);
  });

  it('are dosed by the fewest rounds, times and days that one of them has', () => {
    const joined = joinNext(
      [give('up', { sets: 4, daysPerWeek: 6 }), give('down', { days: [0, 3], daysPerWeek: 2 })],
      0,
    );
    expect(joined.map((i) => [i.sets, i.daysPerWeek, i.days])).toEqual([
      [3, 2, [0, 3]],
      [3, 2, [0, 3]],
    ]);
  });

  it('do not bind an exercise to its own shortest rest, which binds again when it leaves', () => {
    const rested = exercise({ key: 'up', range: { ...exercise().range, restSeconds: [30, 120] } });
    const library = (key: string) => (key === 'up' ? rested : of(key));
    expect(planProblems(series(), library, NOTHING_SAID)).toEqual([]);
    const { kept } = keepGivable([...series()].slice(0, 1), library, NOTHING_SAID);
    expect(kept.map((i) => [i.round, i.restSeconds])).toEqual([[undefined, 30]]);
    const safe = (i: Prescription) => withinRange(i, library(i.exercise) ?? rested);
    expect(followRound(series(), partNext(series(), 0), safe).map((i) => i.restSeconds)).toEqual([
      30, 15, 60, 60,
    ]);
  });

  it('are refused by the server where they do not hold, each by its field', () => {
    const [up, down, inward] = series();
    if (up === undefined || down === undefined || inward === undefined) throw new Error('no series');
    const paths = (items: readonly Prescription[]) =>
      planProblems(items, of, NOTHING_SAID).map((p) => p.path);
    expect(paths(series())).toEqual([]);
    expect(paths([up])).toEqual(['items.0.round']);
    expect(paths([up, { ...down, restSeconds: 301 }])).toEqual(['items.1.restSeconds']);
    expect(paths([up, give('out'), down])).toEqual(['items.0.round', 'items.2.round']);
    expect(paths([up, { ...down, sets: 2 }])).toEqual(['items.1.sets']);
    expect(paths([up, { ...down, days: [2, 4, 6] }])).toEqual(['items.1.days']);
    expect(roundProblems([up, down].map((i) => ({ ...i, sets: 5 }))).map((p) => p.path)).toEqual([
      'items.0.sets',
      'items.1.sets',
    ]);
    const both = { ...down, sides: 'together' as const, round: { key: 'a', feet: 'through' as const } };
    expect(roundProblems([{ ...up, round: both.round }, both]).map((p) => p.path)).toEqual(['items.1.round']);
  });

  it.each([
    ['worn', { aim: 'aid' as const }],
    ['done at its own part of the day', { when: 'before your first step' }],
    ['walked and run by the clock', { position: 'walking and running', tags: ['impact' as const] }],
  ])('never hold what is %s', (_, over) => {
    const odd = exercise({ key: 'down', variants: [], ...over });
    const library = (key: string) => (key === 'down' ? odd : of(key));
    const told = planProblems(series(), library, NOTHING_SAID).find((p) => p.path === 'items.1.round');
    expect(told?.bound).toBe('left out: this one is done by itself');
  });

  it('never keep a patient in a round with what safety holds back', () => {
    const plan = (held: string) =>
      patientPlan({
        items: series(),
        exerciseOf: (key) => exercise({ ...of(key), tags: key === held ? ['calf-load'] : [] }),
        stage: null,
        schools: {},
        supervised: NONE,
        tagsOff: { left: ['calf-load'], right: [] },
        seenFaults: () => [],
      });
    expect(plan('down').exercises.map((e) => [e.key, e.inTurn !== ''])).toEqual([
      ['up', true],
      ['in', false],
      ['out', false],
    ]);
    expect(plan('down').exercises[0]?.inTurn).toContain('of the next 2');
    const alone = patientPlan({
      items: series().slice(0, 2),
      exerciseOf: (key) => exercise({ ...of(key), tags: key === 'down' ? ['calf-load'] : [] }),
      stage: null,
      schools: {},
      supervised: NONE,
      tagsOff: { left: ['calf-load'], right: [] },
      seenFaults: () => [],
    });
    expect(alone.exercises.map((e) => e.inTurn)).toEqual(['']);
    // Its own shortest rest binds it again: what was short within the round is not short alone.
    const rested = patientPlan({
      items: series().slice(0, 2),
      exerciseOf: (key) =>
        exercise({
          ...of(key),
          tags: key === 'down' ? ['calf-load'] : [],
          range: { ...exercise().range, restSeconds: [45, 180] },
        }),
      stage: null,
      schools: {},
      supervised: NONE,
      tagsOff: { left: ['calf-load'], right: [] },
      seenFaults: () => [],
    });
    expect(rested.exercises.map((e) => e.item.restSeconds)).toEqual([45]);
    expect(alone.exercises[0]?.dose).toContain('3 sets of 10');
  });
});

describe('whatever is joined, parted and removed', () => {
  const plan = fc
    .array(fc.constantFrom(...NAMES), { minLength: 1, maxLength: 5 })
    .map((list) => [...new Set(list)].map((key, i) => give(key, { sets: (i % 3) + 1 })));
  const step = fc.record({ at: fc.nat(4), how: fc.constantFrom('join', 'part', 'remove') });

  it('is a plan that can be given, with every exercise once', () =>
    fc.assert(
      fc.property(plan, fc.array(step, { maxLength: 8 }), (items, steps) => {
        const end = steps.reduce((now, { at, how }) => {
          if (how === 'join') return joinNext(now, at);
          if (how === 'part') return partNext(now, at);
          return followRound(
            now,
            now.filter((_, i) => i !== at),
          );
        }, items);
        expect(planProblems(end, of, NOTHING_SAID)).toEqual([]);
        expect(new Set(keys(end)).size).toBe(end.length);
      }),
    ));

  it('takes on the clock what its minutes say, less the rest after the very last set', () =>
    fc.assert(
      fc.property(plan, fc.constantFrom('each' as const, 'through' as const), (items, feet) => {
        const joined = items
          .reduce((now, _, i) => joinNext(now, i), items)
          .map((i) => ({
            ...i,
            ...(i.round === undefined ? {} : { round: { ...i.round, feet } }),
          }));
        fc.pre(joined.length > 1);
        const group = joined.map((item) => ({ item, exercise: of(item.exercise) ?? exercise() }));
        const said = group.reduce(
          (sum, g) => sum + orThrow(prescriptionTime(g.item, g.exercise)).exerciseSeconds,
          0,
        );
        const end = turnTimeline(group).at(-1)?.endSecond ?? 0;
        expect(end).toBe(said - (joined.at(-1)?.restSeconds ?? 0));
      }),
    ));
});
