import { addDays, dayOf, daysBetween, type DayText, instantOf } from '../quantity/day.js';
import { say } from '../quantity/tongue.js';
import { issue, type Issue, ok, refused, type Result } from '../result/result.js';
import { normal, seededRandom } from '../simulate/random.js';

export interface ForecastInput {
  /** Comparable values, in any order; ISO 8601 times. */
  readonly series: readonly { readonly at: string; readonly value: number }[];
  readonly threshold: number;
  /** Which way is better. */
  readonly direction: 'more' | 'less';
  /** Standard error of measurement, in the measure's unit. */
  readonly sem: number;
  /** ISO 8601. */
  readonly now: string;
  readonly seed: number;
  /** Only the dates are wanted: the band, most of the work, is left empty. */
  readonly withoutBand?: boolean | undefined;
}

/** When a threshold is first met by the trend, not by a lucky reading. Dates are null where it is not within the horizon. */
export interface Forecast {
  readonly medianDate: DayText | null;
  /** Of an interval that holds it four times in five. */
  readonly lowDate: DayText | null;
  readonly highDate: DayText | null;
  /** Share of the draws that meet it within the horizon. */
  readonly share: number;
  /** Draws of the trend on later days, for a band: the middle and 80 % of them. */
  readonly band: readonly {
    readonly day: DayText;
    readonly low: number;
    readonly middle: number;
    readonly high: number;
  }[];
}

export const FEWEST_POINTS = 3;
/** Nothing is said of what lies further ahead. [convention] */
export const HORIZON_DAYS = 365;
const DRAWS = 2000;
const BAND_EVERY_DAYS = 7;
const BAND_DAYS = 84;
const [LOW, HIGH] = [0.1, 0.9];

/**
 * How fast a change levels off, in days: those of weeks, of months, and next to none. Which it is is weighed by how well each
 * fits; before anything is measured a change that levels off within months is the likelier. [convention]
 */
const SHAPES: readonly { readonly tau: number; readonly prior: number }[] = [
  { tau: 10, prior: 0.1 },
  { tau: 21, prior: 0.2 },
  { tau: 42, prior: 0.25 },
  { tau: 84, prior: 0.25 },
  { tau: 168, prior: 0.15 },
  { tau: 2000, prior: 0.05 },
];

/** A person differs from their own smooth trend by more than the measure's error: by this share of it, and of all change so far. [convention] */
const RESTLESS = 0.35;
const UNEVEN = 0.04;
/** Things go on faster or slower than they went: the time ahead differs by a factor with this spread. [convention] */
const OTHERWISE = 0.2;
/** Residuals of more than so many errors count for less (Huber). */
const HUBER = 1.5;
const ROUNDS = 3;

const rise = (t: number, tau: number): number => tau * (1 - Math.exp(-t / tau));

interface Fit {
  readonly tau: number;
  readonly start: number;
  readonly slope: number;
  /** Covariance of start and slope. */
  readonly cov: readonly [ss: number, sb: number, bb: number];
  readonly logLikelihood: number;
}

/** Weighted least squares of start + slope x rise(t), with a faint pull of the slope toward none. */
function fitShape(points: readonly (readonly [t: number, y: number])[], tau: number, error: number): Fit {
  const spread = Math.max(error, ...points.map(([, y]) => Math.abs(y - (points[0]?.[1] ?? 0))));
  const last = Math.max(1, ...points.map(([t]) => rise(t, tau)));
  const pull = (error / ((4 * spread) / last)) ** 2;
  let weights = points.map(() => 1);
  let solved = { start: 0, slope: 0, inverse: [0, 0, 0] as [number, number, number] };
  for (let round = 0; round < ROUNDS; round += 1) {
    let [a, b, d, p, q] = [1e-9, 0, pull, 0, 0];
    points.forEach(([t, y], i) => {
      const [w, x] = [weights[i] ?? 1, rise(t, tau)];
      a += w;
      b += w * x;
      d += w * x * x;
      p += w * y;
      q += w * x * y;
    });
    const det = a * d - b * b;
    solved = {
      start: (d * p - b * q) / det,
      slope: (a * q - b * p) / det,
      inverse: [d / det, -b / det, a / det],
    };
    weights = points.map(([t, y]) => {
      const off = Math.abs(y - solved.start - solved.slope * rise(t, tau)) / error;
      return off <= HUBER ? 1 : HUBER / off;
    });
  }
  const { start, slope, inverse } = solved;
  const misfit = points.reduce((s, [t, y], i) => {
    const off = (y - start - slope * rise(t, tau)) / error;
    return s + (weights[i] ?? 1) * off * off;
  }, 0);
  const variance = error * error;
  return {
    tau,
    start,
    slope,
    cov: [inverse[0] * variance, inverse[1] * variance, inverse[2] * variance],
    logLikelihood: -misfit / 2,
  };
}

const quantile = (sorted: ArrayLike<number>, share: number): number =>
  sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? Number.NaN;

