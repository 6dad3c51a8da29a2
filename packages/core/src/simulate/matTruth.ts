import { lowPass, meanOf } from '../lab/filter.js';
import type { Side } from '../quantity/side.js';
import { PER_KPA } from '../recording/recording.js';
import { TOUCHED } from '../mat/clean.js';
import type { SimulatedMat } from './mat.js';
import { type PadLoads, riseHeight } from './matTasks.js';
import { type FootTruth, type Pad, PADS, type Walker } from './walker.js';

/** What a capture of a made-up foot should give, from its own loads and shape, without mat, noise or masks. */
export type MatTruth = Readonly<Record<string, number>>;

const at = (loads: PadLoads, ...pads: readonly Pad[]): number =>
  pads.reduce((s, p) => s + (loads[PADS.indexOf(p)] as number), 0);
const all = (loads: PadLoads): number => loads.reduce((s, v) => s + v, 0);
const HEADS = ['m1', 'm2', 'm3', 'm4', 'm5'] as const;
const TOES = ['toe2', 'toe3', 'toe4', 'toe5'] as const;

/** Area of the middle third over the whole where the pressure reaches the threshold, on a grid of 1 mm, without the toes. */
function archTruth(foot: FootTruth, loads: PadLoads): number {
  const pads = PADS.filter((p) => p !== 'bigToe' && !p.startsWith('toe'));
  const front = Math.max(...HEADS.map((h) => foot.pads[h].y + foot.pads[h].ry));
  let [middle, whole] = [0, 0];
  for (let y = 0.5; y < front; y += 1)
    for (let x = -90.5; x < 90; x += 1) {
      let kpa = 0;
      for (const p of pads) {
        const k = foot.pads[p];
        const r = ((x - k.x) / k.rx) ** 2 + ((y - k.y) / k.ry) ** 2;
        if (r < 1) kpa += ((at(loads, p) * (1 - r)) / ((Math.PI * k.rx * k.ry) / 2)) * 1000;
      }
      if (kpa * PER_KPA < TOUCHED) continue;
      whole += 1;
      if (y >= front / 3 && y < (2 * front) / 3) middle += 1;
    }
  return middle / whole;
}

/** Middle of the pressure in the foot, mm outward and forward. */
const centre = (foot: FootTruth, loads: PadLoads): { x: number; y: number } => ({
  x: PADS.reduce((s, p, i) => s + (loads[i] as number) * foot.pads[p].x, 0) / all(loads),
  y: PADS.reduce((s, p, i) => s + (loads[i] as number) * foot.pads[p].y, 0) / all(loads),
});

interface Frame {
  readonly n: number;
  readonly loads: PadLoads;
}

function framesOf(sim: SimulatedMat, side: Side): Frame[] {
  const frames = Math.floor(Math.min(sim.seconds, 60) * sim.header.rateHz);
  return Array.from({ length: frames }, (_, n) => ({ n, loads: sim.loads(n)[side] })).filter(
    (f): f is Frame => f.loads !== null,
  );
}

/** Truth of quiet standing. */
export function stanceTruth(sim: SimulatedMat, walker: Walker, side: Side): MatTruth {
  const frames = framesOf(sim, side);
  const mean = (of: (l: PadLoads) => number) => meanOf(frames.map((f) => of(f.loads)));
  const share = (...p: readonly Pad[]) => (100 * mean((l) => at(l, ...p))) / mean(all);
  const middle = Float64Array.from(PADS, (_, i) => mean((l) => l[i] as number));
  return {
    weightShare: (100 * mean(all)) / (walker.massKg * 9.81),
    innerBall: share('m1'),
    outerBall: share('m5'),
    heel: share('heel'),
    archIndex: archTruth(walker.feet[side], middle),
  };
}

/** Truth of standing on one leg, of the stretch before the other foot comes down. */
export function balanceTruth(sim: SimulatedMat, walker: Walker, side: Side): MatTruth {
  const foot = walker.feet[side];
  const frames = framesOf(sim, side).filter((f) => f.n / 100 <= foot.sway.holdsSeconds);
  const points = frames.map((f) => centre(foot, f.loads));
  const x = lowPass(
    points.map((p) => p.x),
    100,
    10,
  );
  const y = lowPass(
    points.map((p) => p.y),
    100,
    10,
  );
  let [path, xx, xy, yy] = [0, 0, 0, 0];
  const [mx, my] = [meanOf(x), meanOf(y)];
  for (let i = 0; i < x.length; i += 1) {
    const [dx, dy] = [(x[i] as number) - mx, (y[i] as number) - my];
    xx += dx * dx;
    xy += dx * dy;
    yy += dy * dy;
    if (i > 0)
      path += Math.hypot((x[i] as number) - (x[i - 1] as number), (y[i] as number) - (y[i - 1] as number));
  }
  const n = x.length - 1;
  return {
    held: n / 100,
    swaySpeed: (path / n) * 100,
    swayArea: (Math.PI * 5.991 * Math.sqrt(xx * yy - xy * xy)) / n,
  };
}

