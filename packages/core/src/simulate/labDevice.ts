import type { LabTask } from '../lab/task.js';
import { COUNTDOWN_SECONDS } from '../lab/session.js';
import type { Side } from '../quantity/side.js';
import { PER_KPA, type RecordingKind } from '../recording/recording.js';
import { legsLine, runsOf } from '../recording/write.js';
import type { SimulatedDevice } from './device.js';
import { simulateMat } from './mat.js';
import { MAT_MISTAKES, MOTION_MISTAKES } from './mistakes.js';
import { simulateMotion } from './motion.js';
import { walkerOf } from './walker.js';

/** What a made-up person does on a made-up instrument. */
export interface LabScript {
  readonly kind: RecordingKind;
  /** Which made-up person: a whole number from 1. */
  readonly who: number;
  /** What they weigh; null for what they do of themselves. */
  readonly massKg: number | null;
  readonly task: LabTask;
  readonly side: Side | 'both';
  readonly seed: number;
  readonly mistakes: readonly string[];
}

/** They step on when whoever captures has counted down. */
const AWAITED_SECONDS = COUNTDOWN_SECONDS + 0.3;

const RUBBISH = '{"type":"frame","t":oops';
const round = (v: number): number => Math.round(v * 100) / 100;

function hello(header: object, unit: string, who: number): string {
  const named = header as { name: string };
  return JSON.stringify({
    type: 'hello',
    version: 1,
    unit,
    ...header,
    name: `${named.name}, made-up person ${who}`,
  });
}

const walkerFor = ({ who, massKg }: LabScript) => {
  const walker = walkerOf(who);
  return massKg === null ? walker : { ...walker, massKg };
};

function matDevice(script: LabScript): SimulatedDevice {
  const { who, task, side, seed, mistakes } = script;
  const sim = simulateMat({
    walker: walkerFor(script),
    task,
    side,
    seed,
    mistakes: MAT_MISTAKES.filter((m) => mistakes.includes(m)),
  });
  const { rateHz, columns, rows } = sim.header;
  const kpa = new Float32Array(columns * rows);
  const cells = new Uint16Array(columns * rows);
  const awaited = Math.round(AWAITED_SECONDS * rateHz);
  return {
    rateHz,
    hello: hello(sim.header, 'kPa', who),
    line(n) {
      const t = round(n / rateHz);
      if (sim.rubbishAt(n) && n > awaited) return RUBBISH;
      if (n < awaited) return `{"type":"frame","t":${t},"runs":[]}`;
      if (!sim.frame(n - awaited, kpa)) return null;
      for (let c = 0; c < cells.length; c += 1) cells[c] = Math.round((kpa[c] as number) * PER_KPA);
      return `{"type":"frame","t":${t},"runs":${runsOf(cells, 0, cells.length)}}`;
    },
    cutAt: sim.cutAt === null ? null : sim.cutAt + awaited,
  };
}

function pairDevice(script: LabScript): SimulatedDevice {
  const { who, task, side, seed, mistakes } = script;
  const sim = simulateMotion({
    walker: walkerFor(script),
    task,
    side,
    seed,
    mistakes: MOTION_MISTAKES.filter((m) => mistakes.includes(m)),
  });
  const { rateHz } = sim.header;
  const awaited = Math.round(AWAITED_SECONDS * rateHz);
  return {
    rateHz,
    hello: hello(sim.header, 'deg', who),
    line(n) {
      if (sim.rubbishAt(n) && n > awaited) return RUBBISH;
      // Until they are counted in they stand still.
      const sample = sim.sample(n < awaited ? n % 40 : n - awaited);
      const t = Math.round((n / rateHz) * 1e4) / 1e4;
      return sample === null ? null : `{"type":"frame","t":${t},${legsLine(sample.left, sample.right)}}`;
    },
    cutAt: sim.cutAt === null ? null : sim.cutAt + awaited,
  };
}

/** A made-up mat or motion pair under a made-up person, line by line as docs/devices.md describes. */
export const simulateLab = (script: LabScript): SimulatedDevice =>
  script.kind === 'pressure-mat' ? matDevice(script) : pairDevice(script);
