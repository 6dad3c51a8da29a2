import type { ExerciseDefinition } from '../exercise/definition.js';
import { isRun } from '../dose/impact.js';
import { dueDays, isDueOn } from './due.js';
import type { DayPart, Prescription } from './prescription.js';
import { prescriptionTime } from './timing.js';

const WEEKDAYS = [0, 1, 2, 3, 4, 5, 6] as const;

/** An exercise of a plan with what it is. */
export interface WeekItem {
  readonly item: Prescription;
  readonly definition: ExerciseDefinition;
}

/** What is done together: the same days, at the same part of the day. */
export interface Sitting {
  /** Stays the same while days and part of day do; for calendars. */
  readonly key: string;
  readonly days: readonly number[];
  /** When of the day, as the patient reads it; null for the usual time. */
  readonly when: string | null;
  /** When of the day it was given for; null for the usual time. */
  readonly part: DayPart | null;
  readonly exercises: readonly string[];
  readonly seconds: number;
}

const secondsOf = ({ item, definition }: WeekItem): number => {
  const time = prescriptionTime(item, definition);
  return time.ok ? time.value.daySeconds : 0;
};

/** A plan as sittings of a week: exercises that share their days and their part of the day are done in one. */
export function sittingsOf(items: readonly WeekItem[]): readonly Sitting[] {
  const groups = new Map<string, WeekItem[]>();
  for (const entry of items) {
    const days = dueDays(entry.item).join('');
    const key = `${entry.definition.when === null ? (entry.item.part ?? 'usual') : 'set'}-${days}`;
    groups.set(key, [...(groups.get(key) ?? []), entry]);
  }
  return [...groups].map(([key, list]) => ({
    key,
    days: list[0] === undefined ? [] : dueDays(list[0].item),
    when: list[0]?.definition.when ?? null,
    part: list[0]?.definition.when === null ? (list[0].item.part ?? null) : null,
    exercises: list.map((l) => l.definition.name),
    seconds: list.reduce((sum, l) => sum + secondsOf(l), 0),
  }));
}

/** Something in a week that a tissue would not thank for. */
export interface WeekConflict {
  readonly kind: 'no-rest-between' | 'heavy-and-run';
  /** Weekdays it is about. */
  readonly days: readonly number[];
  readonly exercises: readonly string[];
}

const isImpact = ({ definition }: WeekItem): boolean => definition.tags.includes('impact');
const isHeavyCalf = ({ definition }: WeekItem): boolean =>
  definition.tags.includes('heavy-load') &&
  definition.tags.includes('calf-load') &&
  !definition.tags.includes('impact');

const onDay = (list: readonly WeekItem[], day: number): WeekItem[] =>
  list.filter((l) => isDueOn(l.item, day));

/**
 * What a week of a plan does against the rules of load: impact needs 48 hours in between, and heavy calf work and a run do
 * not share a day. The week goes round: Sunday is the day before Monday.
 */
export function weekConflicts(items: readonly WeekItem[]): readonly WeekConflict[] {
  const impact = items.filter(isImpact);
  const days = WEEKDAYS.filter((day) => onDay(impact, day).length > 0);
  const close = days.filter((day) => days.includes(((day + 1) % 7) as (typeof WEEKDAYS)[number]));
  const names = (list: readonly WeekItem[]) => [...new Set(list.map((l) => l.definition.name))];
  const heavy = items.filter(isHeavyCalf);
  const runs = items.filter((l) => isImpact(l) && isRun(l.definition));
  const both = WEEKDAYS.filter((day) => onDay(heavy, day).length > 0 && onDay(runs, day).length > 0);
  return [
    ...(close.length === 0
      ? []
      : [{ kind: 'no-rest-between' as const, days: close, exercises: names(impact) }]),
    ...(both.length === 0
      ? []
      : [{ kind: 'heavy-and-run' as const, days: both, exercises: names([...heavy, ...runs]) }]),
  ];
}

const shifted = (item: Prescription, by: number): Prescription => ({
  ...item,
  days: dueDays({ daysPerWeek: item.daysPerWeek })
    .map((day) => (day + by) % 7)
    .sort((a, b) => a - b),
});

/**
 * The items of a week with days chosen so that heavy calf work and runs do not meet: the heavy work moves, by as few days as
 * clear it. What cannot be cleared stays as it was, and weekConflicts names it.
 */
export function arrangeWeek(items: readonly WeekItem[]): readonly Prescription[] {
  const meets = (list: readonly WeekItem[]) => weekConflicts(list).some((c) => c.kind === 'heavy-and-run');
  if (!meets(items)) return items.map((l) => l.item);
  for (const by of [1, 2, 3, 4, 5, 6]) {
    const moved = items.map((l) => (isHeavyCalf(l) ? { ...l, item: shifted(l.item, by) } : l));
    if (!meets(moved)) return moved.map((l) => l.item);
  }
  return items.map((l) => l.item);
}
