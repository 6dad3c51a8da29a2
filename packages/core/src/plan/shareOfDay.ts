import { secondsOn, type TimeOnDays } from './due.js';

/** Each complaint is worked on for at least this share of the day's minutes, however much another takes. [convention] */
export const LEAST_SHARE = 0.25;

export interface ShareOfDay {
  /** Minutes a day for this complaint. */
  readonly here: number;
  /** Minutes that what is given for the other complaints takes on its longest day. */
  readonly elsewhere: number;
}

/** The minutes a person has, less what other complaints of theirs take on their longest day; never under a quarter of them. */
export function shareOfDay(agreedMinutes: number, given: readonly TimeOnDays[]): ShareOfDay {
  const elsewhere = Math.max(...[0, 1, 2, 3, 4, 5, 6].map((day) => secondsOn(given, day) / 60));
  return { here: Math.max(agreedMinutes * LEAST_SHARE, agreedMinutes - elsewhere), elsewhere };
}
