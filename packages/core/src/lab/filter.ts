/**
 * Second order low-pass of Butterworth, run forward and back so that nothing is late (fourth order together). `cutHz` is where
 * the two together halve the power. The ends are led on by their own mirror image.
 */
export function lowPass(values: ArrayLike<number>, rateHz: number, cutHz: number): Float64Array {
  const n = values.length;
  if (n < 4 || cutHz >= rateHz / 2) return Float64Array.from(values);
  // Two passes narrow the band; this widens each so that both together cut where it was asked.
  const wc = Math.tan((Math.PI * cutHz) / rateHz) / (Math.SQRT2 - 1) ** 0.25;
  const k1 = Math.SQRT2 * wc;
  const k2 = wc * wc;
  const a0 = k2 / (1 + k1 + k2);
  const b1 = (2 * (1 - k2)) / (1 + k1 + k2);
  const b2 = (k1 - k2 - 1) / (1 + k1 + k2);
  const pad = Math.min(n - 1, Math.ceil(rateHz / cutHz) * 3);
  const long = new Float64Array(n + 2 * pad);
  const first = values[0] as number;
  const last = values[n - 1] as number;
  for (let i = 0; i < pad; i += 1) {
    long[i] = 2 * first - (values[pad - i] as number);
    long[n + pad + i] = 2 * last - (values[n - 2 - i] as number);
  }
  for (let i = 0; i < n; i += 1) long[pad + i] = values[i] as number;
  const pass = (from: Float64Array): Float64Array => {
    const out = new Float64Array(from.length);
    let [x1, x2] = [from[0] as number, from[0] as number];
    let [y1, y2] = [x1, x1];
    for (let i = 0; i < from.length; i += 1) {
      const x = from[i] as number;
      const y = a0 * (x + 2 * x1 + x2) + b1 * y1 + b2 * y2;
      out[i] = y;
      [x2, x1, y2, y1] = [x1, x, y1, y];
    }
    return out;
  };
  return pass(pass(long).reverse())
    .reverse()
    .slice(pad, pad + n);
}

/** Mean of a stretch of values, both ends included; NaN for none. */
export function meanOf(values: ArrayLike<number>, from = 0, to = values.length - 1): number {
  let sum = 0;
  for (let i = from; i <= to; i += 1) sum += values[i] as number;
  return to < from ? Number.NaN : sum / (to - from + 1);
}

/** Spread about the mean (n - 1); 0 for a single value. */
export function spreadOf(values: readonly number[]): number {
  const m = meanOf(values);
  if (values.length < 2) return 0;
  return Math.sqrt(values.reduce((s, v) => s + (v - m) ** 2, 0) / (values.length - 1));
}
