/** Edits (insert, delete, replace, swap of neighbours) that turn one word into another. */
function distance(a: string, b: string): number {
  const rows = Array.from({ length: a.length + 1 }, (_, i) =>
    Array.from({ length: b.length + 1 }, (_, j) => (i === 0 ? j : j === 0 ? i : 0)),
  );
  const at = (i: number, j: number): number => rows[i]?.[j] ?? Infinity;
  for (let i = 1; i <= a.length; i += 1) {
    for (let j = 1; j <= b.length; j += 1) {
      const change = at(i - 1, j - 1) + (a[i - 1] === b[j - 1] ? 0 : 1);
      const swapped = i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1];
      const row = rows[i];
      if (row !== undefined)
        row[j] = Math.min(
          at(i - 1, j) + 1,
          at(i, j - 1) + 1,
          change,
          swapped ? at(i - 2, j - 2) + 1 : Infinity,
        );
    }
  }
  return at(a.length, b.length);
}

/** The candidate closest to what was typed, no further than a third of its letters; null when none is close. */
export function nearest(typed: string, candidates: readonly string[]): string | null {
  let best: { word: string; edits: number } | null = null;
  for (const word of candidates) {
    const edits = word.startsWith(typed) ? 0.5 : distance(typed, word);
    if (best === null || edits < best.edits) best = { word, edits };
  }
  if (best === null) return null;
  return best.edits <= Math.max(1, Math.floor(best.word.length / 3)) ? best.word : null;
}
