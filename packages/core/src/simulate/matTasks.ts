import type { LabTask } from '../lab/task.js';
import type { PerSide, Side } from '../quantity/side.js';
import { normal, seededRandom } from './random.js';
import { type FootTruth, type Pad, PADS, type Walker } from './walker.js';

/** Newton on each pad, in the order of PADS. */
export type PadLoads = Float64Array;

interface Task {
  readonly walker: Walker;
  readonly task: LabTask;
  readonly side: Side | 'both';
  readonly seed: number;
}

interface Moment {
  readonly loads: PerSide<PadLoads | null>;
  /** Which crossing of the mat it is, in walking. */
  readonly pass: number;
}

const G = 9.81;
const at = (pad: Pad): number => PADS.indexOf(pad);
const HEEL = at('heel');
const M1 = at('m1');
const M5 = at('m5');

/** 0 below 0, 1 above 1, smooth between. */
export const smooth = (x: number): number => (x <= 0 ? 0 : x >= 1 ? 1 : x * x * (3 - 2 * x));

/** Loads pads by weights that need not add to 1. */
function loaded(weights: Float64Array, newton: number): PadLoads {
  let sum = 0;
  for (const w of weights) sum += w;
  return sum === 0 ? weights : weights.map((w) => (w / sum) * newton);
}

function standingWeights(foot: FootTruth): Float64Array {
  const out = new Float64Array(PADS.length);
  for (let i = 0; i < PADS.length; i += 1) out[i] = foot.standing[PADS[i] as Pad];
  return out;
}

/** Moves the middle of the load by so many mm across and along, by loading pads on that side more. */
function shifted(foot: FootTruth, weights: Float64Array, across: number, along: number): Float64Array {
  let sum = 0;
  let [mx, my] = [0, 0];
  PADS.forEach((p, i) => {
    const w = weights[i] as number;
    sum += w;
    mx += w * foot.pads[p].x;
    my += w * foot.pads[p].y;
  });
  mx /= sum;
  my /= sum;
  let [xx, xy, yy] = [0, 0, 0];
  PADS.forEach((p, i) => {
    const w = (weights[i] as number) / sum;
    const [dx, dy] = [foot.pads[p].x - mx, foot.pads[p].y - my];
    xx += w * dx * dx;
    xy += w * dx * dy;
    yy += w * dy * dy;
  });
  const det = xx * yy - xy * xy;
  const a = (across * yy - along * xy) / det;
  const b = (along * xx - across * xy) / det;
  return weights.map((w, i) => {
    const p = foot.pads[PADS[i] as Pad];
    return Math.max(0, w * (1 + a * (p.x - mx) + b * (p.y - my)));
  });
}

/** Sway: a slow and a quicker wandering, each a filtered noise with a spread of its own; made ahead for the whole capture. */
function swayOf(seed: number, seconds: number, spread: number): Float64Array {
  const random = seededRandom(seed);
  const n = Math.ceil(seconds * 100) + 2;
  const out = new Float64Array(n);
  for (const [tau, share] of [
    [0.9, 0.8],
    [0.18, 0.6],
  ] as const) {
    const keep = Math.exp(-0.01 / tau);
    const push = spread * share * Math.sqrt(1 - keep * keep);
    let v = normal(random, 0, spread * share);
    let calm = v;
    for (let i = 0; i < n; i += 1) {
      v = v * keep + normal(random, 0, push);
      calm += (v - calm) * 0.25;
      out[i] = (out[i] as number) + calm;
    }
  }
  return out;
}

const SQUAT = { still: 2.2, down: 1.6, low: 0.7, up: 1.4, between: 0.8, times: 3 } as const;
const RAISE = { still: 2.2, up: 1.5, high: 0.6, down: 1.5, between: 0.9, times: 5 } as const;

/** How deep a squat or how high a rise is at a moment, 0 to 1. */
function cycle(
  t: number,
  p: { still: number; between: number; times: number },
  part: readonly number[],
): number {
  const [go = 1, stay = 1, back = 1] = part;
  const length = go + stay + back + p.between;
  const since = t - p.still;
  if (since < 0 || since >= length * p.times) return 0;
  const within = since % length;
  if (within < go) return (1 - Math.cos((Math.PI * within) / go)) / 2;
  if (within < go + stay) return 1;
  if (within < go + stay + back) return (1 + Math.cos((Math.PI * (within - go - stay)) / back)) / 2;
  return 0;
}

