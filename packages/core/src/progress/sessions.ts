import { addDays, type DayText } from '../quantity/day.js';
import { orThrow } from '../result/result.js';
import {
  judgePain,
  morningBaseline,
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
  return [...sessions]
    .sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : 0))
    .map((session) => {
      const nextMorning = painOn.get(addDays(session.day, 1)) ?? null;
      const baseline = morningBaseline(mornings, session.day, stageSince);
      const result = orThrow(judgePain({ ...session, school, nextMorning, morningBaseline: baseline }));
      return { ...session, ...result, nextMorning, morningBaseline: baseline };
    });
}

export interface Runs {
  /** Reds in a row at the end. */
  readonly reds: number;
  /** The last two known states are amber: counts as red for load, not for range. */
  readonly twoAmbers: boolean;
  readonly last: PainState | null;
}

/** What the latest sessions add up to. Not known neither extends nor breaks a run; a stop counts as red. */
export function currentRuns(states: readonly PainState[]): Runs {
  const known = states.filter((s) => s !== 'not-known').reverse();
  const firstOther = known.findIndex((s) => s !== 'red' && s !== 'stop');
  return {
    reds: firstOther === -1 ? known.length : firstOther,
    twoAmbers: known[0] === 'amber' && known[1] === 'amber',
    last: known[0] ?? null,
  };
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
