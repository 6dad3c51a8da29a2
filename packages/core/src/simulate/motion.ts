import type { LabTask } from '../lab/task.js';
import type { Side } from '../quantity/side.js';
import type { Angles, MotionHeader, MotionRecording } from '../recording/recording.js';
import { RECORDING_LIMITS } from '../recording/recording.js';
import { collector } from '../recording/collect.js';
import { smooth, squatDepth } from './matTasks.js';
import type { MotionMistake } from './mistakes.js';
import { normal, seededRandom } from './random.js';
import type { FootTruth, Walker, WaveTruth } from './walker.js';

export interface MotionScript {
  readonly walker: Walker;
  readonly task: LabTask;
  readonly side: Side | 'both';
  readonly seed: number;
  readonly mistakes: readonly MotionMistake[];
  readonly perfect?: boolean;
}

const RATE = 200;
const STILL_SECONDS = 2.5;
/** Time on the ground over the time of a stride. */
const STANCE_SHARE = 0.62;
const PITCH = { contact: 18, swing: 20, toeOff: -58, flatBy: 0.12 } as const;
const SLIPPED = { at: 11, deg: 7 } as const;

/** Half a swing of a cosine from 0 to 1. */
const ease = (x: number): number => (1 - Math.cos(Math.PI * Math.min(1, Math.max(0, x)))) / 2;

/** Heel against shin at a share of the time on the ground. */
function waveAt(w: WaveTruth, s: number): number {
  const top = w.contact + w.amplitude;
  if (s <= w.peakAt) return w.contact + w.amplitude * ease(s / w.peakAt);
  const from = w.peakAt + w.plateau;
  return s <= from ? top : top + (w.toeOff - top) * ease((s - from) / (1 - from));
}

/** The heel against the floor at a share of the time on the ground. */
const pitchAt = (heelOff: number, s: number): number =>
  s < PITCH.flatBy
    ? PITCH.contact * (1 - ease(s / PITCH.flatBy))
    : s < heelOff
      ? 0
      : PITCH.toeOff * (1 - Math.cos((Math.PI / 2) * ((s - heelOff) / (1 - heelOff))));

interface Step {
  readonly from: number;
  readonly seconds: number;
  readonly strength: number;
  readonly offset: number;
  readonly missed: boolean;
}

/** Steps of one leg: alternate with the other's, each a little different. */
function stepsOf(foot: FootTruth, script: MotionScript): Step[] {
  const random = seededRandom(script.seed * 197 + (foot.side === 'left' ? 1 : 2));
  const stride = foot.contactSeconds / STANCE_SHARE;
  const steps: Step[] = [];
  let from = STILL_SECONDS + (foot.side === 'left' ? 0.4 : 0.4 + stride / 2);
  for (let i = 0; from < 90; i += 1) {
    const vary = script.perfect === true ? 0 : 1;
    steps.push({
      from,
      seconds: foot.contactSeconds * normal(random, 1, 0.02 * vary),
      strength: normal(random, 1, 0.06 * vary),
      offset: normal(random, 0, 0.4 * vary),
      missed: script.mistakes.includes('missed-contact') && i % 4 === 2,
    });
    from += stride * normal(random, 1, 0.02 * vary);
  }
  return steps;
}

const between = (a: number, b: number, x: number): number => a + (b - a) * x;

/** Heel against shin, shin and pitch of a leg at a moment of walking. */
function walkingAt(foot: FootTruth, steps: readonly Step[], t: number): Angles {
  const { wave, heelOff } = foot;
  const next = steps.findIndex((s) => s.from > t);
  const i = (next < 0 ? steps.length : next) - 1;
  const step = steps[i];
  // Before the first step the foot stands flat.
  if (step === undefined) return [0, wave.rest, 0];
  const scaled = (s: number): number =>
    wave.contact + (waveAt(wave, s) - wave.contact) * step.strength + step.offset;
  const shin = (s: number): number => wave.shin * Math.sin(Math.PI * s);
  const flat = step.missed ? 0.2 : 1;
  const s = (t - step.from) / step.seconds;
  if (s < 1) {
    const pitch = pitchAt(heelOff, s);
    return [shin(s), scaled(s) + shin(s), s < heelOff ? pitch * flat : pitch];
  }
  const coming = steps[i + 1];
  const swing =
    coming === undefined ? 1 : (t - step.from - step.seconds) / (coming.from - step.from - step.seconds);
  const to = wave.contact + (coming?.offset ?? 0);
  const rear = between(scaled(1), to, ease(swing));
  const land = coming?.missed === true ? 0.2 : 1;
  const pitch =
    swing < 0.75
      ? between(PITCH.toeOff, PITCH.swing * land, smooth(swing / 0.75))
      : between(PITCH.swing * land, PITCH.contact * land, (swing - 0.75) / 0.25);
  return [0, rear, pitch];
}

