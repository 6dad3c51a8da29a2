import { addDays, type DayText } from '../quantity/day.js';
import { orThrow } from '../result/result.js';
import {
  judgePain,
  morningBaselines,
  type PainResult,
  type PainSchool,
  type PainState,
  type StopSign,
} from './painRule.js';

/** One session as logged at home; pain is the worse treated side's. */
export interface LoggedSession {
  readonly day: DayText;
  readonly before: number;
  readonly during: number;
  readonly after: number;
  readonly hourAbove: boolean;
  readonly stopSign: StopSign | null;
}

export interface Morning {
  readonly day: DayText;
  readonly pain: number;
}

export interface JudgedSession extends LoggedSession, PainResult {
  readonly nextMorning: number | null;
  readonly morningBaseline: number | null;
}

/** Joins sessions to the mornings after them and judges each; oldest first. */
export function judgeSessions(
  sessions: readonly LoggedSession[],
  mornings: readonly Morning[],
  school: PainSchool,
  stageSince: DayText,
): JudgedSession[] {
  const painOn = new Map(mornings.map((m) => [m.day, m.pain]));
  const baselineOn = morningBaselines(mornings, stageSince);
  return [...sessions]
    .sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : 0))
    .map(({ day, before, during, after, hourAbove, stopSign }) => {
      const nextMorning = painOn.get(addDays(day, 1)) ?? null;
      const baseline = baselineOn(day);
      const { state, because, restOnly } = orThrow(
        judgePain({
          school,
          before,
          during,
          after,
          hourAbove,
          nextMorning,
          morningBaseline: baseline,
          stopSign,
        }),
      );
      // Written out: spread twice over, a log of years takes ten times as long.
      return {
        day,
        before,
        during,
        after,
        hourAbove,
        stopSign,
        state,
        because,
        restOnly,
        nextMorning,
        morningBaseline: baseline,
      };
    });
}

export interface Runs {
  /** Reds in a row at the end. */
  readonly reds: number;
  /** The last two known states are both amber or worse: counts as red for load, not for range. */
  readonly twoAmberOrWorse: boolean;
  readonly last: PainState | null;
}

const isRed = (s: PainState | undefined): boolean => s === 'red' || s === 'stop';

/** What the latest sessions add up to. Not known neither extends nor breaks a run; a stop counts as red. */
export function currentRuns(states: readonly PainState[]): Runs {
  const known = states.filter((s) => s !== 'not-known').reverse();
  const firstOther = known.findIndex((s) => !isRed(s));
  return {
    reds: firstOther === -1 ? known.length : firstOther,
    twoAmberOrWorse: known.length >= 2 && known.slice(0, 2).every((s) => s === 'amber' || isRed(s)),
    last: known[0] ?? null,
  };
}

/** Reds, stops among them, in the last `days` calendar days, today included. */
export function redsWithin(
  sessions: readonly { readonly day: DayText; readonly state: PainState }[],
  today: DayText,
  days: number,
): number {
  const from = addDays(today, -days);
  return sessions.filter((s) => s.day > from && s.day <= today && isRed(s.state)).length;
}

/** Share of planned sessions done over the last `days` days, in percent, at most 100; null when nothing was planned. */
export function adherencePercent(
  loggedDays: readonly DayText[],
  plannedPerWeek: number,
  today: DayText,
  days: number,
): number | null {
  if (plannedPerWeek <= 0) return null;
  const from = addDays(today, -days);
  const done = new Set(loggedDays.filter((d) => d > from && d <= today)).size;
  return Math.min(100, (done / ((plannedPerWeek / 7) * days)) * 100);
}

/**
 * On how many days something was done in each of the last weeks of 7 days, the oldest first, the last one ending on a day.
 *
 * @param since no week that begins before this day is told
 */
export function doneByWeek(
  loggedDays: readonly DayText[],
  { end, weeks, since }: { readonly end: DayText; readonly weeks: number; readonly since: DayText },
): number[] {
  const days = [...new Set(loggedDays)];
  return Array.from({ length: weeks }, (_, i) => addDays(end, -7 * (weeks - i)))
    .filter((before) => addDays(before, 1) >= since)
    .map((before) => days.filter((d) => d > before && d <= addDays(before, 7)).length);
}
