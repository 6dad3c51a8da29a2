import type { Side } from '../quantity/side.js';
import type { MatHeader } from '../recording/recording.js';
import { TOUCHED } from './clean.js';
import { extentOf } from './apart.js';
import { type Image, middleOf, pressureAt } from './image.js';

/** Parts of the sole that are told apart. */
export type Region = 'heel' | 'midfoot' | 'm1' | 'm2' | 'm3' | 'm4' | 'm5' | 'bigToe' | 'toes';

export const REGIONS: readonly Region[] = ['heel', 'midfoot', 'm1', 'm2', 'm3', 'm4', 'm5', 'bigToe', 'toes'];

/** A foot on the mat: how it lies, and which cell belongs to which part of it. */
export interface FootOnMat {
  readonly side: Side;
  /** True where the side was read from the shape of the print, and that was clear. */
  readonly sideByShape: boolean | null;
  /** The back of the heel on the axis of the foot, mm on the mat. */
  readonly heel: readonly [x: number, y: number];
  /** Unit vectors: toward the toes, and outward. */
  readonly forward: readonly [x: number, y: number];
  readonly outward: readonly [x: number, y: number];
  /** From the back of the heel to the front of the print. */
  readonly lengthMm: number;
  /** From the back of the heel to where the toes begin. */
  readonly toLineMm: number;
  /** Inner and outer edge of the ball of the foot, mm outward of the axis. */
  readonly inner: number;
  readonly outer: number;
  /** Cells with the part each belongs to, as its place in REGIONS; a cell on a border stands once for each part, with its share. */
  readonly cells: Int32Array;
  readonly region: Uint8Array;
  readonly share: Float32Array;
  /** Area of the middle third over the whole, without the toes; null where nothing touches. */
  readonly archIndex: number | null;
  readonly areaCm2: number;
}

/**
 * Where the parts lie, as shares: along from the heel to the line of the toes, across from the inner to the outer edge of the
 * ball; convention, after the usual proportions of a sole.
 */
const PARTS = { heel: 0.37, midfoot: 0.77, heads: [0.3, 0.49, 0.65, 0.8], bigToe: 0.31 } as const;

const STEP = 2.5;

interface Axis {
  readonly fx: number;
  readonly fy: number;
  readonly cx: number;
  readonly cy: number;
}

type Point = readonly [x: number, y: number];

const along = (a: Axis, [x, y]: Point): number => (x - a.cx) * a.fx + (y - a.cy) * a.fy;
const across = (a: Axis, [x, y]: Point): number => (x - a.cx) * a.fy - (y - a.cy) * a.fx;

const middle = (points: readonly Point[]): Point => {
  const n = Math.max(1, points.length);
  return [points.reduce((s, [x]) => s + x, 0) / n, points.reduce((s, [, y]) => s + y, 0) / n];
};

/** The axis from the middle of the heel to the middle of the ball; `ahead` tells which end is the front, where that is known. */
function axisOf(h: MatHeader, cells: readonly number[], ahead: Point | null): Axis {
  const points = cells.map((c) => middleOf(h, c));
  const { along: angle } = extentOf(h, cells);
  const [cx, cy] = middle(points);
  let axis: Axis = { fx: Math.cos(angle), fy: Math.sin(angle), cx, cy };
  const turned = ahead === null ? broaderBehind(axis, points) : axis.fx * ahead[0] + axis.fy * ahead[1] < 0;
  if (turned) axis = { ...axis, fx: -axis.fx, fy: -axis.fy };
  for (let i = 0; i < 2; i += 1) {
    const s = points.map((p) => along(axis, p));
    const [low, high] = [Math.min(...s), Math.max(...s)];
    const share = (p: Point): number => (along(axis, p) - low) / (high - low || 1);
    const heel = middle(points.filter((p) => share(p) < 0.22));
    const ball = middle(points.filter((p) => share(p) > 0.62 && share(p) < 0.8));
    const length = Math.hypot(ball[0] - heel[0], ball[1] - heel[1]);
    if (length < 40) break;
    axis = { fx: (ball[0] - heel[0]) / length, fy: (ball[1] - heel[1]) / length, cx: heel[0], cy: heel[1] };
  }
  return axis;
}

/** Whether the broader end, the ball of the foot, lies behind. */
function broaderBehind(axis: Axis, points: readonly Point[]): boolean {
  const s = points.map((p) => along(axis, p));
  const [low, high] = [Math.min(...s), Math.max(...s)];
  const broad = (from: number, to: number): number => {
    const some = points.filter((_, i) => {
      const share = ((s[i] as number) - low) / (high - low || 1);
      return share >= from && share < to;
    });
    const v = some.map((p) => across(axis, p));
    return some.length === 0 ? 0 : Math.max(...v) - Math.min(...v);
  };
  return broad(0.6, 0.85) < broad(0.15, 0.4);
}

/** The print laid along its axis, finely: pressures by step along and across. */
interface Laid {
  readonly values: Float32Array;
  readonly long: number;
  readonly broad: number;
  readonly back: number;
  readonly left: number;
}