export const squatDepth = (t: number): number => cycle(t, SQUAT, [SQUAT.down, SQUAT.low, SQUAT.up]);
export const riseHeight = (t: number): number => cycle(t, RAISE, [RAISE.up, RAISE.high, RAISE.down]);

/** Share of the first head's load that is gone at a height of the rise. */
const SHIFT_WIDTH = 0.04;
const shiftGone = (foot: FootTruth, rise: number): number =>
  foot.shiftAt === null ? 0 : 0.88 / (1 + Math.exp(-(rise - foot.shiftAt) / SHIFT_WIDTH));

function raised(foot: FootTruth, rise: number): Float64Array {
  const w = standingWeights(foot);
  const off = smooth(rise / 0.12);
  const heelAndMid = (w[HEEL] as number) + (w[at('midfoot')] as number);
  w[HEEL] = (w[HEEL] as number) * (1 - off);
  w[at('midfoot')] = (w[at('midfoot')] as number) * (1 - off);
  // What the heel gives up goes to heads and toes; the toes take more the higher it is.
  const toes = 0.1 + 0.2 * rise;
  const heads = ['m1', 'm2', 'm3', 'm4', 'm5'] as const;
  const given = heelAndMid * off;
  for (const [p, k] of [
    ['m1', 0.3],
    ['m2', 0.24],
    ['m3', 0.2],
    ['m4', 0.14],
    ['m5', 0.12],
  ] as const)
    w[at(p)] = (w[at(p)] as number) + given * k * (1 - toes);
  for (const [p, k] of [
    ['bigToe', 0.5],
    ['toe2', 0.14],
    ['toe3', 0.12],
    ['toe4', 0.12],
    ['toe5', 0.12],
  ] as const)
    w[at(p)] = (w[at(p)] as number) + given * k * toes;
  const lost = (w[M1] as number) * shiftGone(foot, rise);
  w[M1] = (w[M1] as number) - lost;
  for (const p of heads.slice(2)) w[at(p)] = (w[at(p)] as number) + lost / 3;
  return w;
}

function squatted(foot: FootTruth, depth: number): Float64Array {
  const w = standingWeights(foot);
  const gone = foot.tip * depth;
  const lost = (w[M5] as number) * gone + (w[at('m4')] as number) * gone * 0.5;
  w[at('m4')] = (w[at('m4')] as number) * (1 - gone * 0.5);
  w[M5] = (w[M5] as number) * (1 - gone);
  w[M1] = (w[M1] as number) + lost * 0.6;
  w[at('bigToe')] = (w[at('bigToe')] as number) + lost * 0.4;
  // The weight comes a little forward on the way down.
  w[HEEL] = (w[HEEL] as number) * (1 - 0.12 * depth);
  return w;
}

const WALK_GAP = 1.1;

/** Weights in walking at a share of the time on the ground. */
function walkWeights(foot: FootTruth, s: number): Float64Array {
  const { heelOff: ho } = foot;
  const gone = (from: number, to: number) => 1 - smooth((s - from) / (to - from));
  const heads = (from: number) =>
    smooth((s - from) / 0.16) * (0.35 + 0.65 * smooth((s - (ho - 0.2)) / 0.3)) * gone(0.84, 1);
  const toes = smooth((s - ho + 0.18) / 0.3) * gone(0.93, 1.001);
  const spares = foot.sparesToe ? 1 : 0;
  const w = new Float64Array(PADS.length);
  const put = (p: Pad, v: number) => {
    w[at(p)] = Math.max(0, v);
  };
  put('heel', smooth(s / 0.07 + 0.4) * gone(0.1, ho));
  put('midfoot', foot.standing.midfoot * 3.2 * smooth((s - 0.05) / 0.12) * gone(ho - 0.25, ho + 0.06));
  put('m5', (0.13 + 0.12 * spares) * heads(0.07));
  put('m4', (0.18 + 0.08 * spares) * heads(0.08));
  put('m3', 0.27 * heads(0.1));
  put('m2', 0.33 * heads(0.11));
  put('m1', (0.27 - 0.15 * spares) * heads(0.12));
  put('bigToe', (0.28 - 0.24 * spares) * toes);
  for (const p of ['toe2', 'toe3', 'toe4', 'toe5'] as const) put(p, (0.025 + 0.02 * spares) * toes);
  return w;
}

