import { addDays, daysBetween, type DayText } from '../quantity/day.js';
import type { PainState } from './painRule.js';

/** A day of the log as it was judged, with what was done on it. */
export interface LoggedDay {
  readonly day: DayText;
  readonly state: PainState;
  readonly tensionMinutes: number;
}

/** A red day, and what was done before it. */
export interface FlareSince {
  readonly day: DayText;
  /** Minutes under tension a day, of the red day and the two before it. */
  readonly before: number;
  /** The same of the other days since the visit; null where there are none. */
  readonly usual: number | null;
}

/** What happened between a visit and today. */
export interface Since {
  readonly days: number;
  /** Days on which something was done, and of them how many were taken how. */
  readonly done: number;
  readonly states: Readonly<Record<PainState, number>>;
  /** Runs of red days as one, with the first day of each. */
  readonly flares: readonly FlareSince[];
  /** Mean pain of the first and of the last mornings; null with fewer than six of them. */
  readonly mornings: { readonly then: number; readonly now: number } | null;
}

/** A flare is looked at with so many days, its own the last. [convention] */
const BEFORE_DAYS = 3;
/** So many mornings at each end make a mean. [convention] */
const MORNINGS = 3;

const mean = (list: readonly number[]): number => list.reduce((sum, n) => sum + n, 0) / list.length;

/** Minutes a day over some days, rest days as none. */
const dailyMinutes = (sessions: readonly LoggedDay[], from: DayText, to: DayText): number => {
  const own = sessions.filter((s) => s.day >= from && s.day <= to);
  return own.reduce((sum, s) => sum + s.tensionMinutes, 0) / (daysBetween(from, to) + 1);
};

function flaresOf(own: readonly LoggedDay[], all: readonly LoggedDay[], from: DayText, today: DayText) {
  const isRed = (s: LoggedDay | undefined) => s?.state === 'red' || s?.state === 'stop';
  const begins = own.filter((s, i) => isRed(s) && !isRed(own[i - 1]));
  return begins.map(({ day }): FlareSince => {
    const first = addDays(day, 1 - BEFORE_DAYS);
    const others = all.filter((s) => s.day >= from && s.day <= today && (s.day < first || s.day > day));
    const otherDays = Math.max(0, daysBetween(from, first)) + Math.max(0, daysBetween(day, today));
    return {
      day,
      before: dailyMinutes(all, first, day),
      usual: otherDays === 0 ? null : others.reduce((sum, s) => sum + s.tensionMinutes, 0) / otherDays,
    };
  });
}

/**
 * What the log tells of the days since a visit, the day of the visit itself left out. Flares come with the load before them:
 * minutes under tension a day, against the other days.
 *
 * @param sessions judged days in any order
 * @param mornings pain 0 to 10 by day
 */
export function sinceVisit(
  sessions: readonly LoggedDay[],
  mornings: readonly { readonly day: DayText; readonly pain: number }[],
  { from, today }: { readonly from: DayText; readonly today: DayText },
): Since {
  const all = sessions.toSorted((a, b) => (a.day < b.day ? -1 : 1));
  const own = all.filter((s) => s.day > from && s.day <= today);
  const states: Record<PainState, number> = { green: 0, amber: 0, red: 0, stop: 0, 'not-known': 0 };
  for (const s of own) states[s.state] += 1;
  const pains = mornings
    .filter((m) => m.day > from && m.day <= today)
    .toSorted((a, b) => (a.day < b.day ? -1 : 1))
    .map((m) => m.pain);
  return {
    days: daysBetween(from, today),
    done: new Set(own.map((s) => s.day)).size,
    states,
    flares: flaresOf(own, all, addDays(from, 1), today),
    mornings:
      pains.length < 2 * MORNINGS
        ? null
        : { then: mean(pains.slice(0, MORNINGS)), now: mean(pains.slice(-MORNINGS)) },
  };
}
