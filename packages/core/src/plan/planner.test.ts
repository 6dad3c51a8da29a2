import fc from 'fast-check';
import { type Choice, fillPlaces, type Place, type PlannerLimits, VARIETY } from './planner.js';

/** Every filling there is, looked at one by one. */
function bruteForce(places: readonly Place<Choice>[], limits: PlannerLimits): number | null {
  let best: number | null = null;
  const walk = (at: number, chosen: readonly Choice[]): void => {
    const place = places[at];
    if (place === undefined) {
      const minutes = chosen.reduce((sum, c) => sum + c.minutes, 0);
      const over = Object.entries(limits.most).some(
        ([r, most]) => chosen.reduce((sum, c) => sum + (c.takes[r] ?? 0), 0) > most + 1e-9,
      );
      const twice = new Set(chosen.map((c) => c.exercise)).size < chosen.length;
      if (over || twice || minutes > limits.minutes + 1e-9 || chosen.length > limits.count) return;
      const kinds = new Set(chosen.map((c) => c.kind)).size;
      const value = chosen.reduce((sum, c) => sum + c.value, 0) + kinds * VARIETY;
      if (best === null || value > best) best = value;
      return;
    }
    for (const c of place.choices) walk(at + 1, [...chosen, c]);
    if (!place.must) walk(at + 1, chosen);
  };
  walk(0, []);
  return best;
}

const choice = fc.record({
  exercise: fc.constantFrom('a', 'b', 'c', 'd', 'e', 'f', 'g'),
  value: fc.integer({ min: 0, max: 100 }).map((v) => v / 10),
  minutes: fc.integer({ min: 0, max: 12 }),
  takes: fc.record({ calf: fc.integer({ min: 0, max: 8 }) }),
  kind: fc.constantFrom('skill', 'strength', 'balance'),
});

const instance = fc.record({
  places: fc
    .array(fc.record({ choices: fc.array(choice, { minLength: 1, maxLength: 4 }), must: fc.boolean() }), {
      maxLength: 5,
    })
    .map((list) => list.map((p, i): Place<Choice> => ({ ...p, key: `p${i}`, must: p.must && i < 2 }))),
  limits: fc.record({
    minutes: fc.integer({ min: 0, max: 30 }),
    count: fc.integer({ min: 0, max: 5 }),
    most: fc.oneof(fc.constant({}), fc.record({ calf: fc.integer({ min: 0, max: 20 }) })),
  }),
});

const sum = (list: readonly number[]) => list.reduce((a, b) => a + b, 0);

describe('filling the places of a plan', () => {
  it('is worth as much as the best of all fillings, and null only when there is none', () => {
    fc.assert(
      fc.property(instance, ({ places, limits }) => {
        const filled = fillPlaces(places, limits);
        const best = bruteForce(places, limits);
        if (best === null) expect(filled).toBeNull();
        else expect(filled?.value).toBeCloseTo(best, 6);
      }),
      { numRuns: 400 },
    );
  });

  it('keeps every limit, gives nothing twice, and fills what must be filled', () => {
    fc.assert(
      fc.property(instance, ({ places, limits }) => {
        const filled = fillPlaces(places, limits);
        if (filled === null) return;
        const chosen = [...filled.chosen.values()];
        expect(sum(chosen.map((c) => c.minutes))).toBeLessThanOrEqual(limits.minutes + 1e-9);
        expect(chosen.length).toBeLessThanOrEqual(limits.count);
        expect(new Set(chosen.map((c) => c.exercise)).size).toBe(chosen.length);
        const { calf } = limits.most as { calf?: number };
        if (calf !== undefined)
          expect(sum(chosen.map((c) => c.takes['calf'] ?? 0))).toBeLessThanOrEqual(calf + 1e-9);
        for (const p of places) if (p.must) expect(filled.chosen.has(p.key)).toBe(true);
      }),
    );
  });

  it('says the same each time', () => {
    fc.assert(
      fc.property(instance, ({ places, limits }) => {
        const keys = () =>
          [...(fillPlaces(places, limits)?.chosen ?? [])].map(([k, c]) => `${k} ${c.exercise} ${c.minutes}`);
        expect(keys()).toEqual(keys());
      }),
    );
  });

  it('gives up one long exercise for two short ones that are worth more together', () => {
    const of = (exercise: string, value: number, minutes: number): Choice => ({
      exercise,
      value,
      minutes,
      takes: {},
      kind: 'skill',
    });
    const places: Place<Choice>[] = [
      { key: 'first', choices: [of('long', 9, 10)], must: false },
      { key: 'second', choices: [of('short', 6, 5)], must: false },
      { key: 'third', choices: [of('small', 5, 5)], must: false },
    ];
    const filled = fillPlaces(places, { minutes: 10, count: 5, most: {} });
    expect([...(filled?.chosen.keys() ?? [])].sort()).toEqual(['second', 'third']);
  });

  it('looks at a small part of what there is', () => {
    const places = Array.from({ length: 10 }, (_, p): Place<Choice> => ({
      key: `p${p}`,
      must: false,
      choices: Array.from({ length: 10 }, (_, c) => ({
        exercise: `e${p}-${c}`,
        value: 10 - p * 0.7 - c * 0.3,
        minutes: 2 + ((p * 7 + c * 3) % 9),
        takes: {},
        kind: ['skill', 'strength', 'balance'][(p + c) % 3] ?? 'skill',
      })),
    }));
    const filled = fillPlaces(places, { minutes: 20, count: 5, most: {} });
    expect(filled?.looked).toBeLessThan(50_000);
  });
});