/** The whole load at a share of the time on the ground, in body weights: two humps. */
const walkLoad = (s: number): number =>
  s <= 0 || s >= 1 ? 0 : smooth(s / 0.12) * smooth((1 - s) / 0.14) * (1 - 0.17 * Math.cos(4 * Math.PI * s));

/** How long a task takes, seconds. */
export function taskSeconds({ task, walker, side }: Pick<Task, 'task' | 'walker' | 'side'>): number {
  if (task === 'stance') return 10;
  if (task === 'squat')
    return SQUAT.still + (SQUAT.down + SQUAT.low + SQUAT.up + SQUAT.between) * SQUAT.times;
  if (task === 'raise')
    return RAISE.still + (RAISE.up + RAISE.high + RAISE.down + RAISE.between) * RAISE.times;
  if (task === 'walk') return 12 * (WALK_GAP + 0.7);
  return walker.feet[side === 'right' ? 'right' : 'left'].sway.holdsSeconds + 3;
}

/** What each pad carries at any moment of a task. */
export function footLoads(task: Task): (t: number) => Moment {
  if (task.task === 'walk') return walking(task);
  return standingTasks(task);
}

function walking({ walker, seed }: Task): (t: number) => Moment {
  const random = seededRandom(seed * 53 + 29);
  const weight = walker.massKg * G;
  let from = 0.6;
  const passes = Array.from({ length: 60 }, (_, i) => {
    const side: Side = i % 2 === 0 ? 'left' : 'right';
    const seconds = walker.feet[side].contactSeconds * normal(random, 1, 0.03);
    const pass = { side, from, seconds, strength: normal(random, 1, 0.03) };
    from += seconds + WALK_GAP;
    return pass;
  });
  return (t) => {
    const i = passes.findIndex((p) => t >= p.from && t < p.from + p.seconds);
    const pass = passes[i];
    if (pass === undefined) return { loads: { left: null, right: null }, pass: 0 };
    const s = (t - pass.from) / pass.seconds;
    const foot = walker.feet[pass.side];
    const loads = loaded(walkWeights(foot, s), weight * walkLoad(s) * pass.strength);
    return {
      loads: { left: pass.side === 'left' ? loads : null, right: pass.side === 'right' ? loads : null },
      pass: i,
    };
  };
}

function standingTasks({ walker, task, side, seed }: Task): (t: number) => Moment {
  const weight = walker.massKg * G;
  const one: Side | null = task === 'balance' || task === 'raise' ? (side === 'both' ? null : side) : null;
  const lone: Side | null = task === 'balance' ? (one ?? 'left') : one;
  const seconds = 90;
  const sway = task === 'balance' && lone !== null ? walker.feet[lone].sway : null;
  const calm = { across: 1.5, along: 2.5 };
  const across = swayOf(seed * 3 + 1, seconds, (sway ?? calm).across);
  const along = swayOf(seed * 3 + 2, seconds, (sway ?? calm).along);
  const split = swayOf(seed * 3 + 4, seconds, 0.008);
  const holds = sway?.holdsSeconds ?? Infinity;
  const weightsOf = (foot: FootTruth, t: number): Float64Array =>
    task === 'raise'
      ? raised(foot, riseHeight(t))
      : task === 'squat'
        ? squatted(foot, squatDepth(t))
        : standingWeights(foot);
  return (t) => {
    const n = Math.min(across.length - 1, Math.round(t * 100));
    // In rising the centre has no room to wander along the foot.
    const quiet = task === 'raise' ? 0.3 : 1;
    const foot = (s: Side, share: number): PadLoads =>
      loaded(
        shifted(
          walker.feet[s],
          weightsOf(walker.feet[s], t),
          (across[n] as number) * quiet,
          (along[n] as number) * quiet,
        ),
        weight * share,
      );
    if (lone === null) {
      const left = walker.leftShare + (split[n] as number);
      return { loads: { left: foot('left', left), right: foot('right', 1 - left) }, pass: 0 };
    }
    const other: Side = lone === 'left' ? 'right' : 'left';
    // The other foot comes down when it cannot be held any longer.
    const down = t > holds ? Math.min(0.5, (t - holds) * 2) : 0;
    const loads: Record<Side, PadLoads | null> = { left: null, right: null };
    loads[lone] = foot(lone, 1 - down);
    loads[other] = down > 0 ? foot(other, down) : null;
    return { loads, pass: 0 };
  };
}
