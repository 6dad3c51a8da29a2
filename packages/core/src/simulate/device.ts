import type { SignalKind } from '../signal/frames.js';
import { normal, seededRandom } from './random.js';

/** The classic mistakes of measuring, each of which the bench has to catch. */
export type DeviceMistake =
  | 'tilt'
  | 'heel-lift'
  | 'self-held'
  | 'late-trigger'
  | 'drop-outs'
  | 'drift'
  | 'rubbish'
  | 'cut'
  | 'silence';

export const DEVICE_MISTAKES: readonly DeviceMistake[] = [
  'tilt',
  'heel-lift',
  'self-held',
  'late-trigger',
  'drop-outs',
  'drift',
  'rubbish',
  'cut',
  'silence',
];

export interface DeviceScript {
  readonly kind: SignalKind;
  /** What a perfect device would read at the end of the movement, in its unit. */
  readonly truth: number;
  readonly seed: number;
  readonly mistakes: readonly DeviceMistake[];
}

interface Shape {
  readonly rateHz: number;
  readonly unit: string;
  readonly noise: number;
  readonly rest: number;
  /** Seconds resting, moving, holding and letting go of one trial. */
  readonly phases: readonly [rest: number, up: number, hold: number, down: number];
  /** Spread of the true value from trial to trial, as a share of it. */
  readonly trialShare: number;
}

const SHAPES: Readonly<Record<SignalKind, Shape>> = {
  inclinometer: { rateHz: 20, unit: 'deg', noise: 0.25, rest: 0, phases: [1, 1.2, 2, 0.8], trialShare: 0.02 },
  dynamometer: { rateHz: 50, unit: 'N', noise: 1, rest: 0, phases: [1.2, 0.5, 2.5, 0.4], trialShare: 0.03 },
  thermometer: { rateHz: 4, unit: 'C', noise: 0.05, rest: 20, phases: [1, 1.5, 4, 1], trialShare: 0.002 },
};

const DRIFT_PER_SECOND = 0.05;
const RUBBISH_EVERY = 37;
const CUT_AFTER_SECONDS = 2.9;
const SILENT_AFTER_SECONDS = 2.9;

/** How far along the movement a moment is, 0 at rest, 1 held. */
function progress(t: number, phases: Shape['phases']): number {
  const [rest, up, hold, down] = phases;
  const within = t % (rest + up + hold + down);
  if (within < rest) return 0;
  if (within < rest + up) return (1 - Math.cos((Math.PI * (within - rest)) / up)) / 2;
  if (within < rest + up + hold) return 1;
  return (1 + Math.cos((Math.PI * (within - rest - up - hold)) / down)) / 2;
}

export interface SimulatedDevice {
  readonly rateHz: number;
  readonly hello: string;
  /** The line of the n-th sample; null where the device drops it. */
  readonly line: (n: number) => string | null;
  /** The sample before which the connection is cut; null when it is not. */
  readonly cutAt: number | null;
}

/** A made-up instrument with a hidden truth: the same script gives the same lines, sample by sample. */
export function simulateDevice(script: DeviceScript): SimulatedDevice {
  const shape = SHAPES[script.kind];
  const has = (m: DeviceMistake) => script.mistakes.includes(m);
  const cycle = shape.phases.reduce((a, b) => a + b, 0);
  const trialValue = (trial: number): number =>
    script.truth * (1 + shape.trialShare * normal(seededRandom(script.seed * 7919 + trial), 0, 1));
  const hello = JSON.stringify({
    type: 'hello',
    version: 1,
    kind: script.kind,
    name: `Simulated ${script.kind}`,
    unit: shape.unit,
    rateHz: shape.rateHz,
    calibratedOn: null,
    heldBy: has('self-held') ? 'self' : 'another',
    simulated: true,
  });
  const line = (n: number): string | null => {
    const started = has('late-trigger') ? shape.phases[0] + shape.phases[1] + 0.3 : 0;
    const t = n / shape.rateHz;
    if (has('silence') && t > SILENT_AFTER_SECONDS) return null;
    const random = seededRandom(script.seed * 104_729 + n);
    if (has('drop-outs') && random() < 0.25) return null;
    if (has('rubbish') && n % RUBBISH_EVERY === RUBBISH_EVERY - 1) return '{"type":"sample","t":oops';
    const at = t + started;
    const target = trialValue(Math.floor(at / cycle));
    const clean = shape.rest + (target - shape.rest) * progress(at, shape.phases);
    const value = clean + normal(random, 0, shape.noise) + (has('drift') ? DRIFT_PER_SECOND * t : 0);
    return JSON.stringify({
      type: 'sample',
      t: Number(t.toFixed(3)),
      value: Number(value.toFixed(2)),
      ...(script.kind === 'inclinometer'
        ? {
            tiltDeg: Number(((has('tilt') ? 16 : 2) + normal(random, 0, 0.5)).toFixed(1)),
            heelLiftMm: has('heel-lift') && progress(at, shape.phases) > 0.8 ? 12 : 0,
          }
        : {}),
    });
  };
  const cutAt = has('cut') ? Math.ceil(CUT_AFTER_SECONDS * shape.rateHz) : null;
  return { rateHz: shape.rateHz, hello, line, cutAt };
}
