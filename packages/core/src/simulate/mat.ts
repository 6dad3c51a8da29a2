import type { LabTask } from '../lab/task.js';
import { type PerSide, type Side, SIDES } from '../quantity/side.js';
import type { MatHeader } from '../recording/recording.js';
import { footLoads, type PadLoads, taskSeconds } from './matTasks.js';
import type { MatMistake } from './mistakes.js';
import { seededRandom } from './random.js';
import { type FootTruth, PADS, type Walker } from './walker.js';

export interface MatScript {
  readonly walker: Walker;
  readonly task: LabTask;
  readonly side: Side | 'both';
  readonly seed: number;
  readonly mistakes: readonly MatMistake[];
  /** Without noise, gain or quantising, for comparing with closed forms. */
  readonly perfect?: boolean;
}

const MAT_GRID = { columns: 64, rows: 32, cellMm: 10, rateHz: 100 } as const;
const { round } = Math;
const MOST_KPA = 1200;
const LOW_CEILING_KPA = 170;

/** Where a foot stands: the back of its heel in mm on the mat, and the way it points, degrees from the mat's long way. */
interface Placed {
  readonly x: number;
  readonly y: number;
  readonly heading: number;
}

interface Kernel {
  readonly cells: Int32Array;
  /** Share of the pad's load on each of those cells. */
  readonly share: Float32Array;
}

const SUB = 4;

/** How the load of each pad of a placed foot falls on the cells; what is off the mat is lost. */
function kernelsOf(foot: FootTruth, at: Placed): Kernel[] {
  const turn = (at.heading * Math.PI) / 180;
  const [fx, fy] = [Math.cos(turn), Math.sin(turn)];
  // The patient's right, seen from above; outward is right for the right foot.
  const out = foot.side === 'right' ? 1 : -1;
  const [ox, oy] = [fy * out, -fx * out];
  return PADS.map((pad) => {
    const p = foot.pads[pad];
    const cx = at.x + fx * p.y + ox * p.x;
    const cy = at.y + fy * p.y + oy * p.x;
    const reach = Math.max(p.rx, p.ry) + MAT_GRID.cellMm;
    const cells: number[] = [];
    const share: number[] = [];
    const whole = (Math.PI * p.rx * p.ry) / 2;
    const part = (MAT_GRID.cellMm / SUB) ** 2 / whole;
    const { columns, rows, cellMm } = MAT_GRID;
    const c0 = Math.max(0, Math.floor((cx - reach) / cellMm));
    const c1 = Math.min(columns - 1, Math.floor((cx + reach) / cellMm));
    const r0 = Math.max(0, Math.floor((cy - reach) / cellMm));
    const r1 = Math.min(rows - 1, Math.floor((cy + reach) / cellMm));
    for (let r = r0; r <= r1; r += 1)
      for (let c = c0; c <= c1; c += 1) {
        let sum = 0;
        for (let i = 0; i < SUB; i += 1)
          for (let j = 0; j < SUB; j += 1) {
            const dx = (c + (i + 0.5) / SUB) * cellMm - cx;
            const dy = (r + (j + 0.5) / SUB) * cellMm - cy;
            const v = (dx * fx + dy * fy) / p.ry;
            const u = (dx * ox + dy * oy) / p.rx;
            sum += Math.max(0, 1 - u * u - v * v);
          }
        if (sum > 0) {
          cells.push(r * columns + c);
          share.push(sum * part);
        }
      }
    return { cells: Int32Array.from(cells), share: Float32Array.from(share) };
  });
}

export interface SimulatedMat {
  readonly header: MatHeader;
  readonly seconds: number;
  readonly placed: (n: number) => PerSide<Placed | null>;
  /** What each pad carries in the n-th frame, newton; null for a foot that is not on the mat. */
  readonly loads: (n: number) => PerSide<PadLoads | null>;
  /** Fills kPa into the cells of the n-th frame; false where the frame is lost. */
  readonly frame: (n: number, cells: Float32Array) => boolean;
  readonly cutAt: number | null;
  readonly rubbishAt: (n: number) => boolean;
}

const TO_KPA = 1 / (MAT_GRID.cellMm ** 2 / 1000);

function placements(script: MatScript): (pass: number) => PerSide<Placed> {
  const random = seededRandom(script.seed * 31 + 5);
  const between = (low: number, high: number) => low + random() * (high - low);
  const { feet } = script.walker;
  const has = (m: MatMistake) => script.mistakes.includes(m);
  if (script.task === 'walk') {
    const passes = Array.from({ length: 40 }, () => [between(120, 260), between(120, 200), between(-3, 3)]);
    return (pass) => {
      const [x = 200, y = 160, turn = 0] = passes[pass % passes.length] ?? [];
      // The second of two passes misses the mat with part of the foot.
      const off = has('half-off') && pass % 2 === 1;
      const at = off ? { x: 470, y: 22 } : { x, y };
      return {
        left: { ...at, heading: turn + feet.left.toeOut },
        right: { ...at, heading: turn - feet.right.toeOut },
      };
    };
  }
  const one = script.task === 'balance' || (script.task === 'raise' && script.side !== 'both');
  const apart = one ? 60 : has('overlap') ? 34 : between(58, 74);
  const x = 320 + between(-15, 15);
  const y = has('half-off') ? -70 : between(20, 34);
  const turned = has('turned');
  const stand: PerSide<Placed> = turned
    ? {
        left: { x: x + apart, y: 320 - y, heading: -90 + feet.left.toeOut },
        right: { x: x - apart, y: 320 - y, heading: -90 - feet.right.toeOut },
      }
    : {
        left: { x: x - apart, y, heading: 90 + feet.left.toeOut },
        right: { x: x + apart, y, heading: 90 - feet.right.toeOut },
      };
  return () => stand;
}

