import { lowPass, meanOf } from '../lab/filter.js';
import { median } from '../quantity/statistics.js';
import { known, type Quantity, several, single } from '../lab/report.js';
import { centreIn, type FootLoads, HEADS, partAt, partOver } from './loads.js';

type Of = Readonly<Record<string, Quantity>>;

const percent = (part: number, whole: number): number => (whole > 0 ? (100 * part) / whole : Number.NaN);

/** Where the middle of the pressure wanders less than this is noise of the mat; Hz. Convention. */
const SWAY_HZ = 10;

/** The three support points and the print in quiet standing, by foot. `both` is the load of both feet, newton. */
export function stanceOf(l: FootLoads, both: number): Of {
  const whole = meanOf(l.totals);
  const share = (...r: Parameters<typeof partAt>[2][]) => single(percent(meanOf(partOver(l, ...r)), whole));
  const area = Object.values(l.area).reduce((s, a) => s + a, 0);
  return known({
    weightShare: single(percent(whole, both)),
    innerBall: share('m1'),
    outerBall: share('m5'),
    heel: share('heel'),
    archIndex: l.foot.archIndex === null ? null : single(l.foot.archIndex),
    area: single(l.foot.areaCm2),
    meanPressure: single(area > 0 ? (whole / area) * 10 : Number.NaN),
    peakHeel: single(l.peak.heel),
    peakBall: single(Math.max(...HEADS.map((h) => l.peak[h]))),
  });
}

/** Sway on one leg: speed of the centre of pressure, and the ellipse that holds 95 in 100 of its places. */
export function balanceOf(l: FootLoads, rateHz: number): Of {
  const x = lowPass(l.x, rateHz, SWAY_HZ);
  const y = lowPass(l.y, rateHz, SWAY_HZ);
  const [mx, my] = [meanOf(x), meanOf(y)];
  let [path, xx, xy, yy] = [0, 0, 0, 0];
  for (let i = 0; i < x.length; i += 1) {
    const [dx, dy] = [(x[i] as number) - mx, (y[i] as number) - my];
    xx += dx * dx;
    xy += dx * dy;
    yy += dy * dy;
    if (i > 0)
      path += Math.hypot((x[i] as number) - (x[i - 1] as number), (y[i] as number) - (y[i - 1] as number));
  }
  const n = x.length - 1;
  const seconds = n / rateHz;
  return known({
    held: single(seconds),
    swayPath: single(path),
    swaySpeed: single(path / seconds),
    // Chi-square of two degrees, 95 %: 5.991.
    swayArea: single((Math.PI * 5.991 * Math.sqrt(Math.max(0, xx * yy - xy * xy))) / n),
  });
}

const STANDING_SECONDS = 1;
const SMOOTH_HZ = 2;
/** Share of the moments, those with the least outer load, that stand for the bottom of the squat. */
const LOWEST = 0.1;

/** The outer ball in a squat against standing: what is left of its load, and how far the middle goes inward. */
export function squatOf(l: FootLoads, rateHz: number): Of {
  const still = Math.min(l.count - 1, Math.round(STANDING_SECONDS * rateHz));
  if (l.count < still * 2) return {};
  const outer = lowPass(partOver(l, 'm5'), rateHz, SMOOTH_HZ);
  const inner = lowPass(partOver(l, 'm1'), rateHz, SMOOTH_HZ);
  const heel = lowPass(partOver(l, 'heel'), rateHz, SMOOTH_HZ);
  const whole = lowPass(l.totals, rateHz, SMOOTH_HZ);
  const at = (part: Float64Array, i: number): number => percent(part[i] as number, whole[i] as number);
  const before = meanOf(Float64Array.from({ length: still }, (_, i) => at(outer, i)));
  const outward = lowPass(
    Float64Array.from({ length: l.count }, (_, i) => centreIn(l, i).outward),
    rateHz,
    SMOOTH_HZ,
  );
  const rest = meanOf(outward, 0, still - 1);
  const moments = Array.from({ length: l.count - still }, (_, i) => i + still).sort(
    (a, b) => at(outer, a) - at(outer, b),
  );
  const low = moments.slice(0, Math.max(1, Math.round(moments.length * LOWEST)));
  const over = (of: (i: number) => number) => meanOf(low.map(of));
  return known({
    outerKept: single(before > 0 ? Math.max(0, (100 * over((i) => at(outer, i))) / before) : Number.NaN),
    inwardShift: single(rest - over((i) => outward[i] as number)),
    innerBallLow: single(over((i) => at(inner, i))),
    heelLow: single(over((i) => at(heel, i))),
  });
}

/** A rise: from where the heel begins to give up its load to the top, and down again, in frames. */
export interface Rise {
  readonly from: number;
  readonly top: number;
  readonly to: number;
  /** Frame at which the first head gave up; null where it kept its load to the top. */
  readonly left: number | null;
  /** Share of the rise in which the first head still carries, 0 to 1. */
  readonly held: number;
}

