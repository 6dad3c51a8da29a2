import { say } from '../quantity/tongue.js';
import { daysBetween, dayOf, instantOf, type DayText } from '../quantity/day.js';
import { atLeast, TOLERANCE } from '../quantity/statistics.js';
import type { Side } from '../quantity/side.js';
import type { MeasureDefinition } from '../measure/definition.js';
import { areLike, type Taken } from '../measure/like.js';
import { semAt } from '../measure/error.js';
import { worstOf } from '../measure/worst.js';
import type { CriterionState, Facts } from './criteriaTypes.js';

/** Values older than this do not count toward a criterion, unless it says otherwise. */
export const DEFAULT_MAX_AGE_DAYS = 28;

/**
 * Clears a limit by at least the error: met; passes it by less: met within error. Where no error is known a pass is never
 * certain: within error, until it is seen on two days.
 */
export function against(margin: number, error: number | null, strict: boolean): CriterionState {
  const passes = strict ? margin > TOLERANCE : margin >= -TOLERANCE;
  if (!passes) return 'not-met';
  return error !== null && atLeast(margin, error) ? 'met' : 'met-within-error';
}

export interface Take {
  readonly day: DayText;
  readonly state: CriterionState;
}

export interface Settled {
  readonly state: CriterionState;
  readonly confirmed: boolean;
}

/** Met within error at two takes running, on different days, counts as met. Takes newest first. */
export function settle(takes: readonly Take[]): Settled {
  const [latest] = takes;
  if (latest === undefined) return { state: 'not-known', confirmed: false };
  const previous = takes.find((t) => t.day !== latest.day);
  const confirmed =
    latest.state === 'met-within-error' &&
    previous !== undefined &&
    (previous.state === 'met-within-error' || previous.state === 'met');
  return { state: confirmed ? 'met' : latest.state, confirmed };
}

export interface Reading extends Taken {
  readonly at: string;
  readonly value: number;
  /** The worst value, because the person was unable. */
  readonly unable: boolean;
}

/** Standard error of a reading; being unable is certain. Null when not known. */
export const errorOf = (measure: MeasureDefinition, reading: Reading): number | null =>
  reading.unable ? 0 : semAt(measure, reading.value, reading.method);

export interface Readings {
  /** Newest first, alike, none too old; unable counts as the worst value. */
  readonly fresh: readonly Reading[];
  /** Any at all, however old. */
  readonly newest: { readonly at: string } | undefined;
  /** The newest could not be taken, and no value stands for that. */
  readonly newestEmpty: boolean;
}

/** Fresh readings of one measure on one side; and whether any older or empty one exists. */
export function readings(
  facts: Facts,
  of: { readonly measure: MeasureDefinition; readonly side: Side | 'none'; readonly maxAgeDays: number },
  today: DayText,
): Readings {
  const { measure: definition, side, maxAgeDays: maxAge } = of;
  const worst = worstOf(definition);
  const all = facts.measures
    .filter((m) => m.measure === definition.key && m.side === side && dayOf(m.at) <= today)
    .sort((a, b) => instantOf(b.at) - instantOf(a.at));
  const recent = all.filter((m) => daysBetween(dayOf(m.at), today) <= maxAge);
  const [newest] = recent;
  const newestEmpty = newest !== undefined && newest.value === null && worst === null;
  const valued = recent.flatMap((m): Reading[] => {
    const value = m.value ?? worst;
    return value === null ? [] : [{ ...m, value, unable: m.value === null }];
  });
  const how = valued.find((m) => !m.unable);
  return {
    fresh: newestEmpty
      ? []
      : valued.filter((m) => m.unable || how === undefined || areLike(definition, m, how)),
    newest: all[0],
    newestEmpty,
  };
}

/** Why a value is not there, in words: never measured, too old, or only unable. */
export function missing(label: string, side: string, found: Readings, today: DayText): string {
  if (found.newestEmpty) return say('{{label}}, {{side}}: could not be taken last time', { label, side });
  if (found.newest === undefined) return say('{{label}}, {{side}}: not measured yet', { label, side });
  return say('{{label}}, {{side}}: last measured {{daysBetween}} days ago, too old', {
    label,
    side,
    daysBetween: daysBetween(dayOf(found.newest.at), today),
  });
}

export interface Pair {
  readonly day: DayText;
  readonly left: Reading;
  readonly right: Reading;
}

/** Newest of each day, by day. */
const byDay = (list: readonly Reading[]): Map<DayText, Reading> =>
  new Map([...list].reverse().map((r) => [dayOf(r.at), r]));

/** Both sides of each day on which both were taken, newest first; sides of different days still compare: the newest of each. */
export function pairsOf(left: readonly Reading[], right: readonly Reading[]): Pair[] {
  const rightOn = byDay(right);
  const sameDay = [...byDay(left)]
    .flatMap(([day, value]): Pair[] => {
      const other = rightOn.get(day);
      return other === undefined ? [] : [{ day, left: value, right: other }];
    })
    .sort((a, b) => (a.day < b.day ? 1 : -1));
  const [l, r] = [left[0], right[0]];
  if (l === undefined || r === undefined) return [];
  const newest = dayOf(l.at) > dayOf(r.at) ? dayOf(l.at) : dayOf(r.at);
  if (sameDay[0]?.day === newest) return sameDay;
  return [{ day: newest, left: l, right: r }, ...sameDay];
}