/** A made-up mat under a made-up person: the same script gives the same frames. */
export function simulateMat(script: MatScript): SimulatedMat {
  const { walker, mistakes } = script;
  const has = (m: MatMistake) => mistakes.includes(m);
  const random = seededRandom(script.seed * 977 + 3);
  const gain = script.perfect === true ? 1 : 0.9 + random() * 0.2;
  const where = placements(script);
  const kernels = new Map<string, Kernel[]>();
  const kernel = (side: Side, pass: number): Kernel[] => {
    const key = `${side}${script.task === 'walk' ? pass : 0}`;
    const known = kernels.get(key);
    if (known !== undefined) return known;
    const made = kernelsOf(walker.feet[side], where(pass)[side]);
    kernels.set(key, made);
    return made;
  };
  const loadsAt = footLoads(script);
  const cellCount = MAT_GRID.columns * MAT_GRID.rows;
  const pick = () => Math.floor(random() * cellCount);
  const fault = faultyCells(script, kernel, pick);
  const ceiling = has('saturated') ? LOW_CEILING_KPA : MOST_KPA;
  const noise = seededRandom(script.seed * 15_731 + 11);
  const rough = () => (noise() + noise() + noise() - 1.5) * 2;
  const touched: number[] = [];
  const every = Array.from({ length: cellCount }, (_, c) => c);
  const frame = (n: number, cells: Float32Array): boolean => {
    cells.fill(0);
    if (has('lost-frames') && seededRandom(script.seed * 77 + n)() < 0.08) return false;
    const { loads, pass } = loadsAt(n / MAT_GRID.rateHz);
    touched.length = 0;
    for (const side of SIDES) {
      const load = loads[side];
      if (load === null) continue;
      kernel(side, pass).forEach((k, i) => {
        const newton = load[i] as number;
        if (newton > 0)
          for (let c = 0; c < k.cells.length; c += 1) {
            const cell = k.cells[c] as number;
            const before = cells[cell] as number;
            if (before === 0) touched.push(cell);
            cells[cell] = before + newton * (k.share[c] as number) * TO_KPA;
          }
      });
    }
    if (script.perfect === true) return true;
    const drift = has('drift') ? 0.35 * (n / MAT_GRID.rateHz) : 0;
    for (const c of drift > 0 ? every : touched) {
      const v = cells[c] as number;
      const seen = v > 1 ? gain * v * (1 + 0.03 * rough()) + 0.4 * rough() : 0;
      const all = seen + (drift > 0 ? drift + 0.2 * rough() : 0);
      cells[c] = all < 1 ? 0 : all > ceiling ? ceiling : round(all * 2) / 2;
    }
    for (const c of fault.dead) cells[c] = 0;
    for (const c of fault.stuck) cells[c] = 240;
    if (has('helper-leans')) for (let c = 0; c < cellCount; c += 1) cells[c] = (cells[c] as number) * 0.55;
    return true;
  };
  return {
    header: {
      kind: 'pressure-mat',
      ...MAT_GRID,
      name: 'Simulated pressure mat',
      mostKpa: ceiling,
      calibratedOn: null,
      simulated: true,
      task: script.task,
      side: script.side,
    },
    seconds: taskSeconds(script),
    placed: (n) => {
      const { loads, pass } = loadsAt(n / MAT_GRID.rateHz);
      const at = where(pass);
      return {
        left: loads.left === null ? null : at.left,
        right: loads.right === null ? null : at.right,
      };
    },
    loads: (n) => loadsAt(n / MAT_GRID.rateHz).loads,
    frame,
    cutAt: has('breaks-off') ? 260 : null,
    rubbishAt: (n) => has('rubbish') && n % 37 === 36,
  };
}

/** Cells that do not work: scattered, and a few of them right under a foot. */
function faultyCells(
  script: MatScript,
  kernel: (side: Side, pass: number) => Kernel[],
  pick: () => number,
): { dead: number[]; stuck: number[] } {
  const has = (m: MatMistake) => script.mistakes.includes(m);
  // The cell that carries most of a pad.
  const under = (pad: number): number => {
    const side: Side = script.side === 'right' ? 'right' : 'left';
    const k = kernel(side, 0)[pad];
    if (k === undefined) return pick();
    return k.cells[k.share.indexOf(Math.max(...k.share))] ?? pick();
  };
  return {
    dead: has('dead-cells') ? [under(0), under(3), pick(), pick()] : [],
    stuck: has('stuck-cells') ? [under(0), pick(), pick()] : [],
  };
}
