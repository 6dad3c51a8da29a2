/** Mornings that follow each other without a gap, by their place among the days that are shown. */
export function painRuns(
  days: readonly string[],
  pain: ReadonlyMap<string, number>,
): readonly (readonly { readonly at: number; readonly pain: number }[])[] {
  const runs: { at: number; pain: number }[][] = [];
  days.forEach((day, at) => {
    const value = pain.get(day);
    if (value === undefined) return;
    const run = runs.at(-1);
    if (run !== undefined && run.at(-1)?.at === at - 1) run.push({ at, pain: value });
    else runs.push([{ at, pain: value }]);
  });
  return runs;
}