/** Truth of a squat. */
export function squatTruth(sim: SimulatedMat, walker: Walker, side: Side): MatTruth {
  const frames = framesOf(sim, side);
  const outer = frames.map((f) => at(f.loads, 'm5') / all(f.loads));
  const out = frames.map((f) => centre(walker.feet[side], f.loads).x);
  const before = meanOf(outer, 0, 99);
  const order = outer
    .map((_, i) => i)
    .slice(100)
    .sort((a, b) => (outer[a] as number) - (outer[b] as number));
  const low = order.slice(0, Math.round(order.length * 0.1));
  return {
    outerKept: (100 * meanOf(low.map((i) => outer[i] as number))) / before,
    inwardShift: meanOf(out, 0, 99) - meanOf(low.map((i) => out[i] as number)),
  };
}

/** Truth of heel raises: how far up the first head still carries half of its share as the heel left, %. */
export function raiseTruth(sim: SimulatedMat, side: Side): MatTruth {
  const up = framesOf(sim, side).filter((f) => {
    const [now, next] = [riseHeight(f.n / 100), riseHeight((f.n + 1) / 100)];
    return next > now && f.n / 100 > 1.5;
  });
  const share = (l: PadLoads) => at(l, 'm1') / at(l, ...HEADS);
  const start = up.filter((f) => Math.abs(riseHeight(f.n / 100) - 0.1) < 0.02);
  const before = meanOf(start.map((f) => share(f.loads)));
  const lost = up.filter((f) => share(f.loads) < 0.5 * before).map((f) => riseHeight(f.n / 100));
  return { firstHeadHold: lost.length === 0 ? 100 : 100 * Math.min(...lost) };
}

/** Truth of walking, over the steps of one foot. */
export function walkTruth(sim: SimulatedMat, walker: Walker, side: Side): MatTruth {
  const foot = walker.feet[side];
  const steps: Frame[][] = [];
  for (const f of framesOf(sim, side)) {
    const last = steps.at(-1);
    if (last !== undefined && f.n - (last.at(-1)?.n ?? 0) === 1) last.push(f);
    else steps.push([f]);
  }
  const whole = steps.slice(0, -1).map((s) => s.filter((f) => all(f.loads) > 20));
  const each = (of: (step: Frame[]) => number) => meanOf(whole.map(of));
  const time = (s: Frame[], ...p: readonly Pad[]) =>
    (100 * meanOf(s.map((f) => at(f.loads, ...p)))) / meanOf(s.map((f) => all(f.loads)));
  return {
    contactMs: each((s) => s.length * 10),
    heelOff: each((s) => {
      const heel = s.map((f) => at(f.loads, 'heel'));
      const most = Math.max(...heel);
      return (100 * (heel.findLastIndex((h) => h >= 0.05 * most) + 1)) / s.length;
    }),
    timeHeel: each((s) => time(s, 'heel')),
    timeInnerBall: each((s) => time(s, 'm1')),
    timeOuterBall: each((s) => time(s, 'm5')),
    timeBigToe: each((s) => time(s, 'bigToe')),
    pushFirstRay: each((s) => {
      const late = s.slice(Math.round(s.length * 0.6));
      const sum = (...p: readonly Pad[]) => meanOf(late.map((f) => at(f.loads, ...p)));
      return (100 * sum('m1', 'bigToe')) / sum(...HEADS, 'bigToe', ...TOES);
    }),
    centreSpan: each((s) => {
      const x = s
        .slice(Math.round(s.length * 0.1), Math.round(s.length * 0.9))
        .map((f) => centre(foot, f.loads).x);
      const inner = foot.pads.m1.x - foot.pads.m1.rx;
      const outer = foot.pads.m5.x + foot.pads.m5.rx;
      return (100 * (Math.max(...x) - Math.min(...x))) / (outer - inner);
    }),
  };
}