function problemsOf(input: ForecastInput): Issue[] {
  const number = say('a number');
  return [
    ...input.series.flatMap((p, i) => [
      ...(Number.isFinite(p.value) ? [] : [issue(`series.${i}.value`, p.value, number)]),
      ...(Number.isFinite(instantOf(p.at)) ? [] : [issue(`series.${i}.at`, p.at, say('an ISO 8601 time'))]),
    ]),
    ...(Number.isFinite(input.threshold) ? [] : [issue('threshold', input.threshold, number)]),
    ...(input.sem > 0 && Number.isFinite(input.sem)
      ? []
      : [issue('sem', input.sem, say('a number above 0'))]),
    ...(Number.isFinite(instantOf(input.now)) ? [] : [issue('now', input.now, say('an ISO 8601 time'))]),
    ...(Number.isInteger(input.seed) ? [] : [issue('seed', input.seed, say('a whole number'))]),
  ];
}

/** What is said where nothing can be. */
export interface NoForecast {
  readonly why: string;
}

/** Draws of trends: each a shape by its weight, and a start and slope as far as the values let them be. */
function drawsOf(
  fits: readonly Fit[],
  random: () => number,
): (readonly [start: number, slope: number, tau: number])[] {
  const best = Math.max(...fits.map((f) => f.logLikelihood));
  const weights = fits.map((f, i) => (SHAPES[i]?.prior ?? 0) * Math.exp(f.logLikelihood - best));
  const total = weights.reduce((a, b) => a + b, 0);
  return Array.from({ length: DRAWS }, () => {
    let lot = random() * total;
    const at = weights.findIndex((w) => (lot -= w) < 0);
    const { start, slope, tau, cov } = fits[at === -1 ? fits.length - 1 : at] as Fit;
    const u = normal(random, 0, 1);
    const v = normal(random, 0, 1);
    const s = Math.sqrt(Math.max(0, cov[0]));
    const c = s === 0 ? 0 : cov[1] / s;
    return [start + s * u, slope + c * u + Math.sqrt(Math.max(0, cov[2] - c * c)) * v, tau] as const;
  });
}

/** The first day from now on, in days since the first value, on which a drawn trend meets a threshold; infinite where none does. */
function metAt(
  [start, slope, tau]: readonly [number, number, number],
  { threshold, direction }: Pick<ForecastInput, 'threshold' | 'direction'>,
  from: number,
): number {
  const sign = direction === 'more' ? 1 : -1;
  const missing = sign * (threshold - start - slope * rise(from, tau));
  if (missing <= 0) return from;
  const needed = (threshold - start) / (slope * tau);
  if (sign * slope <= 0 || needed >= 1) return Number.POSITIVE_INFINITY;
  return -tau * Math.log(1 - needed);
}

/**
 * When the trend of a measure first meets a threshold: median and 80 % interval over 2 000 draws of trends that level off
 * sooner or later, with the measure's error and a person's own restlessness. With fewer than three values, or all of one
 * day, it says so. The same seed gives the same answer. Made to hold on made-up people: docs/method.md.
 */
export function forecast(input: ForecastInput): Result<Forecast | NoForecast> {
  const problems = problemsOf(input);
  if (problems.length > 0) return refused(...problems);
  const until = instantOf(input.now);
  const series = input.series
    .filter((p) => instantOf(p.at) <= until)
    .sort((a, b) => instantOf(a.at) - instantOf(b.at));
  const [first] = series;
  if (first === undefined || series.length < FEWEST_POINTS)
    return ok({
      why: say('{{n}} comparable values, {{fewest}} are needed', { n: series.length, fewest: FEWEST_POINTS }),
    });
  const begin = dayOf(first.at);
  const points = series.map((p) => [daysBetween(begin, dayOf(p.at)), p.value] as const);
  const from = daysBetween(begin, dayOf(input.now));
  if ((points.at(-1)?.[0] ?? 0) === 0) return ok({ why: say('all values are of one day') });
  const random = seededRandom(input.seed);
  const values = points.map(([, y]) => y);
  const change = Math.max(...values) - Math.min(...values);
  const error = Math.hypot(input.sem, RESTLESS * input.sem, UNEVEN * change);
  const draws = drawsOf(
    SHAPES.map(({ tau }) => fitShape(points, tau, error)),
    random,
  );
  const met = Float64Array.from(
    draws,
    (d) => from + (metAt(d, input, from) - from) * Math.exp(normal(random, 0, OTHERWISE)),
  ).sort();
  const dateOf = (share: number): DayText | null => {
    const at = quantile(met, share);
    return at - from > HORIZON_DAYS ? null : addDays(begin, Math.ceil(at));
  };
  return ok({
    medianDate: dateOf(0.5),
    lowDate: dateOf(LOW),
    highDate: dateOf(HIGH),
    share: met.filter((at) => at - from <= HORIZON_DAYS).length / DRAWS,
    band: input.withoutBand === true ? [] : bandOf(draws, begin, from),
  });
}

function bandOf(
  draws: readonly (readonly [start: number, slope: number, tau: number])[],
  begin: DayText,
  from: number,
): Forecast['band'] {
  return Array.from({ length: BAND_DAYS / BAND_EVERY_DAYS + 1 }, (_, i) => {
    const t = from + i * BAND_EVERY_DAYS;
    const values = Float64Array.from(draws, ([start, slope, tau]) => start + slope * rise(t, tau)).sort();
    return {
      day: addDays(begin, t),
      low: quantile(values, LOW),
      middle: quantile(values, 0.5),
      high: quantile(values, HIGH),
    };
  });
}
