import fc from 'fast-check';

/** What no one means, and everyone sends once: each in place of any value of a body. */
const NASTY: readonly unknown[] = [
  null,
  '',
  ' ',
  '\u0000',
  'a\u0000b',
  '\ud800',
  'x\udfffy',
  '\u202e drawn backwards',
  'x'.repeat(12_000),
  '"; DROP TABLE person; --',
  '<img src=x onerror=alert(1)>',
  '2024-W01',
  '2026-02-30',
  '2999-01-01',
  '9999-12-31',
  '-000001-01-01',
  '0000-00-00',
  '00000000-0000-0000-0000-000000000000',
  'not-an-id',
  '__proto__',
  'constructor',
  0,
  -0,
  -1,
  0.1,
  1e308,
  -1e308,
  2 ** 31,
  2 ** 53,
  2 ** 63,
  5e-324,
  true,
  false,
  [],
  [null],
  [[]],
  [[[[[[[[]]]]]]]],
  {},
  { __proto__: null },
  { toString: 1, length: -1 },
  { a: { b: { c: { d: {} } } } },
  Array.from({ length: 300 }, (_, i) => i),
];

const deep = (levels: number): unknown => {
  let value: unknown = 1;
  for (let i = 0; i < levels; i += 1) value = i % 2 === 0 ? [value] : { a: value };
  return value;
};

type Path = readonly (string | number)[];

/** Every place in a value, the whole first. */
function placesOf(value: unknown, at: Path = []): Path[] {
  if (typeof value !== 'object' || value === null || at.length > 40) return [at];
  return [
    at,
    ...Object.entries(value).flatMap(([key, inner]) =>
      placesOf(inner, [...at, Array.isArray(value) ? Number(key) : key]),
    ),
  ];
}

/** A copy with one place changed; `undefined` takes it out. */
function changed(value: unknown, at: Path, put: (now: unknown) => unknown): unknown {
  const [key, ...rest] = at;
  if (key === undefined) return put(value);
  if (Array.isArray(value)) {
    const copy = [...(value as unknown[])];
    copy[key as number] = changed(copy[key as number], rest, put);
    return copy;
  }
  const copy = { ...(value as Record<string, unknown>) };
  const next = changed(copy[key], rest, put);
  if (next === undefined) return Object.fromEntries(Object.entries(copy).filter(([k]) => k !== key));
  return { ...copy, [key]: next };
}

/** One thing done to a body that is right. */
type Harm = (body: unknown, place: Path) => unknown;

const HARMS: readonly (readonly [weight: number, harm: fc.Arbitrary<Harm>])[] = [
  [
    12,
    fc.constantFrom(...NASTY).map(
      (value): Harm =>
        (body, at) =>
          changed(body, at, () => value),
    ),
  ],
  [2, fc.constant<Harm>((body, at) => (at.length === 0 ? body : changed(body, at, () => undefined)))],
  [
    2,
    fc.constantFrom('unknown', '__proto__', 'constructor', 'why', 'id', 'a\u0000').map(
      (key): Harm =>
        (body, at) =>
          changed(body, at, (now) =>
            typeof now === 'object' && now !== null && !Array.isArray(now)
              ? { ...now, [key]: 'more' }
              : { [key]: now },
          ),
    ),
  ],
  [
    2,
    fc.constant<Harm>((body, at) =>
      changed(body, at, (now) =>
        Array.isArray(now) ? [...(now as unknown[]), ...(now as unknown[])] : [now, now],
      ),
    ),
  ],
  [
    1,
    fc.constantFrom(50, 3_000).map(
      (levels): Harm =>
        (body, at) =>
          changed(body, at, () => deep(levels)),
    ),
  ],
  [
    2,
    fc
      .oneof(fc.string({ unit: 'binary', maxLength: 60 }), fc.double(), fc.maxSafeInteger(), fc.jsonValue())
      .map(
        (value): Harm =>
          (body, at) =>
            changed(body, at, () => value),
      ),
  ],
];

export interface BadInput {
  /** Index of the request that is harmed. */
  readonly request: number;
  readonly body: unknown;
}

/** Requests whose bodies were right, each with one or two things wrong. */
export const badInputs = (bodies: readonly unknown[]): fc.Arbitrary<BadInput> =>
  fc.nat({ max: bodies.length - 1 }).chain((request) => {
    const harm = fc.oneof(...HARMS.map(([weight, arbitrary]) => ({ weight, arbitrary })));
    return fc.array(fc.tuple(harm, fc.nat({ max: 10_000 })), { minLength: 1, maxLength: 2 }).map((harms) => ({
      request,
      body: harms.reduce<unknown>((body, [does, pick]) => {
        const places = placesOf(body);
        return does(body, places[pick % places.length] ?? []);
      }, bodies[request]),
    }));
  });

/** Parts of an address that name nothing. */
export const BAD_PARTS: readonly string[] = [
  '%00',
  'a%00b',
  '%F0%28',
  '%ED%A0%80',
  '%2e%2e%2f',
  'x'.repeat(3_000),
  '0',
  '-1',
  'null',
  '__proto__',
  '%E2%80%AE',
  "'%20OR%201=1",
  '00000000-0000-0000-0000-000000000000',
  '2147483648',
  '1e308',
];
