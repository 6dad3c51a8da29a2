/** Floating point slack for comparing sums of decimal readings; far below any reading's resolution. */
export const TOLERANCE = 1e-9;

/** Arithmetic mean; null for no values. */
export function mean(values: readonly number[]): number | null {
  if (values.length === 0) return null;
  return values.reduce((sum, v) => sum + v, 0) / values.length;
}

/** Median, halves allowed; null for no values. */
export function median(values: readonly number[]): number | null {
  if (values.length === 0) return null;
  const sorted = [...values].sort((a, b) => a - b);
  const mid = Math.floor(sorted.length / 2);
  const upper = sorted[mid] as number;
  return sorted.length % 2 === 1 ? upper : ((sorted[mid - 1] as number) + upper) / 2;
}

/** Least squares slope of y on x with the sum of squares of x about its mean; null under two distinct x. */
export function leastSquares(
  points: readonly { readonly x: number; readonly y: number }[],
): { slope: number; sxx: number } | null {
  const meanX = mean(points.map((p) => p.x));
  const meanY = mean(points.map((p) => p.y));
  if (meanX === null || meanY === null) return null;
  const sxx = points.reduce((sum, p) => sum + (p.x - meanX) ** 2, 0);
  if (sxx === 0) return null;
  const sxy = points.reduce((sum, p) => sum + (p.x - meanX) * (p.y - meanY), 0);
  return { slope: sxy / sxx, sxx };
}

/** `a >= b` with slack for decimal sums. */
export const atLeast = (a: number, b: number): boolean => a >= b - TOLERANCE;

/** `a > b` with slack for decimal sums. */
export const above = (a: number, b: number): boolean => a > b + TOLERANCE;

/** Rounds for showing only; never used on a stored or compared value. */
export function shown(value: number, decimals = 1): string {
  const fixed = value.toFixed(decimals);
  const text = decimals > 0 ? fixed.replace(/\.?0+$/, '') : fixed;
  return text === '-0' ? '0' : text;
}
