import { dayOf, daysBetween, type DayText } from '../quantity/day.js';
import type { CriterionAhead, SeriesAhead } from './criteria.js';
import { lastOf } from './criteria.js';
import { FEWEST_POINTS, type Forecast, forecast, type ForecastInput } from './forecast.js';
import type { When } from './stage.js';

/** A criterion that was likely met by a day, and by what was measured since is not any more. */
export interface Slip {
  readonly text: string;
  /** The middle of what was told then. */
  readonly was: DayText;
  readonly now: When;
}

const made = (input: ForecastInput): Forecast | null => {
  const result = forecast({ ...input, withoutBand: true });
  return result.ok && !('why' in result.value) ? result.value : null;
};

function lastOfAll(inputs: readonly ForecastInput[]): When | null {
  const all = inputs.map(made);
  return all.includes(null) ? null : lastOf(all as Forecast[]);
}

/** A series as it was before its newest day, asked on the day of the value before; null with too few values then. */
function before(input: SeriesAhead): ForecastInput | null {
  const newest = dayOf(input.series.reduce((at, p) => (p.at > at ? p.at : at), ''));
  const series = input.series.filter((p) => dayOf(p.at) < newest);
  if (series.length < FEWEST_POINTS) return null;
  const now = series.reduce((at, p) => (p.at > at ? p.at : at), '');
  return { ...input, series, now };
}

/** Less than this later is as it was. [convention] */
const LATER_DAYS = 7;

/**
 * Whether what was measured last puts off a criterion: nine of ten draws now lie more than a week after what was the middle by
 * the values before. Null where it keeps to what was told, and where either cannot be told.
 */
export function slipOf({ text, inputs }: CriterionAhead): Slip | null {
  const then = inputs.map(before);
  if (inputs.length === 0 || then.includes(null)) return null;
  const was = lastOfAll(then as ForecastInput[])?.medianDate ?? null;
  if (was === null) return null;
  const now = lastOfAll(inputs);
  if (now === null || (now.lowDate !== null && daysBetween(was, now.lowDate) <= LATER_DAYS)) return null;
  return { text, was, now };
}
