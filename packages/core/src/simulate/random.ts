// Looked up once: some places that run this make every look at a global dear.
const { cos, imul, log, max, PI, sqrt } = Math;
const LEAST = Number.EPSILON;

/** A seeded source of numbers in [0, 1): the same seed gives the same sequence everywhere (mulberry32). */
export function seededRandom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = imul(state ^ (state >>> 15), 1 | state);
    t = (t + imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A draw from the normal distribution (Box-Muller) with this mean and standard deviation. */
export function normal(random: () => number, mean: number, sd: number): number {
  const u = max(random(), LEAST);
  return mean + sd * sqrt(-2 * log(u)) * cos(2 * PI * random());
}
