import { lowPass } from '../lab/filter.js';
import { median } from '../quantity/statistics.js';

/** A time on the ground of one leg, in samples. */
export interface GroundTime {
  readonly contact: number;
  readonly heelOff: number;
  readonly toeOff: number;
}

export interface FoundSteps {
  readonly steps: readonly GroundTime[];
  /** Steps whose contact could not be told. */
  readonly missed: number;
}

/** Convention: how a step looks in the angle of the heel against the floor. */
const STEP = {
  /** Toe-off: the heel at least so far above the toes, deg. */
  toeOffBelow: -20,
  /** Contact: the toes were up by at least so much, and then come down at least so fast. */
  toesUp: 7,
  falls: -120,
  /** Heel-off is read back from where the heel is so far up from where it stood flat. */
  heelUp: 4,
  leastSeconds: 0.35,
  mostSeconds: 1.4,
  smoothHz: 14,
} as const;

/** Seconds to either side over which a rate is read. */
const RATE_SECONDS = 0.015;

/** Degrees a second. */
export function rateOf(values: Float64Array, rateHz: number): Float64Array {
  const n = values.length;
  const reach = Math.max(1, Math.round(RATE_SECONDS * rateHz));
  return Float64Array.from({ length: n }, (_, i) => {
    const [a, b] = [Math.max(0, i - reach), Math.min(n - 1, i + reach)];
    return (((values[b] as number) - (values[a] as number)) * rateHz) / Math.max(1, b - a);
  });
}

/** Moments at which the toes leave: the lowest point of each dip of the pitch. */
function toeOffs(pitch: Float64Array, rateHz: number): number[] {
  const out: number[] = [];
  const apart = STEP.leastSeconds * rateHz;
  for (let i = 1; i + 1 < pitch.length; i += 1) {
    const v = pitch[i] as number;
    if (v > STEP.toeOffBelow || v > (pitch[i - 1] as number) || v >= (pitch[i + 1] as number)) continue;
    const last = out.at(-1);
    if (last === undefined || i - last > apart) out.push(i);
    else if (v < (pitch[last] as number)) out[out.length - 1] = i;
  }
  return out;
}

/** The moment between two toe-offs at which the heel strikes; null where the toes were not up before it. */
function contactBetween(pitch: Float64Array, rate: Float64Array, from: number, to: number): number | null {
  let peak = from;
  for (let i = from; i < to; i += 1) if ((pitch[i] as number) > (pitch[peak] as number)) peak = i;
  if ((pitch[peak] as number) < STEP.toesUp) return null;
  for (let i = peak; i < to; i += 1) if ((rate[i] as number) < STEP.falls) return i;
  return null;
}

/**
 * The moment the heel leaves: read back from where it is surely up. A heel begins to rise as the square of the time, so that it
 * has been on its way for twice its height over its rate.
 */
function heelOffOf(
  pitch: Float64Array,
  rate: Float64Array,
  rateHz: number,
  [contact, toeOff]: readonly [number, number],
): number {
  const span = toeOff - contact;
  const flat =
    median([...pitch.slice(contact + Math.round(span * 0.18), contact + Math.round(span * 0.33))]) ?? 0;
  let up = toeOff;
  while (up > contact && (pitch[up] as number) <= flat - STEP.heelUp) up -= 1;
  const falling = -(rate[up + 1] ?? 0);
  if (falling <= 0) return up + 1;
  const since = (2 * (flat - (pitch[up + 1] as number)) * rateHz) / falling;
  return Math.max(contact, Math.round(up + 1 - since));
}

/** Finds the times on the ground of one leg from the angle of its heel against the floor, deg. */
export function groundTimes(pitchDeg: Float32Array, rateHz: number): FoundSteps {
  const pitch = lowPass(pitchDeg, rateHz, STEP.smoothHz);
  const rate = rateOf(pitch, rateHz);
  const offs = toeOffs(pitch, rateHz);
  const steps: GroundTime[] = [];
  let missed = 0;
  for (let k = 1; k < offs.length; k += 1) {
    const [from, to] = [offs[k - 1] as number, offs[k] as number];
    // A pause between two walks is not a step.
    if ((to - from) / rateHz > 2 * STEP.mostSeconds) continue;
    const contact = contactBetween(pitch, rate, from, to);
    const seconds = contact === null ? 0 : (to - contact) / rateHz;
    if (contact === null || seconds < STEP.leastSeconds || seconds > STEP.mostSeconds) missed += 1;
    else steps.push({ contact, heelOff: heelOffOf(pitch, rate, rateHz, [contact, to]), toeOff: to });
  }
  return { steps, missed };
}
