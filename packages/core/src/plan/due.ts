import type { DayText } from '../quantity/day.js';

/** Weekday of a day, 0 Monday to 6 Sunday. */
export const weekdayOf = (day: DayText): number => (new Date(`${day}T00:00:00Z`).getUTCDay() + 6) % 7;

/**
 * Whether something done so many days a week falls on this weekday (0 Monday), spread as evenly as days go:
 * 3 a week on Monday, Thursday and Saturday, so that a day lies between.
 */
export const isDueOn = (daysPerWeek: number, weekday: number): boolean =>
  (weekday * daysPerWeek) % 7 < daysPerWeek;

/** What something takes on a day it falls due. */
export interface TimeOnDays {
  readonly daySeconds: number;
  readonly daysPerWeek: number;
}

/** Seconds of everything that falls due on a weekday (0 Monday). */
export const secondsOn = (list: readonly TimeOnDays[], weekday: number): number =>
  list.filter((t) => isDueOn(t.daysPerWeek, weekday)).reduce((sum, t) => sum + t.daySeconds, 0);
