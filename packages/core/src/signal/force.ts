import { mean } from '../quantity/statistics.js';

export interface ForceResult {
  readonly peakN: number;
  /** Mean of the best whole second, or of the whole push when it is shorter. */
  readonly bestSecondN: number;
  /** Steepest rise over a fifth of a second, newton a second. */
  readonly riseNPerS: number;
  readonly seconds: number;
}

const WINDOW_SECONDS = 1;
const RISE_SECONDS = 0.2;

/** Peak, best second and rate of rise of one push; null for no samples. Times in seconds, growing. */
export function forceOf(
  push: readonly { readonly t: number; readonly newton: number }[],
): ForceResult | null {
  const [first] = push;
  const last = push.at(-1);
  if (first === undefined || last === undefined) return null;
  const within = (from: number, seconds: number) =>
    push.filter((p) => p.t >= from - 1e-9 && p.t <= from + seconds + 1e-9);
  const whole = last.t - first.t >= WINDOW_SECONDS - 1e-9;
  const starts = whole ? push.filter((p) => p.t + WINDOW_SECONDS <= last.t + 1e-9) : [first];
  const bestSecondN = Math.max(
    ...starts.map((s) => mean(within(s.t, whole ? WINDOW_SECONDS : Infinity).map((p) => p.newton)) as number),
  );
  const rises = push.map((p) => {
    const end = within(p.t, RISE_SECONDS).at(-1) ?? p;
    return end.t === p.t ? 0 : (end.newton - p.newton) / (end.t - p.t);
  });
  return {
    peakN: Math.max(...push.map((p) => p.newton)),
    bestSecondN,
    riseNPerS: Math.max(0, ...rises),
    seconds: last.t - first.t,
  };
}

/** Torque in Nm from a force square to a lever arm in cm, and per kg of body mass where that is known. */
export function torqueOf(
  newton: number,
  leverCm: number,
  bodyMassKg: number | null,
): { nm: number; nmPerKg: number | null } {
  const nm = (newton * leverCm) / 100;
  return { nm, nmPerKg: bodyMassKg === null || bodyMassKg <= 0 ? null : nm / bodyMassKg };
}
