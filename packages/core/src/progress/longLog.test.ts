import fc from 'fast-check';
import { prescribe } from '../plan/prescribe.js';
import { addDays } from '../quantity/day.js';
import { exercise } from '../testing/exercises.js';
import { homeFacts, type HomeLog } from './homeFacts.js';
import { morningBaseline, morningBaselines } from './painRule.js';
import { impactByDay, impactOfDone, tensionMinutes, workByDay, workDone, workWithin } from './work.js';

const FIRST = '2026-01-01';
const day = fc.nat({ max: 60 }).map((n) => addDays(FIRST, n));

/** As it is defined: the last seven up to the day, and the stage's first seven. */
function usual(
  mornings: readonly { readonly day: string; readonly pain: number }[],
  on: string,
  since: string,
): number | null {
  const known = [...mornings].filter((m) => m.day <= on).sort((a, b) => (a.day < b.day ? -1 : 1));
  const first = known.filter((m) => m.day >= since).slice(0, 7);
  const pains = [...new Set([...known.slice(-7), ...first])].map((m) => m.pain).sort((a, b) => a - b);
  if (pains.length < 3) return null;
  const [low, high] = [pains[(pains.length - 1) >> 1] ?? NaN, pains[pains.length >> 1] ?? NaN];
  return (low + high) / 2;
}

describe('a long log', () => {
  const mornings = fc
    .uniqueArray(fc.record({ day, pain: fc.nat({ max: 10 }) }), { selector: (m) => m.day, maxLength: 40 })
    .map((list) => [...list]);

  it('has the usual morning of each day as it is defined, in whatever order it comes', () =>
    fc.assert(
      fc.property(mornings, day, day, (list, on, since) => {
        expect(morningBaselines(list, since)(on)).toBe(usual(list, on, since));
        expect(morningBaseline([...list].reverse(), on, since)).toBe(usual(list, on, since));
      }),
    ));

  it('knows no usual morning before there were three, and counts one that is in both sevens once', () => {
    const on = (n: number) => ({ day: addDays(FIRST, n), pain: n });
    const three = morningBaselines([on(2), on(0), on(1)], FIRST);
    expect([0, 1, 2, 9].map((n) => three(addDays(FIRST, n)))).toEqual([null, null, 1, 1]);
    expect(morningBaselines([], FIRST)(FIRST)).toBeNull();
    const many = morningBaselines(
      Array.from({ length: 20 }, (_, n) => on(n)),
      addDays(FIRST, 5),
    );
    // 0 to 6 are the last seven; the stage's first, 5 and 6, are among them.
    expect(many(addDays(FIRST, 6))).toBe(3);
    // 13 to 19, and 5 to 11.
    expect(many(addDays(FIRST, 19))).toBe(12);
  });

  const rise = exercise();
  const hop = exercise({ key: 'hop', tags: ['impact', 'weight-bearing'], load: null });
  const rule = { slot: 's', sideRule: 'treated', affected: 'left' } as const;
  const plans = [
    { id: 'one', items: [prescribe(rise, rule), prescribe(hop, rule)] },
    { id: 'two', items: [{ ...prescribe(rise, rule), reps: 15 }] },
    {
      id: 'three',
      items: [
        { ...prescribe(hop, rule), sets: 5 },
        { ...prescribe(rise, rule), reps: 4 },
      ],
    },
  ];
  const definitions = new Map([rise, hop].map((e) => [e.key, e]));
  const logged = fc.array(
    fc.record({
      day,
      planId: fc.constantFrom('one', 'two', 'three', 'gone', null),
      exercises: fc.array(
        fc.record({
          exercise: fc.constantFrom(rise.key, hop.key, 'unheard-of'),
          sets: fc.integer({ min: 1, max: 5 }),
          reps: fc.integer({ min: 1, max: 20 }),
          effort: fc.constant(null),
        }),
        { maxLength: 3 },
      ),
    }),
    { maxLength: 30 },
  );
  const done = (log: Parameters<typeof workDone>[0]) => workDone(log, plans, (key) => definitions.get(key));

  it('counts each exercise by the version it was done by, else the newest that has it', () =>
    fc.assert(
      fc.property(logged, (log) => {
        const expected = log.flatMap(({ planId, exercises }) =>
          exercises.flatMap((e) => {
            const order = [...plans.filter((p) => p.id === planId), ...[...plans].reverse()];
            return order.flatMap((p) => p.items).find((i) => i.exercise === e.exercise) ?? [];
          }),
        );
        expect(done(log).map((w) => w.item)).toEqual(expected);
      }),
    ));

  it('loses nothing by days: landings, minutes of running and time under tension add up to the whole', () =>
    fc.assert(
      fc.property(logged, (log) => {
        const work = done(log);
        const days = [...workByDay(work)];
        expect(days.flatMap(([, list]) => list)).toHaveLength(work.length);
        expect(days.every(([on, list]) => list.every((w) => w.day === on))).toBe(true);
        const sum = (numbers: readonly number[]) => numbers.reduce((a, b) => a + b, 0);
        const impact = impactByDay(work, () => 2);
        expect(sum(impact.map((d) => d.contacts))).toBeCloseTo(impactOfDone(work).contacts, 6);
        expect(impact.map((d) => d.day)).toEqual([...impact.map((d) => d.day)].sort());
        expect(sum(days.map(([, list]) => tensionMinutes(list)))).toBeCloseTo(tensionMinutes(work), 6);
        expect(workWithin(work, addDays(FIRST, 60), 61)).toHaveLength(work.length);
      }),
    ));

  it('is judged day by day the same however its entries are ordered', () => {
    const questions = [
      { key: 'before', role: 'before', ask: 'Before?', name: 'before' },
      { key: 'during', role: 'during', ask: 'During?', name: 'during' },
      { key: 'after', role: 'after', ask: 'After?', name: 'after' },
      { key: 'first-step', role: 'morning', ask: 'Morning?', name: 'first step' },
    ] as unknown as Parameters<typeof homeFacts>[1];
    const score = fc.nat({ max: 10 });
    const log = fc.record({
      mornings: fc.array(fc.record({ day, scores: fc.record({ 'first-step': score }) }), { maxLength: 20 }),
      sessions: fc.array(
        fc.record({ day, scores: fc.record({ before: score, during: score, after: score }) }),
        { maxLength: 20 },
      ),
      stops: fc.array(fc.record({ day, grade: fc.constantFrom('pause', 'review', 'emergency') }), {
        maxLength: 3,
      }),
    });
    fc.assert(
      fc.property(log, (given) => {
        const judge = (l: HomeLog) => homeFacts(l, questions, 'next-morning', FIRST);
        const turned = {
          mornings: [...given.mornings].reverse(),
          sessions: [...given.sessions].reverse(),
          stops: [...given.stops].reverse(),
        };
        const facts = judge(given);
        expect(judge(turned as HomeLog)).toEqual(facts);
        // A day that stopped is never judged as anything milder.
        for (const { day: on, grade } of given.stops)
          if (grade !== 'pause') expect(facts.sessions.find((s) => s.day === on)?.state).toBe('stop');
      }),
    );
  });
});
