import type { Adjunct, Stage, StageKey } from '../protocol/definition.js';
import { besideOf } from '../plan/patientPlan.js';
import { addDays, type DayText, daysBetween } from '../quantity/day.js';

/** A stage along the days of an episode: as long as it took, or as long as it usually takes. */
export interface StageStretch {
  readonly stage: StageKey;
  readonly from: DayText;
  readonly to: DayText;
  /** The earliest and the latest usual end; the real one twice where it is over. */
  readonly usually: readonly [earliest: DayText, latest: DayText];
  readonly kind: 'done' | 'now' | 'ahead';
}

const later = (a: DayText, b: DayText): DayText => (a > b ? a : b);

/** The middle of the usual weeks, in days. */
const usualDays = ({ usualWeeks: { min, max } }: Pick<Stage, 'usualWeeks'>): number =>
  Math.round((min + max) * 3.5);

/** Weeks of a stage that is not in the protocol any more. [convention] */
const NOT_SAID: Pick<Stage, 'usualWeeks'> = { usualWeeks: { min: 4, max: 4 } };

/** When a stage usually ends that began on a day. */
const usualEnds = (
  { usualWeeks: { min, max } }: Pick<Stage, 'usualWeeks'>,
  from: DayText,
): StageStretch['usually'] => [addDays(from, min * 7), addDays(from, max * 7)];

/**
 * Stages one after the other: those gone through as long as they took, the one it is in until its usual end (today at the
 * earliest), those to come as long as they usually take. Upkeep, which has no end, is left off where it is still to come.
 *
 * @param spans stages gone through, oldest first, with the day each began
 */
export function stageStretches(
  spans: readonly { readonly stage: StageKey; readonly day: DayText }[],
  stages: readonly Stage[],
  today: DayText,
): StageStretch[] {
  const stageOf = (key: string) => stages.find((s) => s.key === key);
  const list = spans.map((span, i): StageStretch => {
    const next = spans[i + 1];
    const usual = stageOf(span.stage) ?? NOT_SAID;
    const { stage, day: from } = span;
    if (next !== undefined) return { stage, from, to: next.day, kind: 'done', usually: [next.day, next.day] };
    const to = later(today, addDays(from, usualDays(usual)));
    return { stage, from, to, kind: 'now', usually: usualEnds(usual, from) };
  });
  const last = spans[spans.length - 1];
  const at = stages.findIndex((s) => s.key === last?.stage);
  let from = list[list.length - 1]?.to ?? today;
  for (const stage of stages.slice(at + 1).filter((s) => s.criteria !== null)) {
    const to = addDays(from, usualDays(stage));
    list.push({ stage: stage.key, from, to, kind: 'ahead', usually: usualEnds(stage, from) });
    from = to;
  }
  return list;
}

/** Something beside the exercises along the same days. */
export interface AdjunctSpan {
  readonly adjunct: Adjunct;
  readonly from: DayText;
  readonly to: DayText;
  /** From when it grows less; null where it does not. */
  readonly lessFrom: DayText | null;
  /** Whether it ends then; else it goes on beyond what is drawn. */
  readonly ends: boolean;
}

/**
 * What stands beside the exercises under the schools chosen, each from the first stage that has it to the last one running
 * that does, or to the day it is gone by. Its weeks count from the day the protocol began.
 */
export function adjunctSpans(
  stretches: readonly StageStretch[],
  stages: readonly Stage[],
  schools: Readonly<Record<string, string>>,
): AdjunctSpan[] {
  const begun = stretches[0]?.from;
  if (begun === undefined) return [];
  const open = new Map<string, AdjunctSpan>();
  const done: AdjunctSpan[] = [];
  stretches.forEach((s, i) => {
    const stage = stages.find((x) => x.key === s.stage);
    const beside = stage === undefined ? [] : besideOf(stage, schools);
    for (const adjunct of beside) {
      const before = open.get(adjunct.key);
      const { weaning } = adjunct;
      const gone = weaning?.goneByWeek === undefined ? null : addDays(begun, weaning.goneByWeek * 7);
      const from = before?.from ?? s.from;
      if (gone !== null && gone <= from) continue;
      const lastStage = i === stretches.length - 1;
      open.set(adjunct.key, {
        adjunct,
        from,
        to: gone !== null && gone < s.to ? gone : s.to,
        lessFrom: weaning === null ? null : addDays(begun, weaning.fromWeek * 7),
        ends: !lastStage || (gone !== null && gone <= s.to),
      });
    }
    for (const [key, span] of open)
      if (beside.every((a) => a.key !== key)) {
        done.push(span);
        open.delete(key);
      }
  });
  return [...done, ...open.values()].sort((a, b) => daysBetween(b.from, a.from));
}
