import type { DoneRun } from '../dose/longestRun.js';
import { runRise, type RunRise } from '../dose/longestRun.js';
import { FIRST_WEEK, type Impact } from '../dose/impact.js';
import type { ImpactDay } from '../progress/criteriaTypes.js';
import { type DoneWork, impactOfDone, workByDay } from '../progress/work.js';
import type { DayText } from '../quantity/day.js';
import { TOLERANCE } from '../quantity/statistics.js';

/** A recorded run or walk as load counts it. */
export interface RecordedRun {
  readonly day: DayText;
  /** At the speed of running (min). */
  readonly minutes: number;
}

const sum = (numbers: readonly number[]): number => numbers.reduce((a, b) => a + b, 0);

/**
 * Minutes run on a day, of what was logged and what was recorded: the more of the two, since a run that was recorded is
 * often logged as well and is not run twice. [convention]
 */
export const ranOn = (day: DayText, logged: number, recorded: readonly RecordedRun[]): number =>
  Math.max(logged, sum(recorded.filter((r) => r.day === day).map((r) => r.minutes)));

/** Each run of some days, logged or recorded: of the longest one it does not matter that one stands twice. */
export const runsWith = (
  logged: readonly DoneRun[],
  recorded: readonly RecordedRun[],
): readonly DoneRun[] => [...logged, ...recorded.filter((r) => r.minutes > 0)];

/**
 * Recorded runs as far as a coming week may be built on them: one that was too long for what was run before counts as long as
 * it may have been, so that who ran too far is not let run further still. One with no run in the 30 days before it counts as
 * long as the running of a first week at most: of who has run before and nobody noted it nothing is known. [convention]
 *
 * @param logged runs of the log, in any order
 * @returns the recorded runs in the order of their days, each with the minutes that count
 */
export function countedRuns<Run extends RecordedRun>(
  logged: readonly DoneRun[],
  recorded: readonly Run[],
): readonly Run[] {
  const counted: Run[] = [];
  for (const run of recorded.toSorted((a, b) => (a.day < b.day ? -1 : Number(a.day > b.day)))) {
    const { over, mostMinutes } = riseOfRun(run, [...logged, ...counted]);
    counted.push({ ...run, minutes: over ? mostMinutes : run.minutes });
  }
  return counted;
}

/** Impact of some days by log and recordings together. */
export function impactWith(work: readonly DoneWork[], recorded: readonly RecordedRun[]): Impact {
  const byDay = workByDay(work);
  const days = new Set([...byDay.keys(), ...recorded.map((r) => r.day)]);
  const each = [...days].map((day) => {
    const { contacts, runMinutes } = impactOfDone(byDay.get(day) ?? []);
    return { contacts, runMinutes: ranOn(day, runMinutes, recorded) };
  });
  return { contacts: sum(each.map((d) => d.contacts)), runMinutes: sum(each.map((d) => d.runMinutes)) };
}

/** Days of impact with those that were only recorded, and the pain told of them where any was. */
export function impactDaysWith(
  logged: readonly ImpactDay[],
  recorded: readonly RecordedRun[],
  painOn: (day: DayText) => number | null,
): readonly ImpactDay[] {
  const ran = recorded.filter((r) => r.minutes > 0);
  if (ran.length === 0) return logged;
  const byDay = new Map(logged.map((d) => [d.day, d]));
  return [...new Set([...byDay.keys(), ...ran.map((r) => r.day)])].toSorted().map((day) => {
    const known = byDay.get(day) ?? { day, contacts: 0, runMinutes: 0, pain: painOn(day) };
    return { ...known, runMinutes: ranOn(day, known.runMinutes, ran) };
  });
}

/** How a run that was recorded stands to those before it: there is always a most it may have been. */
export interface RecordedRise extends RunRise {
  readonly mostMinutes: number;
}

/** A run against those of the 30 days before it, as a coming one would have been; without any, against a first week. */
export function riseOfRun(run: RecordedRun, before: readonly DoneRun[]): RecordedRise {
  const rise = runRise(
    run.minutes,
    before.filter((r) => r.day < run.day),
    run.day,
  );
  const mostMinutes = rise.mostMinutes ?? FIRST_WEEK.runMinutes;
  return { ...rise, mostMinutes, over: run.minutes > mostMinutes + TOLERANCE };
}
