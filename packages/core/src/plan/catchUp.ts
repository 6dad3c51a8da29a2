import type { PainState } from '../progress/painRule.js';
import { addDays, type DayText, daysBetween } from '../quantity/day.js';
import { isDueOn, secondsOn, weekdayOf, withDayMoved } from './due.js';
import { prescriptionTime } from './timing.js';
import { type WeekItem, weekConflicts } from './week.js';

/** How many days back something missed is still caught up. [convention] */
const REACH_DAYS = 3;
/** Days from one time to the next of what loads tendon and bone: 48 hours between. */
const APART = { loading: 2, other: 1 } as const;

/** Something missed that can be done today, and the day it was due. */
export interface CatchUp {
  readonly exercise: string;
  readonly from: DayText;
}

export interface CatchUpOn {
  /** Exercises logged, by day. */
  readonly done: readonly { readonly exercise: string; readonly day: DayText }[];
  readonly today: DayText;
  /** The day the plan was given: nothing was due before. */
  readonly since: DayText;
  /** How the last session was judged; null where none was. */
  readonly lastState: PainState | null;
}

const loads = ({ definition }: WeekItem): boolean =>
  definition.tags.some((t) => t === 'impact' || t === 'heavy-load' || t === 'calf-load');

const dueOn = (entry: WeekItem, day: DayText): boolean => isDueOn(entry.item, weekdayOf(day));

const secondsOf = ({ item, definition }: WeekItem): number => {
  const time = prescriptionTime(item, definition);
  return time.ok ? time.value.daySeconds : 0;
};

/** The day a missed exercise was due, where today is a good day for it; null where it is let go. */
function missedFrom(entry: WeekItem, on: CatchUpOn): DayText | null {
  const { today, since } = on;
  if (dueOn(entry, today)) return null;
  const apart = loads(entry) ? APART.loading : APART.other;
  const soon = Array.from({ length: apart - 1 }, (_, i) => addDays(today, i + 1));
  if (soon.some((day) => dueOn(entry, day))) return null;
  const back = Array.from({ length: REACH_DAYS }, (_, i) => addDays(today, -i - 1)).filter((d) => d >= since);
  const from = back.find((day) => dueOn(entry, day));
  if (from === undefined) return null;
  const last = on.done
    .filter((d) => d.exercise === entry.item.exercise && d.day <= today)
    .map((d) => d.day)
    .sort()
    .at(-1);
  if (last !== undefined && (last >= from || daysBetween(last, today) < apart)) return null;
  return from;
}

/** Whether the week, with this done today instead of then, does more against the rules of load than it did. */
function crowds(entry: WeekItem, from: DayText, today: DayText, items: readonly WeekItem[]): boolean {
  const moved = withDayMoved(entry.item, weekdayOf(from), weekdayOf(today));
  if (moved === null) return true;
  const days = (list: readonly WeekItem[]) => weekConflicts(list).reduce((sum, c) => sum + c.days.length, 0);
  return days(items.map((i) => (i === entry ? { ...entry, item: moved } : i))) > days(items);
}

/**
 * What was missed and is done today instead, without cramming: only what fits beside today's work into the longest day of
 * the plan, never twice within 48 hours where tendon and bone are loaded, and nothing at all unless the last session was
 * green; nor where heavy calf work and a run would meet. The rest is let go. [convention]
 *
 * @param items the plan, the most important first
 */
export function catchUps(items: readonly WeekItem[], on: CatchUpOn): readonly CatchUp[] {
  if (on.lastState !== null && on.lastState !== 'green') return [];
  const times = items.map((entry) => ({ ...entry.item, daySeconds: secondsOf(entry) }));
  const longest = Math.max(0, ...[0, 1, 2, 3, 4, 5, 6].map((day) => secondsOn(times, day)));
  let room = longest - secondsOn(times, weekdayOf(on.today));
  return items.flatMap((entry): CatchUp[] => {
    const from = missedFrom(entry, on);
    const seconds = secondsOf(entry);
    if (from === null || seconds > room || crowds(entry, from, on.today, items)) return [];
    room -= seconds;
    return [{ exercise: entry.item.exercise, from }];
  });
}
