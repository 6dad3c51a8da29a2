import {
  type Forecast,
  forecast,
  FEWEST_POINTS,
  HORIZON_DAYS,
  type NoForecast,
} from '../forecast/forecast.js';
import type { MeasureDefinition } from '../measure/definition.js';
import { semAt } from '../measure/error.js';
import { addDays, dayOf, daysBetween, type DayText } from '../quantity/day.js';
import { orThrow } from '../result/result.js';
import type { SimulatedEpisode } from './episode.js';
import { seededRandom } from './random.js';

/** Forecasts held against what came true. */
export interface Calibration {
  /** Values the forecast was made on. */
  readonly points: number;
  readonly forecasts: number;
  /** The day lay within the 80 % interval, before it, or after it. */
  readonly within: number;
  readonly sooner: number;
  readonly later: number;
}

/** So long a course has to go on after a forecast for it to be held against what came. */
const LEFT_DAYS = 56;
/** Pain varies by about 1 from day to day in people who do not change. */
const DAILY_PAIN = 1;
/** Where no error is known, this share of the usual range. */
const ERROR_SHARE = 0.02;

const isForecast = (f: Forecast | NoForecast): f is Forecast => !('why' in f);

/** Forecasts of each leading measure after 3, 4, 5 ... takes, of a threshold some way ahead, against the true trend. */
export function calibrationOf(
  e: SimulatedEpisode,
  from: DayText,
  measureOf: (key: string) => MeasureDefinition | undefined,
): Calibration[] {
  const random = seededRandom(e.person.seed ^ 0x2c9277b5);
  return Object.entries(e.truth.trends).flatMap(([key, trend]) => {
    const m = measureOf(key);
    if (m === undefined || m.direction === 'target') return [];
    const direction = m.direction;
    const takes = e.measures.filter(
      (t) => t.measure === key && t.value !== null && (t.side === 'none' || t.side === e.person.side),
    );
    return takes.flatMap((take, i) => {
      const now = dayOf(take.at);
      const at = daysBetween(from, now);
      if (i + 1 < FEWEST_POINTS || trend.length - at < LEFT_DAYS) return [];
      const standing = trend[at] ?? 0;
      const last = trend.at(-1) ?? standing;
      // Ahead by a part of what is still to come, or a little beyond what ever comes.
      const step = (last - standing) * (0.2 + random());
      const sign = direction === 'more' ? 1 : -1;
      const threshold = standing + (sign * step > 0 ? step : sign * Math.abs(standing) * 0.1 * random());
      const series = takes.slice(0, i + 1).map((t) => ({ at: t.at, value: t.value ?? 0 }));
      const sem =
        m.region === 'pain' ? DAILY_PAIN : (semAt(m, standing) ?? (m.usual.max - m.usual.min) * ERROR_SHARE);
      const made = orThrow(
        forecast({
          series,
          threshold,
          direction,
          sem: Math.max(sem, 0.1),
          now: take.at,
          seed: e.person.seed,
        }),
      );
      if (!isForecast(made)) return [];
      const came = trend.findIndex((v, d) => d >= at && sign * (v - threshold) >= 0);
      return [
        held(made, {
          came: came === -1 ? null : addDays(from, came),
          until: addDays(from, trend.length - 1),
          points: i + 1,
          now,
        }),
      ];
    });
  });
}

/** @param until what came after it is not known */
function held(
  made: Forecast,
  {
    came,
    until,
    points,
    now,
  }: {
    readonly came: DayText | null;
    readonly until: DayText;
    readonly points: number;
    readonly now: DayText;
  },
): Calibration {
  const horizon = addDays(now, HORIZON_DAYS);
  const low = made.lowDate ?? horizon;
  const high = made.highDate ?? horizon;
  // Not yet by the end: later than it, however much.
  const sooner = came !== null && came < low;
  const later = came === null ? high < until : came > high;
  return {
    points,
    forecasts: 1,
    within: sooner || later ? 0 : 1,
    sooner: sooner ? 1 : 0,
    later: later ? 1 : 0,
  };
}
