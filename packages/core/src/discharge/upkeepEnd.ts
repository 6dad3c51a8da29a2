import type { SessionFact } from '../progress/criteriaTypes.js';
import type { Stage } from '../protocol/definition.js';
import { addDays, dayOf, type DayText } from '../quantity/day.js';
import { say } from '../quantity/tongue.js';

/** How upkeep stands toward its end. */
export interface UpkeepEnd {
  /** From when it may end, and when it has lasted as long as it usually does. */
  readonly from: DayText;
  readonly by: DayText;
  /** `over`: the longest usual time has passed, so that someone decides; it never ends by itself. */
  readonly state: 'goes-on' | 'may-end' | 'over';
  /** What speaks against ending it now; empty where nothing does. */
  readonly against: readonly string[];
}

export interface UpkeepOn {
  /** Day the stage began. */
  readonly since: DayText;
  readonly today: DayText;
  /** Judged days, in any order. */
  readonly sessions: readonly SessionFact[];
  /** Open signs, in words. */
  readonly stopsOpen: readonly string[];
}

/** So many days are looked at before upkeep ends. [convention] */
export const QUIET_DAYS = 14;

const isBad = (s: SessionFact): boolean => s.state === 'red' || s.state === 'stop';

/**
 * Whether upkeep may end: from the shortest usual time on, with no sign open, and with something logged and nothing red in
 * the last 14 days. Nothing logged is not taken for quiet. [convention]
 *
 * @returns null for a stage that is not upkeep
 */
export function upkeepEnd(
  stage: Pick<Stage, 'criteria' | 'usualWeeks'> | null,
  { since, today, sessions, stopsOpen }: UpkeepOn,
): UpkeepEnd | null {
  if (stage === null || stage.criteria !== null) return null;
  const from = addDays(since, stage.usualWeeks.min * 7);
  const by = addDays(since, stage.usualWeeks.max * 7);
  const first = addDays(today, 1 - QUIET_DAYS);
  const last = sessions.filter((s) => dayOf(s.at) >= first && dayOf(s.at) <= today);
  const reds = last.filter(isBad).length;
  const against = [
    ...stopsOpen.map((s) => say('open: {{s}}', { s })),
    ...(reds === 1 ? [say('1 red session in {{days}} days', { days: QUIET_DAYS })] : []),
    ...(reds > 1 ? [say('{{reds}} red sessions in {{days}} days', { reds, days: QUIET_DAYS })] : []),
    ...(last.length === 0
      ? [say('nothing logged for {{days}} days: ask how it is', { days: QUIET_DAYS })]
      : []),
  ];
  if (today < from) return { from, by, state: 'goes-on', against };
  if (today >= by) return { from, by, state: 'over', against };
  return { from, by, state: against.length === 0 ? 'may-end' : 'goes-on', against };
}
