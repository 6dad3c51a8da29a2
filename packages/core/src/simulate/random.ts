/** A seeded source of numbers in [0, 1): the same seed gives the same sequence everywhere (mulberry32). */
export function seededRandom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A draw from the normal distribution (Box-Muller) with this mean and standard deviation. */
export function normal(random: () => number, mean: number, sd: number): number {
  const u = Math.max(random(), Number.EPSILON);
  return mean + sd * Math.sqrt(-2 * Math.log(u)) * Math.cos(2 * Math.PI * random());
}
