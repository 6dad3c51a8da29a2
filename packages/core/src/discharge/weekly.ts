import { addDays, daysBetween, type DayText } from '../quantity/day.js';
import type { ChartPoint } from './chart.js';

/** Means of the weeks of a log, counted from its first day, each on the middle of its week; weeks without a value are left out. */
export function weeklyMeans(log: readonly ChartPoint[]): readonly ChartPoint[] {
  const first = log.reduce<DayText | null>((min, p) => (min === null || p.day < min ? p.day : min), null);
  if (first === null) return [];
  const weeks = new Map<number, number[]>();
  for (const { day, value } of log) {
    const week = Math.floor(daysBetween(first, day) / 7);
    weeks.set(week, [...(weeks.get(week) ?? []), value]);
  }
  return [...weeks]
    .toSorted(([a], [b]) => a - b)
    .map(([week, values]) => ({
      day: addDays(first, week * 7 + 3),
      value: values.reduce((sum, v) => sum + v, 0) / values.length,
    }));
}