/**
 * A cell that the edge of the foot runs through reads part of the pressure inside. Where a place reads less than this share of
 * the highest cell beside it, it lies outside the edge. Convention, set on prints of known outline.
 */
const EDGE = 0.25;

function highestNear(h: MatHeader, image: Image): Float32Array {
  const out = new Float32Array(image.length);
  for (let i = 0; i < image.length; i += 1) {
    const [c, r] = [i % h.columns, Math.floor(i / h.columns)];
    let most = 0;
    for (let dr = -1; dr <= 1; dr += 1)
      for (let dc = -1; dc <= 1; dc += 1) {
        const [x, y] = [c + dc, r + dr];
        if (x >= 0 && y >= 0 && x < h.columns && y < h.rows)
          most = Math.max(most, image[y * h.columns + x] as number);
      }
    out[i] = most;
  }
  return out;
}

function laid(h: MatHeader, image: Image, cells: readonly number[], axis: Axis): Laid {
  const only = new Float32Array(image.length);
  for (const c of cells) only[c] = image[c] as number;
  const points = cells.map((c) => middleOf(h, c));
  const s = points.map((p) => along(axis, p));
  const v = points.map((p) => across(axis, p));
  const back = Math.min(...s) - h.cellMm;
  // Steps lie the same on both sides of the axis, so that a mirror image reads the same.
  const left = Math.floor((Math.min(...v) - h.cellMm) / STEP) * STEP;
  const long = Math.ceil((Math.max(...s) + h.cellMm - back) / STEP);
  const broad = Math.ceil((Math.max(...v) + h.cellMm - left) / STEP);
  const values = new Float32Array(long * broad);
  const near = highestNear(h, only);
  for (let i = 0; i < long; i += 1)
    for (let j = 0; j < broad; j += 1) {
      const [a, b] = [back + i * STEP, left + j * STEP];
      const [x, y] = [axis.cx + axis.fx * a + axis.fy * b, axis.cy + axis.fy * a - axis.fx * b];
      const kpa = pressureAt(h, only, x, y);
      const cell = Math.floor(y / h.cellMm) * h.columns + Math.floor(x / h.cellMm);
      values[i * broad + j] = kpa < EDGE * (near[cell] ?? 0) ? 0 : kpa;
    }
  return { values, long, broad, back, left };
}

/** Touched steps in a row along the print: how many, and the first and last place across, mm. */
function rowOf(p: Laid, i: number): { count: number; from: number; to: number; sum: number } {
  let [count, sum, from, to] = [0, 0, Infinity, -Infinity];
  for (let j = 0; j < p.broad; j += 1) {
    const v = p.values[i * p.broad + j] as number;
    sum += v;
    if (v < TOUCHED) continue;
    count += 1;
    from = Math.min(from, p.left + j * STEP);
    to = Math.max(to, p.left + j * STEP);
  }
  return { count, from, to, sum };
}

/** Where the toes begin: the emptiest line between the ball and them; the front where no toes press. */
function toeLine(rows: readonly { sum: number }[], first: number, last: number): number {
  const n = last - first;
  const [from, to] = [first + Math.round(n * 0.74), first + Math.round(n * 0.92)];
  let best = from;
  for (let i = from; i <= to; i += 1) if ((rows[i]?.sum ?? 0) < (rows[best]?.sum ?? 0)) best = i;
  const beyond = Math.max(...rows.slice(best, last + 1).map((r) => r.sum));
  return beyond > 1.25 * (rows[best]?.sum ?? 0) ? best : last;
}

/** The front of the ball: where the load of a row has all but fallen to that of the line of the toes. */
function ballFront(rows: readonly { sum: number }[], first: number, line: number): number {
  const from = first + Math.round((line - first) * 0.7);
  const peak = Math.max(...rows.slice(from, line + 1).map((r) => r.sum));
  const low = rows[line]?.sum ?? 0;
  let front = line;
  while (front > from && (rows[front - 1]?.sum ?? 0) < low + BALL_FRONT * (peak - low)) front -= 1;
  return front;
}
const BALL_FRONT = 0.15;

/**
 * Which side the print is of, from its shape alone: the arch is open on the inner side, and the ball and toes reach further
 * forward there. Positive: the side across the axis to the right is outward.
 */
function shapeSign(p: Laid, first: number, line: number, last: number): number {
  let [mid, midN] = [0, 0];
  let [cov, covN, meanU, meanV] = [0, 0, 0, 0];
  const each = (from: number, to: number, take: (u: number, v: number, w: number) => void): void => {
    for (let i = from; i <= to; i += 1)
      for (let j = 0; j < p.broad; j += 1) {
        const w = p.values[i * p.broad + j] as number;
        if (w >= TOUCHED) take(i * STEP, p.left + j * STEP, w);
      }
  };
  const n = line - first;
  each(first + Math.round(n * 0.42), first + Math.round(n * 0.68), (_, v) => {
    mid += v;
    midN += 1;
  });
  each(first + Math.round(n * 0.78), last, (u, v) => {
    meanU += u;
    meanV += v;
    covN += 1;
  });
  if (covN === 0) return 0;
  meanU /= covN;
  meanV /= covN;
  each(first + Math.round(n * 0.78), last, (u, v) => {
    cov += (u - meanU) * (v - meanV);
  });
  const slope = cov / covN / 120;
  const hollow = midN === 0 ? 0 : (mid / midN) * Math.min(1, midN / 100);
  return hollow - slope;
}

