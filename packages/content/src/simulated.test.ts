import { addDays, isDueOn } from '@heathstep/core';
import {
  addTallies,
  calibrationOf,
  type PersonFamily,
  type SimulatedCourse,
  type SimulatedEpisode,
  simulateEpisode,
  StagePlans,
  tallyOf,
} from '@heathstep/core/simulate';
import { familyProblems, loadFamilies } from './families.js';
import { loadContent } from './load.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const { content } = loaded;
const families = loadFamilies(content);
const library = { exercises: content.exercises, measures: content.measures, ladders: content.ladders };
const FROM = '2026-01-05';

const plans = new Map<string, StagePlans>();
function course(protocol: string, change: Partial<SimulatedCourse> = {}): SimulatedCourse {
  const definition = content.protocols.find((p) => p.key === protocol);
  const family = families.find((f) => f.protocols.includes(protocol));
  if (definition === undefined || family === undefined) throw new Error(protocol);
  const of = plans.get(protocol) ?? new StagePlans(definition, library);
  plans.set(protocol, of);
  return { family, plans: of, seed: 11, weeks: 10, from: FROM, ...change };
}
const live = (protocol: string, change: Partial<SimulatedCourse> = {}): SimulatedEpisode =>
  simulateEpisode(course(protocol, change));

describe('families of made-up people', () => {
  it('say that they are invented, and every protocol has people of exactly one', () => {
    expect(familyProblems(families, content)).toEqual([]);
    expect(families.filter((f) => !f.statement.startsWith('Invented.'))).toEqual([]);
  });

  it.each<[string, (f: PersonFamily) => PersonFamily, string]>([
    [
      'a protocol that is none',
      (f) => ({ ...f, protocols: [...f.protocols, 'nowhere'] }),
      'no protocol nowhere',
    ],
    ['a question nobody asks', (f) => ({ ...f, answers: { mood: { from: 1, to: 2 } } }), 'answers mood'],
    ['a mean out of its bounds', (f) => ({ ...f, pain: { ...f.pain, mean: 99 } }), 'pain has its mean out'],
  ])('are refused with %s', (_, change, said) => {
    const [first, ...rest] = families;
    if (first === undefined) throw new Error('no family');
    expect(familyProblems([change(first), ...rest], content).join('\n')).toContain(said);
  });

  it('are missed where a protocol has nobody, or two kinds of people', () => {
    const [first, second] = families;
    if (first === undefined || second === undefined) throw new Error('no families');
    expect(familyProblems(families.slice(1), content)).toContain(
      `nobody is simulated for ${first.protocols[0]}`,
    );
    const doubled = { ...second, protocols: [...second.protocols, first.protocols[0] ?? ''] };
    expect(familyProblems([first, doubled, ...families.slice(2)], content).join('\n')).toContain(
      'people of two families',
    );
  });
});

