import {
  type Affected,
  addDays,
  answerOn,
  type Facts,
  daysBetween,
  type FindingState,
  type MeasureDefinition,
  type OpenSign,
  type RankedCondition,
  rankOnly,
  reasonAbout,
  type ReasonContent,
  type Reasoning,
  type ReasonInput,
  type Worked,
  workedOn,
} from '@heathstep/core';
import type { ConcludedIdea, Entries, EntryValue } from './entries/values.js';
import { entriesOf } from './facts.js';
import { VisitReadings } from './measured.js';
import { findingAnswers, newestEntries, recordOf } from './record.js';
import type { VisitView } from './views.js';

/** Days since it began that an answer stands for, the middle of its span. */
const SINCE_DAYS: Readonly<Record<EntryValue<'story.since'>, number>> = {
  'under-2-weeks': 10,
  '2-to-6-weeks': 28,
  '6-weeks-to-3-months': 66,
  '3-to-6-months': 135,
  '6-to-12-months': 270,
  'over-a-year': 500,
};

/** Days since it began, as a story tells; null when it does not. */
function daysTold(entries: Entries): number | null {
  const since = entries.get('story.since');
  return entries.get('story.days') ?? (since === undefined ? null : SINCE_DAYS[since]);
}

/** Days since it began by a day, as the newest of the visits that tells of it says; null when none does. Visits come oldest first. */
export function daysSinceOnset(
  visits: readonly VisitView[],
  day: string,
  localDayOf: (iso: string) => string,
): number | null {
  for (const visit of [...visits].reverse()) {
    const told = daysTold(entriesOf(visit.entries));
    if (told !== null) return told + Math.max(0, daysBetween(localDayOf(visit.startedAt), day));
  }
  return null;
}

/** What others allow of each side, and the day of the injury: what criteria read besides measures. Visits come oldest first. */
export function stateFacts(
  visits: readonly VisitView[],
  day: string,
  localDayOf: (iso: string) => string,
): Pick<Facts, 'limits' | 'injuredOn'> {
  const newest = newestEntries(visits.map((v) => entriesOf(v.entries)));
  const [left, right] = [newest.get('limits.left'), newest.get('limits.right')];
  const days = newest.get('story.onset') === 'injury' ? daysSinceOnset(visits, day, localDayOf) : null;
  return {
    limits: { ...(left === undefined ? {} : { left }), ...(right === undefined ? {} : { right }) },
    injuredOn: days === null ? null : addDays(day, -days),
  };
}

export interface ReasonOn {
  readonly affected: Affected;
  readonly ageYears: number | null;
  readonly daysSinceOnset: number | null;
  readonly tagsOff: ReasonInput['tagsOff'];
  /** Open emergencies and urgents. */
  readonly stops?: readonly OpenSign[];
  /** Answers to suppose on top of the record, for a what-if. */
  readonly suppose?: ReadonlyMap<string, FindingState>;
}

type Content = ReasonContent & { readonly measures: readonly MeasureDefinition[] };

/** What the reasoning reads of an episode's newest entries. */
function inputOf(content: Content, entries: Entries, on: ReasonOn): ReasonInput {
  return {
    answers: new Map([...findingAnswers(entries), ...(on.suppose ?? [])]),
    record: {
      ...recordOf(content.measures, new VisitReadings(content.measures, entries), on.ageYears),
      safety: (question, side) => answerOn(entries.get(`safety.${question}`), side),
    },
    affected: on.affected,
    daysSinceOnset: on.daysSinceOnset,
    tagsOff: on.tagsOff,
    ...(on.stops === undefined ? {} : { stops: on.stops }),
    verdicts: entries.get('conclude.ideas') ?? [],
  };
}

/** What it is, what keeps it going and what to ask next, from the newest entries of an episode. */
export const reasonOnEntries = (content: Content, entries: Entries, on: ReasonOn): Reasoning =>
  reasonAbout(content, inputOf(content, entries, on));

/** The ranking alone, for a what-if. */
export const rankOnEntries = (content: Content, entries: Entries, on: ReasonOn): readonly RankedCondition[] =>
  rankOnly(content, inputOf(content, entries, on));

/** What prescribing goes by, from an episode's visits, oldest first. */
export const workedOnVisits = (content: Content, visits: readonly VisitView[], on: ReasonOn): Worked =>
  workedOn(content, inputOf(content, newestEntries(visits.map((v) => entriesOf(v.entries))), on));

/** What was concluded at a visit; nothing rejected is in it. */
export const concludedIdeas = (entries: Entries): readonly ConcludedIdea[] =>
  (entries.get('conclude.ideas') ?? []).filter((i) => i.verdict !== 'rejected');

/** Whether a visit says what it is, or says plainly that it cannot be told yet. */
export function isConcluded(entries: Entries): boolean {
  const words = entries.get('conclude.other');
  return (
    concludedIdeas(entries).length > 0 ||
    (words !== undefined && words.trim() !== '') ||
    entries.get('conclude.condition') === 'open' ||
    entries.get('conclude.condition') === 'agree'
  );
}