function archOf(p: Laid, first: number, line: number): { index: number | null; area: number } {
  let [mid, all] = [0, 0];
  for (let i = first; i <= line; i += 1) {
    const share = (i - first) / Math.max(1, line - first);
    const { count } = rowOf(p, i);
    all += count;
    if (share >= 1 / 3 && share < 2 / 3) mid += count;
  }
  return { index: all === 0 ? null : mid / all, area: all };
}

function regionOf(u: number, across01: number, toLine: number): Region {
  if (u > toLine) return across01 < PARTS.bigToe ? 'bigToe' : 'toes';
  const share = u / toLine;
  if (share < PARTS.heel) return 'heel';
  if (share < PARTS.midfoot) return 'midfoot';
  const head = PARTS.heads.findIndex((h) => across01 < h);
  return (['m1', 'm2', 'm3', 'm4', 'm5'] as const)[head < 0 ? 4 : head] ?? 'm5';
}

const SUB = 4;

/** Which parts each cell belongs to: looked at in 16 places of it, so that a border may run through a cell. */
function divided(
  h: MatHeader,
  cells: readonly number[],
  partAt: (point: Point) => number,
): Pick<FootOnMat, 'cells' | 'region' | 'share'> {
  const out: [cell: number, region: number, share: number][] = [];
  for (const c of cells) {
    const [x, y] = middleOf(h, c);
    const seen = new Map<number, number>();
    for (let i = 0; i < SUB; i += 1)
      for (let j = 0; j < SUB; j += 1) {
        const step = h.cellMm / SUB;
        const part = partAt([x + (i - 1.5) * step, y + (j - 1.5) * step]);
        seen.set(part, (seen.get(part) ?? 0) + 1 / SUB ** 2);
      }
    for (const [part, share] of seen) out.push([c, part, share]);
  }
  return {
    cells: Int32Array.from(out, ([c]) => c),
    region: Uint8Array.from(out, ([, r]) => r),
    share: Float32Array.from(out, ([, , s]) => s),
  };
}

export interface FootHints {
  /** The side, where it is known; else it is read from the shape. */
  readonly side: Side | null;
  /** The way the load went, where it went anywhere. */
  readonly ahead: Point | null;
}

/** Lays a foot out from the image of its pressures; null where it is too small or has no length. */
export function footOnMat(
  h: MatHeader,
  image: Image,
  cells: readonly number[],
  hints: FootHints,
): FootOnMat | null {
  if (cells.length < 12) return null;
  const axis = axisOf(h, cells, hints.ahead);
  const p = laid(h, image, cells, axis);
  const rows = Array.from({ length: p.long }, (_, i) => rowOf(p, i));
  const first = rows.findIndex((r) => r.count > 0);
  const last = rows.findLastIndex((r) => r.count > 0);
  if (first < 0 || (last - first) * STEP < 60) return null;
  const line = toeLine(rows, first, last);
  const sign = shapeSign(p, first, line, last);
  // `across` grows to the right of the axis: outward on a right foot.
  const byShape: Side | null = Math.abs(sign) < 0.4 ? null : sign > 0 ? 'right' : 'left';
  const side = hints.side ?? byShape ?? 'right';
  const out = side === 'right' ? 1 : -1;
  const back = p.back + first * STEP;
  const ball = rows
    .slice(first + Math.round((line - first) * PARTS.midfoot), line + 1)
    .filter((r) => r.count > 0);
  const from = Math.min(...ball.map((r) => r.from)) - STEP / 2;
  const to = Math.max(...ball.map((r) => r.to)) + STEP / 2;
  const [inner, outer] = out === 1 ? [from, to] : [-to, -from];
  const toLineMm = (line - first) * STEP;
  const parts = divided(h, cells, (point) => {
    const u = along(axis, point) - back;
    const v = across(axis, point) * out;
    return REGIONS.indexOf(regionOf(u, (v - inner) / (outer - inner || 1), toLineMm));
  });
  const arch = archOf(p, first, ballFront(rows, first, line));
  return {
    side,
    sideByShape: hints.side === null || byShape === null ? null : byShape === hints.side,
    heel: [axis.cx + axis.fx * back, axis.cy + axis.fy * back],
    forward: [axis.fx, axis.fy],
    outward: [axis.fy * out, -axis.fx * out],
    lengthMm: (last - first) * STEP,
    toLineMm,
    inner,
    outer,
    ...parts,
    archIndex: arch.index,
    areaCm2: (rows.reduce((s, r) => s + r.count, 0) * STEP * STEP) / 100,
  };
}
