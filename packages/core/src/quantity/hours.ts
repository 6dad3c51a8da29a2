import { addDays, type DayText } from './day.js';

/** When a clinic is open on a weekday, by its own clock: `08:00` to `18:00`. */
export interface OpenHours {
  readonly from: string;
  readonly to: string;
}

/** Of a week, Monday first; null on a day it is closed. */
export type WeekHours = readonly (OpenHours | null)[];

const TIME = /^([01]\d|2[0-3]):[0-5]\d$/;

/** Monday 0 to Sunday 6. */
export const weekdayOf = (day: DayText): number => (new Date(`${day}T00:00:00Z`).getUTCDay() + 6) % 7;

/** Which day of a week is no hours: its place; null where all are, or where none are told. */
export function wrongHours(week: readonly unknown[]): number | null {
  if (week.length === 0) return null;
  if (week.length !== 7) return week.length > 7 ? 7 : week.length;
  const wrong = week.findIndex((d) => {
    if (d === null) return false;
    const { from, to } = d as Partial<OpenHours>;
    return !(
      typeof from === 'string' &&
      typeof to === 'string' &&
      TIME.test(from) &&
      TIME.test(to) &&
      from < to
    );
  });
  return wrong === -1 ? null : wrong;
}

/** Hours on a day; undefined where the clinic told none at all. */
export const hoursOn = (week: WeekHours, day: DayText): OpenHours | null | undefined =>
  week.length === 0 ? undefined : (week[weekdayOf(day)] ?? null);

const minutesOf = (time: string): number => Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5));

/** Whether a visit lies within the hours; where none are told every one does. */
export function withinHours(
  week: WeekHours,
  visit: { readonly day: DayText; readonly time: string; readonly minutes: number },
): boolean {
  const hours = hoursOn(week, visit.day);
  if (hours === undefined) return true;
  if (hours === null) return false;
  const start = minutesOf(visit.time);
  return start >= minutesOf(hours.from) && start + visit.minutes <= minutesOf(hours.to);
}

/** The first day from one on that the clinic is open; the same where it told no hours or is never open. */
export const openDayFrom = (week: WeekHours, day: DayText): DayText =>
  Array.from({ length: 7 }, (_, i) => addDays(day, i)).find((d) => hoursOn(week, d) !== null) ?? day;
