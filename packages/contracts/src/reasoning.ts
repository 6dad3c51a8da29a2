import {
  type Affected,
  answerOn,
  type FindingState,
  type MeasureDefinition,
  type OpenSign,
  type RankedCondition,
  rankOnly,
  reasonAbout,
  type ReasonContent,
  type Reasoning,
  type ReasonInput,
  type SafetyAnswer,
} from '@heathstep/core';
import type { ConcludedIdea } from './entryRules.js';
import { type Entries, entriesOf } from './facts.js';
import { VisitReadings } from './measured.js';
import { findingAnswers, newestEntries, recordOf } from './record.js';
import type { VisitView } from './views.js';

/** Days since it began that an answer stands for, the middle of its span. */
const SINCE_DAYS: Readonly<Record<string, number>> = {
  'under-2-weeks': 10,
  '2-to-6-weeks': 28,
  '6-weeks-to-3-months': 66,
  '3-to-6-months': 135,
  '6-to-12-months': 270,
  'over-a-year': 500,
};

/** Days since it began, as the story tells, with the days since it was told; null when it does not. */
export function daysSinceOnset(entries: Entries, daysSinceTold = 0): number | null {
  const exact = entries.get('story.days') as number | undefined;
  const span = SINCE_DAYS[String(entries.get('story.since'))];
  const days = exact ?? span;
  return days === undefined ? null : days + daysSinceTold;
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
      safety: (question, side) =>
        answerOn(entries.get(`safety.${question}`) as SafetyAnswer | undefined, side),
    },
    affected: on.affected,
    daysSinceOnset: on.daysSinceOnset,
    tagsOff: on.tagsOff,
    ...(on.stops === undefined ? {} : { stops: on.stops }),
    verdicts: (entries.get('conclude.ideas') as readonly ConcludedIdea[] | undefined) ?? [],
  };
}

/** What it is, what keeps it going and what to ask next, from the newest entries of an episode. */
export const reasonOnEntries = (content: Content, entries: Entries, on: ReasonOn): Reasoning =>
  reasonAbout(content, inputOf(content, entries, on));

/** The ranking alone, for a what-if. */
export const rankOnEntries = (content: Content, entries: Entries, on: ReasonOn): readonly RankedCondition[] =>
  rankOnly(content, inputOf(content, entries, on));

/** The same from an episode's visits, oldest first. */
export const reasonOnVisits = (content: Content, visits: readonly VisitView[], on: ReasonOn): Reasoning =>
  reasonOnEntries(content, newestEntries(visits.map((v) => entriesOf(v.entries))), on);

/** What was concluded at a visit; nothing rejected is in it. */
export const concludedIdeas = (entries: Entries): readonly ConcludedIdea[] =>
  ((entries.get('conclude.ideas') as readonly ConcludedIdea[] | undefined) ?? []).filter(
    (i) => i.verdict !== 'rejected',
  );

/** Whether a visit says what it is, or says plainly that it cannot be told yet. */
export function isConcluded(entries: Entries): boolean {
  const words = entries.get('conclude.other');
  return (
    concludedIdeas(entries).length > 0 ||
    (typeof words === 'string' && words.trim() !== '') ||
    entries.get('conclude.condition') === 'open' ||
    entries.get('conclude.condition') === 'agree'
  );
}
