import { addDays, type DayText } from '../quantity/day.js';
import { TOLERANCE } from '../quantity/statistics.js';

/** One run: its day, and how long was run in it (min). */
export interface DoneRun {
  readonly day: DayText;
  readonly minutes: number;
}

export interface RunRise {
  /** The longest run of the last 30 days (min); null where there was none. */
  readonly longestMinutes: number | null;
  /** The most one run may be (min); null where nothing was run to compare with. */
  readonly mostMinutes: number | null;
  readonly over: boolean;
}

/** How far back a run still counts, and by how much the next may be longer. [convention] */
export const RUN_DAYS = 30;
export const RUN_RISE_PERCENT = 10;

/** A run of this many minutes is never too long: the steps of running and walking go by five. [convention] */
const SHORT_RUN_MINUTES = 5;

/**
 * One coming run against the longest of the last 30 days, today included: at most a tenth longer. The tissue feels the
 * single run, so a week that holds the same minutes in one run is not the same week. Who has not run is held by the minutes
 * of a first week alone.
 *
 * @param minutes of running in the coming run, 0 or more
 */
export function runRise(minutes: number, runs: readonly DoneRun[], today: DayText): RunRise {
  const since = addDays(today, -RUN_DAYS);
  const done = runs.filter((r) => r.day > since && r.day <= today && r.minutes > 0).map((r) => r.minutes);
  if (done.length === 0) return { longestMinutes: null, mostMinutes: null, over: false };
  const longest = Math.max(...done);
  const most = Math.max(SHORT_RUN_MINUTES, longest * (1 + RUN_RISE_PERCENT / 100));
  return { longestMinutes: longest, mostMinutes: most, over: minutes > most + TOLERANCE };
}
