import { meanOf, spreadOf } from '../lab/filter.js';
import type { Quantities } from '../lab/report.js';
import type { LabTask } from '../lab/task.js';
import { analyseMat } from '../mat/analyse.js';
import { analyseMotion } from '../motion/analyse.js';
import { type Side, SIDES } from '../quantity/side.js';
import type { RecordingKind } from '../recording/recording.js';
import { simulateMat } from './mat.js';
import { balanceTruth, raiseTruth, squatTruth, stanceTruth, walkTruth } from './matTruth.js';
import { recordMotion, simulateMotion, squatTurn, waveTruth } from './motion.js';
import { recordMat } from './recordMat.js';
import { type Walker, walkerOf } from './walker.js';

/** What is captured of each made-up person: instrument, task, and how long. */
export interface LabCase {
  readonly instrument: RecordingKind;
  readonly task: LabTask;
  readonly seconds: number;
}

export const LAB_CASES: readonly LabCase[] = [
  { instrument: 'pressure-mat', task: 'stance', seconds: 4 },
  { instrument: 'pressure-mat', task: 'balance', seconds: 24 },
  { instrument: 'pressure-mat', task: 'squat', seconds: 16 },
  { instrument: 'pressure-mat', task: 'raise', seconds: 26 },
  { instrument: 'pressure-mat', task: 'walk', seconds: 13 },
  { instrument: 'motion-pair', task: 'walk', seconds: 14 },
  { instrument: 'motion-pair', task: 'squat', seconds: 16 },
];

interface Captured {
  readonly quantities: Quantities;
  readonly truth: (side: Side) => Readonly<Record<string, number>>;
  readonly refused: boolean;
}

/** Captures a made-up person once; another `go` is another placing, other steps and other noise. */
export function captured(walker: Walker, c: LabCase, go: number): Captured {
  const seed = walker.seed * 13 + go;
  if (c.instrument === 'motion-pair') {
    const sim = simulateMotion({ walker, task: c.task, side: 'both', seed, mistakes: [] });
    const report = analyseMotion(recordMotion(sim, c.seconds), { task: c.task, side: 'both' });
    const truth = (side: Side): Readonly<Record<string, number>> => {
      const foot = walker.feet[side];
      if (c.task === 'walk') return waveTruth(foot);
      const { heel, shin } = squatTurn(foot);
      return { heelTurn: heel, shinTurn: shin, underShin: heel - shin };
    };
    return { quantities: report.quantities, truth, refused: report.notes.some((n) => n.level === 'refuse') };
  }
  const side = c.task === 'balance' ? (SIDES[walker.seed % 2] as Side) : 'both';
  const sim = simulateMat({ walker, task: c.task, side, seed, mistakes: [] });
  const report = analyseMat(recordMat(sim, c.seconds), {
    task: c.task,
    side,
    massKg: walker.massKg,
    factor: null,
  });
  return {
    quantities: report.quantities,
    truth: (s) => matTruthOf(sim, walker, c, s),
    refused: report.notes.some((n) => n.level === 'refuse'),
  };
}

function matTruthOf(
  sim: ReturnType<typeof simulateMat>,
  walker: Walker,
  { task, seconds }: LabCase,
  side: Side,
): Readonly<Record<string, number>> {
  const seen = { ...sim, seconds: Math.min(sim.seconds, seconds) };
  switch (task) {
    case 'stance':
      return stanceTruth(seen, walker, side);
    case 'balance':
      return balanceTruth(seen, walker, side);
    case 'squat':
      return squatTruth(seen, walker, side);
    case 'raise':
      return raiseTruth(seen, side);
    case 'walk':
      return walkTruth(seen, walker, side);
  }
}

/** How near a quantity comes to the truth, and to itself. */
export interface Agreement {
  readonly instrument: RecordingKind;
  readonly task: LabTask;
  readonly quantity: string;
  readonly n: number;
  readonly bias: number;
  readonly sd: number;
  /** 95 in 100 differences lie between. */
  readonly limits: readonly [low: number, high: number];
  /** The smallest difference between two captures that is not repeat error, 95 %. */
  readonly mdc: number;
}

/**
 * Captures every made-up person twice, and compares what is told with the truth, and with what was told before. A capture
 * that is refused throws: none of these should be.
 */
export function labAgreement(
  seeds: readonly number[],
  cases: readonly LabCase[] = LAB_CASES,
): readonly Agreement[] {
  return cases.flatMap((c) => {
    const off = new Map<string, number[]>();
    const apart = new Map<string, number[]>();
    const put = (into: Map<string, number[]>, name: string, v: number): void => {
      into.set(name, [...(into.get(name) ?? []), v]);
    };
    for (const seed of seeds) {
      const walker = walkerOf(seed);
      const [one, two] = [captured(walker, c, 1), captured(walker, c, 2)];
      if (one.refused || two.refused)
        throw new Error(`${c.instrument} ${c.task}: person ${seed} was refused`);
      for (const side of SIDES) {
        const [a, b] = [one.quantities[side], two.quantities[side]];
        if (Object.keys(a).length === 0) continue;
        const truth = one.truth(side);
        for (const [name, v] of Object.entries(truth)) {
          const [first, second] = [a[name], b[name]];
          if (first !== undefined) put(off, name, first.value - v);
          if (first !== undefined && second !== undefined) put(apart, name, first.value - second.value);
        }
      }
    }
    return [...off].map(([quantity, list]) => {
      const [bias, sd] = [meanOf(list), spreadOf(list)];
      const pairs = apart.get(quantity) ?? [];
      const sem = Math.sqrt(pairs.reduce((s, d) => s + d * d, 0) / (2 * Math.max(1, pairs.length)));
      return {
        instrument: c.instrument,
        task: c.task,
        quantity,
        n: list.length,
        bias,
        sd,
        limits: [bias - 1.96 * sd, bias + 1.96 * sd] as const,
        mdc: 1.96 * Math.SQRT2 * sem,
      };
    });
  });
}
