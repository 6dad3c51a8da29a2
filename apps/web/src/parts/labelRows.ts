/** A label on a line: where it begins, how wide it is, in the units of the drawing. */
export interface Label {
  readonly at: number;
  readonly width: number;
}

/** Where a label goes: row 0 is the one nearest the line; `at` is moved left where it would run over the end. */
export interface Placed {
  readonly row: number;
  readonly at: number;
}

/**
 * Labels that begin from left to right, each in the lowest row where it touches none after it, nor the line led down from
 * one, and none beyond the end. It is the earlier one that goes up, so that the line from where it begins crosses none.
 */
export function labelRows(labels: readonly Label[], end: number): readonly Placed[] {
  const taken: number[] = [];
  return labels
    .toReversed()
    .map(({ at, width }) => {
      const from = Math.max(0, Math.min(at, end - width));
      const free = taken.findIndex((_, r) => taken.slice(r).every((left) => from + width <= left));
      const row = free === -1 ? taken.length : free;
      taken[row] = from;
      return { row, at: from };
    })
    .toReversed();
}