/** The heel is off when it carries less than this share of what it does in standing. */
const HEEL_GONE = 0.1;
const HEEL_GOING = 0.85;
const LEAST_RISE_SECONDS = 0.5;
/** The first head carries while its share of the heads is at least this part of what it was as the heel left. */
const STILL_CARRIES = 0.5;
/** How much the load must move on to the toes for the top to be told, share of the front of the foot. */
const TOES_MOVE = 0.03;
/** A rise that goes up as evenly as a swing is at 70 % of its height after 63.1 % of its time, where it is quickest to tell. */
const NEARLY = { height: 0.7, time: 0.631 } as const;
/** The stretch of a rise in which it is at its top, as shares of the time the heel is off. */
const HIGH = { from: 0.35, to: 0.65 } as const;

/** How high an even rise is after a share of its time. */
const evenly = (share: number): number => (1 - Math.cos(Math.PI * Math.min(1, Math.max(0, share)))) / 2;

/**
 * The rises of a foot. How high it is at a moment is read by time, as of an even rise from where the heel begins to unload to
 * the top; the top is where the load stops moving on to the toes. Convention.
 */
export function risesOf(l: FootLoads, rateHz: number): readonly Rise[] {
  const heel = lowPass(partOver(l, 'heel', 'midfoot'), rateHz, 8);
  const heads = lowPass(partOver(l, ...HEADS), rateHz, 8);
  const first = lowPass(partOver(l, 'm1'), rateHz, 8);
  const toes = lowPass(partOver(l, 'bigToe', 'toes'), rateHz, 4);
  const standing = meanOf(heel, 0, Math.min(l.count - 1, Math.round(rateHz)));
  if (!(standing > 0)) return [];
  const rises: Rise[] = [];
  let i = 1;
  while (i < l.count) {
    if ((heel[i] as number) >= HEEL_GONE * standing || (heel[i - 1] as number) < HEEL_GONE * standing) {
      i += 1;
      continue;
    }
    let to = i;
    while (to < l.count && (heel[to] as number) < HEEL_GONE * standing) to += 1;
    let from = i;
    while (from > 0 && (heel[from - 1] as number) < HEEL_GOING * standing) from -= 1;
    if (to < l.count && (to - i) / rateHz >= LEAST_RISE_SECONDS)
      rises.push(oneRise({ first, heads, toes }, { from, gone: i, to }));
    i = to + 1;
  }
  return rises;
}

function oneRise(
  p: { first: Float64Array; heads: Float64Array; toes: Float64Array },
  { from, gone, to }: { from: number; gone: number; to: number },
): Rise {
  const onToes = (i: number): number => {
    const front = (p.heads[i] as number) + (p.toes[i] as number);
    return front > 0 ? (p.toes[i] as number) / front : 0;
  };
  const firstShare = (i: number): number =>
    (p.heads[i] as number) > 0 ? (p.first[i] as number) / (p.heads[i] as number) : 0;
  const start = onToes(gone);
  const off = to - gone;
  const highest = median(
    Array.from({ length: Math.ceil(off * (HIGH.to - HIGH.from)) }, (_, k) =>
      onToes(gone + Math.floor(off * HIGH.from) + k),
    ),
  ) as number;
  let top = Math.round((from + to) / 2);
  if (highest - start >= TOES_MOVE) {
    // From the heel's leaving on, the load on the toes tells how high it is.
    const begun = evenly((gone - from) / Math.max(1, top - from));
    const wanted = start + (highest - start) * ((NEARLY.height - begun) / (1 - begun));
    let near = gone;
    while (near < to && onToes(near) < wanted) near += 1;
    top = Math.min(to, Math.round(from + (near - from) / NEARLY.time));
  }
  const before = firstShare(gone);
  let left: number | null = null;
  for (let i = top; i >= gone; i -= 1) {
    if (firstShare(i) >= STILL_CARRIES * before) break;
    left = i;
  }
  const held = left === null ? 1 : evenly((left - from) / Math.max(1, top - from));
  return { from, top, to, left, held };
}

/** Heel raises by foot: how far up the first head still carries, over the rises. */
export function raiseOf(l: FootLoads, rises: readonly Rise[], rateHz: number): Of {
  const share = (i: number) => percent(partAt(l, i, 'm1'), partAt(l, i, ...HEADS));
  return known({
    firstHeadHold: several(rises.map((r) => r.held * 100)),
    firstHeadTop: several(rises.map((r) => share(r.top))),
    rises: rises.length === 0 ? null : single(rises.length),
    riseSeconds: several(rises.map((r) => (r.top - r.from) / rateHz)),
  });
}
