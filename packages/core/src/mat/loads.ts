import { newtonPerUnit } from '../recording/collect.js';
import { PER_KPA } from '../recording/recording.js';
import { type CleanMat, TOUCHED } from './clean.js';
import { type FootOnMat, type Region, REGIONS } from './foot.js';
import { middleOf } from './image.js';

/** What a foot carries over time: newton by part, and the middle of its pressure. */
export interface FootLoads {
  readonly foot: FootOnMat;
  /** First frame on the mat; the arrays below begin there. */
  readonly from: number;
  readonly count: number;
  /** Newton by part, frame by frame, parts in the order of REGIONS. */
  readonly parts: Float32Array;
  readonly totals: Float64Array;
  /** Middle of the pressure on the mat, mm; NaN while nothing presses. */
  readonly x: Float64Array;
  readonly y: Float64Array;
  /** The highest pressure in each part at any time, kPa. */
  readonly peak: Readonly<Record<Region, number>>;
  /** Touched cells of each part at any time, cm2. */
  readonly area: Readonly<Record<Region, number>>;
}

const PARTS = REGIONS.length;

const byRegion = (values: Float64Array): Record<Region, number> =>
  Object.fromEntries(REGIONS.map((r, i) => [r, values[i] as number])) as Record<Region, number>;

/** Sums what a foot carries from one frame to another, both included; `factor` makes newton of what the mat tells. */
export function loadsOf(
  m: CleanMat,
  foot: FootOnMat,
  frames: { from: number; to: number },
  factor: number,
): FootLoads {
  const size = m.header.columns * m.header.rows;
  const per = newtonPerUnit(m.header) * factor;
  const count = frames.to - frames.from + 1;
  const { cells, region, share } = foot;
  const where = Array.from(cells, (c) => middleOf(m.header, c));
  const xs = Float64Array.from(where, ([x]) => x);
  const ys = Float64Array.from(where, ([, y]) => y);
  const parts = new Float32Array(count * PARTS);
  const totals = new Float64Array(count);
  const x = new Float64Array(count).fill(Number.NaN);
  const y = new Float64Array(count).fill(Number.NaN);
  const most = new Uint16Array(cells.length);
  for (let n = 0; n < count; n += 1) {
    const base = (frames.from + n) * size;
    let [sum, sx, sy] = [0, 0, 0];
    for (let i = 0; i < cells.length; i += 1) {
      const kpa = m.cells[base + (cells[i] as number)] as number;
      if (kpa === 0) continue;
      if (kpa > (most[i] as number)) most[i] = kpa;
      const v = kpa * (share[i] as number);
      const part = n * PARTS + (region[i] as number);
      parts[part] = (parts[part] as number) + v * per;
      sum += v;
      sx += v * (xs[i] as number);
      sy += v * (ys[i] as number);
    }
    totals[n] = sum * per;
    if (sum > 0) {
      x[n] = sx / sum;
      y[n] = sy / sum;
    }
  }
  const peak = new Float64Array(PARTS);
  const area = new Float64Array(PARTS);
  for (let i = 0; i < cells.length; i += 1) {
    const r = region[i] as number;
    // A border cell speaks for the part that has most of it.
    if ((share[i] as number) >= 0.5)
      peak[r] = Math.max(peak[r] as number, ((most[i] as number) / PER_KPA) * factor);
    if ((most[i] as number) >= TOUCHED)
      area[r] = (area[r] as number) + (share[i] as number) * (m.header.cellMm / 10) ** 2;
  }
  return { foot, from: frames.from, count, parts, totals, x, y, peak: byRegion(peak), area: byRegion(area) };
}

/** What one part, or several together, carry in the n-th frame, newton. */
export function partAt(l: FootLoads, n: number, ...regions: readonly Region[]): number {
  let sum = 0;
  for (const r of regions) sum += l.parts[n * PARTS + REGIONS.indexOf(r)] as number;
  return sum;
}

/** One part, or several together, over all frames. */
export function partOver(l: FootLoads, ...regions: readonly Region[]): Float64Array {
  return Float64Array.from({ length: l.count }, (_, n) => partAt(l, n, ...regions));
}

export const HEADS = ['m1', 'm2', 'm3', 'm4', 'm5'] as const satisfies readonly Region[];

/** Where the middle of the pressure lies in the foot: mm forward of the heel, and outward of the axis. */
export function centreIn(l: FootLoads, n: number): { forward: number; outward: number } {
  const dx = (l.x[n] as number) - l.foot.heel[0];
  const dy = (l.y[n] as number) - l.foot.heel[1];
  return {
    forward: dx * l.foot.forward[0] + dy * l.foot.forward[1],
    outward: dx * l.foot.outward[0] + dy * l.foot.outward[1],
  };
}