describe('made-up people under the rules', () => {
  const everyone = content.protocols.map((p) => p.key);

  it.each(everyone)('%s: nothing that must never be', (protocol) => {
    const e = live(protocol, { seed: 313 });
    expect(e.reviews.filter((r) => r.throughRed)).toEqual([]);
    expect(e.reviews.filter((r) => r.pastStop)).toEqual([]);
    // What is told is what can be told.
    const told = [...e.mornings, ...e.sessions].flatMap((l) => Object.values(l.scores));
    expect(told.filter((v) => typeof v === 'number' && !(Number.isInteger(v) && v >= 0 && v <= 99))).toEqual(
      [],
    );
    for (const m of e.measures) {
      const measure = content.measures.find((d) => d.key === m.measure);
      if (measure === undefined || m.value === null) continue;
      expect([m.measure, m.value >= measure.allowed.min && m.value <= measure.allowed.max]).toEqual([
        m.measure,
        true,
      ]);
    }
    expect(e.truth.healed).toHaveLength(70);
    expect(e.reviews.filter((r) => r.seen).length).toBeGreaterThan(1);
  });

  it('live the same course again by the same seed, and another by another', () => {
    expect(live('plantar-heel-pain')).toEqual(live('plantar-heel-pain'));
    expect(live('plantar-heel-pain', { seed: 12 }).sessions).not.toEqual(live('plantar-heel-pain').sessions);
  });

  it('do nothing at home while a stop is open', () => {
    const family = { ...course('plantar-heel-pain').family, stopsPerThousandDays: 50 };
    const e = simulateEpisode({ ...course('plantar-heel-pain'), family });
    const refused = e.reviews.filter((r) => r.rule === 1).map((r) => r.day);
    expect(refused.length).toBeGreaterThan(0);
    expect(e.sessions.filter((s) => refused.includes(s.day))).toEqual([]);
  });

  it('do not get well where they do not change, and stay where they are by every measure', () => {
    const e = live('achilles-midportion', { twist: { kind: 'unchanging' } });
    expect(new Set(e.truth.healed)).toEqual(new Set([0]));
    expect(Object.values(e.truth.trends).map((t) => new Set(t).size)).toEqual(
      Object.keys(e.truth.trends).map(() => 1),
    );
  });

  it('come along where they can', () => {
    const lived = [21, 22, 23].map((seed) =>
      live('lateral-ankle-sprain', { seed, twist: { kind: 'changing' } }),
    );
    expect(Math.min(...lived.map((e) => e.truth.healed.at(-1) ?? 0))).toBeGreaterThan(0.1);
    expect(Math.max(...lived.map((e) => e.stages.length))).toBeGreaterThan(1);
  });

  it.each([
    ['fixed', (e: SimulatedEpisode) => e.stages.length === 1],
    ['calendar', (e: SimulatedEpisode) => e.reviews.some((r) => r.decision === 'progress')],
  ] as const)('are held against a %s way of deciding', (policy, holds) => {
    expect(holds(live('plantar-heel-pain', { policy, twist: { kind: 'unchanging' } }))).toBe(true);
  });

  it('never go on with the rule of going on left out, and are not referred for a stop with that of stops', () => {
    const without = (rule: number) => live('lateral-ankle-sprain', { without: new Set([rule]) });
    expect(without(4).reviews.filter((r) => r.decision === 'progress')).toEqual([]);
    expect(without(1).reviews.filter((r) => r.rule === 1)).toEqual([]);
  });

  it('are told of less where more is left out', () => {
    const mornings = (missed: number) =>
      [1, 2, 3].reduce((n, seed) => n + live('bunion', { seed, twist: { missed } }).mornings.length, 0);
    expect(mornings(4)).toBeLessThan(mornings(0));
    expect(mornings(0)).toBe(3 * 70);
  });

  it('have a plan on every weekday that falls due', () => {
    const { items } = course('plantar-heel-pain').plans.of(0, 'left');
    expect(items.length).toBeGreaterThan(1);
    expect([0, 1, 2, 3, 4, 5, 6].some((d) => items.some((i) => isDueOn(i, d)))).toBe(true);
  });
});

describe('what came of them', () => {
  const e = live('plantar-heel-pain', { weeks: 16 });
  const tally = tallyOf(e, FROM, 'upkeep');

  it('is counted of days, sessions and decisions', () => {
    expect(tally).toMatchObject({ people: 1, days: 112, throughRed: 0, pastStop: 0 });
    expect(tally.judged).toBe(e.states.length);
    expect(tally.red + tally.amber + tally.notKnown).toBeLessThanOrEqual(tally.judged);
    expect(tally.caught).toBeLessThanOrEqual(tally.catchable);
  });

  it('adds up, whoever comes first', () => {
    const other = tallyOf(live('bunion'), FROM, 'upkeep');
    expect(addTallies([tally, other])).toEqual(addTallies([other, tally]));
    expect(addTallies([tally])).toEqual(tally);
    expect(addTallies([])).toBeNull();
  });

  it('counts a false alarm only of someone who does not change', () => {
    expect(tallyOf(live('bunion', { twist: { kind: 'changing' } }), FROM, 'upkeep').quiet).toBe(0);
    expect(tallyOf(live('bunion', { twist: { kind: 'unchanging' } }), FROM, 'upkeep').quiet).toBeGreaterThan(
      0,
    );
  });

  it('holds forecasts against what came true, each once', () => {
    const rows = calibrationOf(e, FROM, course('plantar-heel-pain').plans.measureOf);
    expect(rows.length).toBeGreaterThan(0);
    for (const r of rows) expect(r.within + r.sooner + r.later).toBe(1);
    expect(Math.min(...rows.map((r) => r.points))).toBe(3);
    expect(addDays(FROM, 0)).toBe(FROM);
  });
});
