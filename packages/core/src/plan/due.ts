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

/** Days a week an exercise can be done on: fewest and most. */
type DaysRange = readonly [fewest: number, most: number];

/** With a weekday put on, or off where it was on; null where that would be fewer or more days than the exercise is done on. */
export function withDayToggled<T extends Scheduled>(
  item: T,
  day: number,
  [fewest, most]: DaysRange,
): T | null {
  const now = dueDays(item);
  const days = now.includes(day)
    ? now.filter((d) => d !== day)
    : WEEK.filter((d) => d === day || now.includes(d));
  return days.length < fewest || days.length > most ? null : { ...item, days, daysPerWeek: days.length };
}

/** Done on another weekday instead; null where it is not due on the one or already is on the other. */
export function withDayMoved<T extends Scheduled>(item: T, from: number, to: number): T | null {
  const now = dueDays(item);
  if (!now.includes(from) || now.includes(to)) return null;
  return { ...item, days: WEEK.filter((d) => d === to || (d !== from && now.includes(d))) };
}