/** In a squat the whole leg and foot tip in together, or the heel turns under the shin. */
export const squatTurn = (foot: FootTruth): { shin: number; heel: number } =>
  foot.tip > 0.5
    ? { shin: 9 + 2 * foot.tip, heel: 8 + 2 * foot.tip }
    : { shin: 2, heel: 2 + foot.wave.amplitude * 0.45 };

function squattingAt(foot: FootTruth, t: number): Angles {
  const depth = squatDepth(t - 0.5);
  const turn = squatTurn(foot);
  return [turn.shin * depth, foot.wave.rest + turn.heel * depth, 0];
}

export interface SimulatedMotion {
  readonly header: MotionHeader;
  readonly seconds: number;
  /** Null where the sample is lost. */
  readonly sample: (n: number) => { readonly left: Angles | null; readonly right: Angles | null } | null;
  readonly cutAt: number | null;
  readonly rubbishAt: (n: number) => boolean;
}

/** A made-up motion pair on both legs of a made-up person: the same script gives the same samples. */
export function simulateMotion(script: MotionScript): SimulatedMotion {
  const { walker, mistakes } = script;
  const has = (m: MotionMistake) => mistakes.includes(m);
  const steps = { left: stepsOf(walker.feet.left, script), right: stepsOf(walker.feet.right, script) };
  const putting = seededRandom(script.seed * 389 + 7);
  const placed = () => ({ offset: normal(putting, 0, 1.2), scale: normal(putting, 1, 0.05) });
  const put = { left: placed(), right: placed() };
  const angles = (side: Side, n: number): Angles => {
    const t = n / RATE;
    const foot = walker.feet[side];
    const clean =
      script.task === 'squat'
        ? squattingAt(foot, t)
        : script.task === 'walk'
          ? walkingAt(foot, steps[side], t)
          : ([0, foot.wave.rest, 0] as const);
    if (script.perfect === true) return clean;
    const random = seededRandom(script.seed * 48_611 + n * 2 + (side === 'left' ? 0 : 1));
    // The sensors are put on anew for each capture: never quite in line, never quite as stiff.
    const slipped = has('slipped') && side === 'right' && t > SLIPPED.at ? SLIPPED.deg : 0;
    const drift = has('drift') ? 0.12 * t : 0;
    return [
      clean[0] + normal(random, 0, 0.35),
      clean[0] +
        (clean[1] - clean[0]) * put[side].scale +
        put[side].offset +
        normal(random, 0, 0.35) +
        slipped +
        drift,
      clean[2] + normal(random, 0, 0.6),
    ];
  };
  return {
    header: {
      kind: 'motion-pair',
      name: 'Simulated motion pair',
      rateHz: RATE,
      calibratedOn: null,
      simulated: true,
      task: script.task,
      side: script.side,
    },
    seconds: script.task === 'squat' ? 16 : 30,
    sample: (n) =>
      has('lost-frames') && seededRandom(script.seed * 77 + n)() < 0.08
        ? null
        : { left: angles('left', n), right: has('one-leg') ? null : angles('right', n) },
    cutAt: has('breaks-off') ? 900 : null,
    rubbishAt: (n) => has('rubbish') && n % 37 === 36,
  };
}

/** Plays a made-up pair for so many seconds into a recording. */
export function recordMotion(sim: SimulatedMotion, seconds = sim.seconds): MotionRecording {
  const kept = collector();
  kept.begin(sim.header);
  for (let n = 0; n < Math.min(seconds, RECORDING_LIMITS.seconds) * RATE; n += 1) {
    const s = sim.sample(n);
    if (s !== null) kept.motion(n / RATE, s.left, s.right);
  }
  return kept.recording() as MotionRecording;
}

/** What a walking capture of a made-up foot should give, from its wave. */
export function waveTruth(foot: FootTruth): Readonly<Record<string, number>> {
  const { wave, heelOff, contactSeconds } = foot;
  const grid = Array.from({ length: 2001 }, (_, i) => i / 2000);
  const top = wave.contact + wave.amplitude;
  const high = grid.filter((s) => waveAt(wave, s) >= top - 0.05 * wave.amplitude);
  return {
    amplitude: wave.amplitude,
    rate: (wave.amplitude * Math.PI) / (2 * wave.peakAt * contactSeconds),
    peakTime: (100 * ((high[0] ?? 0) + (high.at(-1) ?? 0))) / 2,
    duration: (100 * grid.filter((s) => waveAt(wave, s) > wave.rest).length) / grid.length,
    heelOff: 100 * heelOff,
    atHeelOff: waveAt(wave, heelOff) - wave.rest,
    late: waveAt(wave, 0.9) - wave.rest,
    contactMs: contactSeconds * 1000,
  };
}
