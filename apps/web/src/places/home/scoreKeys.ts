/** The highest score of a scale from 0. */
export const MOST = 10;

/**
 * The score that a pressed key goes to from the one `at`, keys standing in rows of `row`: arrows step and stay within the
 * scale, a digit goes to its score, a nought typed on the one to ten. Null for any other key.
 */
export function scoreAt(key: string, at: number, row: number): number | null {
  if (/^\d$/.test(key)) return key === '0' && at === 1 ? MOST : Number(key);
  const step = { ArrowRight: 1, ArrowDown: row, ArrowLeft: -1, ArrowUp: -row, Home: -MOST, End: MOST }[key];
  return step === undefined ? null : Math.min(MOST, Math.max(0, at + step));
}
