import { lowPass, meanOf } from '../lab/filter.js';
import { known, type Quantity, several } from '../lab/report.js';
import { median } from '../quantity/statistics.js';
import type { GroundTime } from './steps.js';
import { rateOf } from './steps.js';

/** Points of a step from contact to toe-off, both included. */
export const WAVE_POINTS = 101;

/** One step: its wave and its numbers. */
interface WaveStep {
  readonly at: GroundTime;
  readonly wave: Float64Array;
  readonly quantities: Readonly<Record<string, number>>;
}

/** The waves of a leg together. */
export interface Ensemble {
  readonly steps: readonly WaveStep[];
  /** Left out, as they lie far from the others. */
  readonly outliers: number;
  readonly mean: Float64Array;
  readonly spread: Float64Array;
  /** Heel against shin in standing; null where nobody stood still. */
  readonly rest: number | null;
}

const SMOOTH_HZ = 10;
/** How near the peak still counts as the peak, share of the amplitude. */
const NEAR_PEAK = 0.05;
/** Where in the time on the ground the heel should have turned back, share. */
const LATE = 0.9;

const at = (values: Float64Array, place: number): number => {
  const i = Math.floor(place);
  const f = place - i;
  const a = values[Math.min(values.length - 1, i)] as number;
  const b = values[Math.min(values.length - 1, i + 1)] as number;
  return a + (b - a) * f;
};

/** Heel against shin, smoothed. */
export function rearfoot(shin: Float32Array, heel: Float32Array, rateHz: number): Float64Array {
  return lowPass(
    Float64Array.from(heel, (h, i) => h - (shin[i] as number)),
    rateHz,
    SMOOTH_HZ,
  );
}

function stepOf(
  angle: Float64Array,
  rate: Float64Array,
  g: GroundTime,
  how: { rateHz: number; rest: number | null },
): WaveStep {
  const span = g.toeOff - g.contact;
  const wave = Float64Array.from({ length: WAVE_POINTS }, (_, k) =>
    at(angle, g.contact + (span * k) / (WAVE_POINTS - 1)),
  );
  let peak = 0;
  for (let k = 1; k < WAVE_POINTS; k += 1) if ((wave[k] as number) > (wave[peak] as number)) peak = k;
  const contact = wave[0] as number;
  const top = wave[peak] as number;
  const amplitude = top - contact;
  let [first, last] = [peak, peak];
  while (first > 0 && (wave[first - 1] as number) >= top - NEAR_PEAK * amplitude) first -= 1;
  while (last < WAVE_POINTS - 1 && (wave[last + 1] as number) >= top - NEAR_PEAK * amplitude) last += 1;
  const to = Math.max(g.contact + 1, Math.round(g.contact + (span * peak) / (WAVE_POINTS - 1)));
  let fastest = -Infinity;
  for (let i = g.contact; i <= to; i += 1) fastest = Math.max(fastest, rate[i] as number);
  const rest = how.rest ?? Number.NaN;
  const beyond = wave.reduce((n, v) => (v > rest ? n + 1 : n), 0);
  return {
    at: g,
    wave,
    quantities: {
      amplitude,
      rate: fastest,
      peakTime: (100 * (first + last)) / 2 / (WAVE_POINTS - 1),
      duration: how.rest === null ? Number.NaN : (100 * beyond) / WAVE_POINTS,
      heelOff: (100 * (g.heelOff - g.contact)) / span,
      atHeelOff: at(angle, g.heelOff) - rest,
      late: (wave[Math.round(LATE * (WAVE_POINTS - 1))] as number) - rest,
      contactMs: (1000 * span) / how.rateHz,
    },
  };
}

const STILL = { seconds: 1, within: 1.5 } as const;

/** Heel against shin in the first second, where it was still. */
export function restOf(angle: Float64Array, pitch: Float32Array, rateHz: number): number | null {
  const n = Math.round(STILL.seconds * rateHz);
  if (angle.length < n) return null;
  const low = (v: ArrayLike<number>): number => {
    const smoothed = lowPass(v, rateHz, 3).slice(0, n);
    return Math.max(...smoothed) - Math.min(...smoothed);
  };
  return low(angle) <= STILL.within && low(pitch) <= 2 * STILL.within ? meanOf(angle, 0, n - 1) : null;
}

/** Steps this many times farther from the mean than the usual one are left out, and never those within 3 degrees. */
const OUTLIER = { times: 3, leastDeg: 3 } as const;

const away = (wave: Float64Array, from: Float64Array): number =>
  Math.sqrt(wave.reduce((s, v, i) => s + (v - (from[i] as number)) ** 2, 0) / wave.length);

const meanWave = (steps: readonly WaveStep[]): Float64Array =>
  Float64Array.from({ length: WAVE_POINTS }, (_, k) => meanOf(steps.map((s) => s.wave[k] as number)));

/** Lays the steps of a leg over each other. */
export function ensembleOf(
  angle: Float64Array,
  times: readonly GroundTime[],
  how: { readonly rateHz: number; readonly rest: number | null },
): Ensemble {
  const rate = rateOf(angle, how.rateHz);
  const all = times.map((g) => stepOf(angle, rate, g, how));
  const middle = Float64Array.from(
    { length: WAVE_POINTS },
    (_, k) => median(all.map((s) => s.wave[k] as number)) ?? Number.NaN,
  );
  const usual = median(all.map((s) => away(s.wave, middle))) ?? 0;
  const limit = Math.max(OUTLIER.leastDeg, OUTLIER.times * usual);
  const steps = all.filter((s) => away(s.wave, middle) <= limit);
  const mean = meanWave(steps);
  const spread = Float64Array.from({ length: WAVE_POINTS }, (_, k) =>
    steps.length < 2
      ? 0
      : Math.sqrt(
          steps.reduce((s, step) => s + ((step.wave[k] as number) - (mean[k] as number)) ** 2, 0) /
            (steps.length - 1),
        ),
  );
  return { steps, outliers: all.length - steps.length, mean, spread, rest: how.rest };
}

/** The numbers of a leg over its steps. */
export function waveQuantities(e: Ensemble): Readonly<Record<string, Quantity>> {
  const names = Object.keys(e.steps[0]?.quantities ?? {});
  return known(
    Object.fromEntries(
      names.map((name) => [name, several(e.steps.map((s) => s.quantities[name] as number))]),
    ),
  );
}
