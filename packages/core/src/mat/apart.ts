import type { MatHeader } from '../recording/recording.js';
import { middleOf } from './image.js';

/** How the touched cells fall into feet. */
export type Feet =
  | { readonly kind: 'none' }
  | { readonly kind: 'one'; readonly cells: readonly number[] }
  | {
      readonly kind: 'two';
      readonly first: readonly number[];
      readonly second: readonly number[];
      readonly gap: number;
    }
  /** More than one foot, and no telling where one ends. */
  | { readonly kind: 'overlap' };

/** A foot is no longer and no broader than this, mm, and each of two is at least so long; convention. */
const FOOT = { longest: 330, broadest: 150, shortest: 165, leastCells: 12 } as const;

const NONE: Feet = { kind: 'none' };

/** Length and breadth of cells along the way they lie, mm. */
export function extentOf(
  h: MatHeader,
  cells: readonly number[],
): { long: number; broad: number; along: number } {
  const points = cells.map((c) => middleOf(h, c));
  const n = points.length;
  const mx = points.reduce((s, [x]) => s + x, 0) / n;
  const my = points.reduce((s, [, y]) => s + y, 0) / n;
  let [xx, xy, yy] = [0, 0, 0];
  for (const [x, y] of points) {
    xx += (x - mx) ** 2;
    xy += (x - mx) * (y - my);
    yy += (y - my) ** 2;
  }
  const along = Math.atan2(2 * xy, xx - yy) / 2;
  const [fx, fy] = [Math.cos(along), Math.sin(along)];
  const spread = (ux: number, uy: number): number => {
    const s = points.map(([x, y]) => x * ux + y * uy);
    return Math.max(...s) - Math.min(...s) + h.cellMm;
  };
  return { long: spread(fx, fy), broad: spread(-fy, fx), along };
}

interface Split {
  readonly gap: number;
  readonly first: readonly number[];
  readonly second: readonly number[];
}

/** The widest empty stretch across one way of the mat that leaves something as long as a foot on both sides. */
function splitBy(h: MatHeader, cells: readonly number[], way: 'columns' | 'rows'): Split | null {
  const across = (c: number): number => (way === 'columns' ? c % h.columns : Math.floor(c / h.columns));
  const sorted = [...new Set(cells.map(across))].sort((a, b) => a - b);
  let best: Split | null = null;
  for (let i = 1; i < sorted.length; i += 1) {
    const [low, high] = [sorted[i - 1] as number, sorted[i] as number];
    const gap = high - low - 1;
    if (gap < 1 || gap <= (best?.gap ?? 0)) continue;
    const first = cells.filter((c) => across(c) <= low);
    const second = cells.filter((c) => across(c) >= high);
    if (first.length < FOOT.leastCells || second.length < FOOT.leastCells) continue;
    const lengthOf = (some: readonly number[]): number => {
      const other = some.map((c) => {
        const [x, y] = middleOf(h, c);
        return way === 'columns' ? y : x;
      });
      return Math.max(...other) - Math.min(...other) + h.cellMm;
    };
    if (lengthOf(first) < FOOT.shortest || lengthOf(second) < FOOT.shortest) continue;
    best = { gap, first, second };
  }
  return best;
}

/** Takes touched cells apart into feet, whichever way the mat lies. */
export function apart(h: MatHeader, cells: readonly number[]): Feet {
  if (cells.length < FOOT.leastCells) return NONE;
  const byColumn = splitBy(h, cells, 'columns');
  const byRow = splitBy(h, cells, 'rows');
  const { long, broad } = extentOf(h, cells);
  const fitsOne = long <= FOOT.longest && broad <= FOOT.broadest;
  const split = byColumn !== null && (byRow === null || byColumn.gap >= byRow.gap) ? byColumn : byRow;
  if (split !== null && !(fitsOne && split.gap * h.cellMm < 15 && broad < 130))
    return { kind: 'two', ...split };
  return fitsOne ? { kind: 'one', cells } : { kind: 'overlap' };
}
