import type { DayText } from '../quantity/day.js';

/** Weekday of a day, 0 Monday to 6 Sunday. */
export const weekdayOf = (day: DayText): number => (new Date(`${day}T00:00:00Z`).getUTCDay() + 6) % 7;

/** How often a week something is done, and on which weekdays (0 Monday) where they were chosen. */
export interface Scheduled {
  readonly daysPerWeek: number;
  readonly days?: readonly number[] | undefined;
}

const WEEK = [0, 1, 2, 3, 4, 5, 6] as const;

/**
 * The weekdays something falls on: those chosen, as long as they are as many as asked for; else spread as evenly as days go:
 * 3 a week on Monday, Thursday and Saturday, so that a day lies between.
 */
export function dueDays({ daysPerWeek, days }: Scheduled): readonly number[] {
  const chosen = WEEK.filter((day) => days?.includes(day) === true);
  if (chosen.length === daysPerWeek) return chosen;
  return WEEK.filter((day) => (day * daysPerWeek) % 7 < daysPerWeek);
}

export const isDueOn = (scheduled: Scheduled, weekday: number): boolean =>
  dueDays(scheduled).includes(weekday);

/** What something takes on a day it falls due. */
export interface TimeOnDays extends Scheduled {
  readonly daySeconds: number;
}

/** Seconds of everything that falls due on a weekday (0 Monday). */
export const secondsOn = (list: readonly TimeOnDays[], weekday: number): number =>
  list.filter((t) => isDueOn(t, weekday)).reduce((sum, t) => sum + t.daySeconds, 0);
