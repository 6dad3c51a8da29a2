import {
  type Affected,
  type Column,
  type FindingState,
  type MeasureDefinition,
  type RankedCondition,
  rankOnly,
  reasonAbout,
  type ReasonContent,
  type Reasoning,
  type ReasonInput,
  type Side,
} from '@heathstep/core';
import type { ConcludedIdea, MeasureEntry } from './entryRules.js';
import { type Entries, entriesOf } from './facts.js';
import { type NumbEntry, type PointsEntry, seenSign, type SupportPoint, type ToeEntry } from './look.js';
import { VisitReadings } from './measured.js';
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

const skipsOver = (key: string, value: unknown): boolean =>
  key.startsWith('measure.') && (value as MeasureEntry).status === 'not-done';

/** The newest of every entry over some visits, oldest first. Safety answers and conclusions are only those of the last; not done hides nothing. */
export function newestEntries(visits: readonly Entries[]): Entries {
  const merged = new Map<string, unknown>();
  for (const [i, entries] of visits.entries())
    for (const [key, value] of entries) {
      const ofTheDay = key.startsWith('safety.') || key.startsWith('conclude.');
      if (ofTheDay && i < visits.length - 1) continue;
      if (merged.has(key) && skipsOver(key, value)) continue;
      merged.set(key, value);
    }
  return merged;
}

const STORY_WORDS = ['onset', 'load-change', 'character', 'worse-when'] as const;

function toldIn(entries: Entries, key: string): readonly string[] | null {
  if (key === 'night') {
    const night = entries.get('story.night') as boolean | undefined;
    return night === undefined ? null : [night ? 'yes' : 'no'];
  }
  if (!(STORY_WORDS as readonly string[]).includes(key)) return null;
  const value = entries.get(`story.${key}`) as string | readonly string[] | undefined;
  if (value === undefined || value.length === 0) return null;
  return typeof value === 'string' ? [value] : value;
}

function markedIn(entries: Entries, side: Side): readonly string[] | null {
  const regions = (entries.get('story.regions') as readonly string[] | undefined) ?? [];
  if (regions.length === 0) return null;
  return regions.filter((r) => r.startsWith(`${side}:`)).map((r) => r.slice(side.length + 1));
}

function answeredIn(entries: Entries, question: string, side: Column): boolean | null {
  const answer = entries.get(`safety.${question}`);
  if (answer === undefined) return null;
  if (answer === 'no') return false;
  return side === 'none' || answer === 'yes' || answer === 'both' || answer === side;
}

const AREAS: Readonly<Record<string, readonly [drawing: string, areas: readonly string[]]>> = {
  'wear-outer': ['wear', ['forefoot-out']],
  'wear-inner': ['wear', ['heel-in', 'forefoot-in']],
  'callus-first-head': ['callus', ['first-head']],
  'callus-middle-heads': ['callus', ['middle-heads']],
  'callus-fifth-head': ['callus', ['fifth-head']],
  'callus-outer-border': ['callus', ['outer-border']],
};

/** The drawing a sign is marked on. */
const DRAWING: Readonly<Record<string, string>> = {
  'feeling-lost': 'numb',
  'rigid-toe': 'toes',
  'toe-shape': 'toes',
};

function toeShapes(entries: Entries, side: Side): string | false {
  const toes = (entries.get(`look.toes.${side}`) as Record<string, ToeEntry> | undefined) ?? {};
  const curled = Object.entries(toes).filter(([toe, t]) => toe !== 'big' && t.shape !== 'straight');
  return curled.length === 0 ? false : curled.map(([toe, t]) => `${t.shape} ${toe} toe`).join(', ');
}

function seenIn(entries: Entries, sign: string, side: Side): string | false | null {
  const area = AREAS[sign];
  if (area !== undefined) {
    const marked = entries.get(`look.${area[0]}.${side}`) as readonly string[] | undefined;
    if (marked === undefined) return null;
    return marked.some((m) => area[1].includes(m)) ? 'marked on the drawing' : false;
  }
  const drawing = DRAWING[sign];
  const looked = drawing !== undefined && entries.get(`look.${drawing}.${side}`) !== undefined;
  if (!looked) return null;
  if (sign === 'feeling-lost') {
    const numb = entries.get(`look.numb.${side}`) as NumbEntry;
    if (numb.felt.length + numb.missed.length === 0) return null;
  }
  return sign === 'toe-shape' ? toeShapes(entries, side) : (seenSign(entries, sign, side) ?? false);
}

/** Findings answered by hand, by `key.side`. */
function findingAnswers(entries: Entries): Map<string, FindingState> {
  return new Map(
    [...entries]
      .filter(([key]) => key.startsWith('finding.'))
      .map(([key, value]) => [key.slice('finding.'.length), value as FindingState]),
  );
}

export interface ReasonOn {
  readonly affected: Affected;
  readonly ageYears: number | null;
  readonly daysSinceOnset: number | null;
  readonly tagsOff: ReasonInput['tagsOff'];
  /** Answers to suppose on top of the record, for a what-if. */
  readonly suppose?: ReadonlyMap<string, FindingState>;
}

type Content = ReasonContent & { readonly measures: readonly MeasureDefinition[] };

/** What the reasoning reads of an episode's newest entries. */
function inputOf(content: Content, entries: Entries, on: ReasonOn): ReasonInput {
  const readings = new VisitReadings(content.measures, entries).findings();
  const byKey = new Map(content.measures.map((m) => [m.key, m]));
  return {
    answers: new Map([...findingAnswers(entries), ...(on.suppose ?? [])]),
    record: {
      measure: (key) => byKey.get(key),
      measured: readings.measured,
      told: (key) => toldIn(entries, key),
      marked: (side) => markedIn(entries, side),
      safety: (question, side) => answeredIn(entries, question, side),
      seen: (sign, side) => seenIn(entries, sign, side),
      point: (pose, point, side) =>
        (entries.get(`look.points.${pose}.${side}`) as PointsEntry | undefined)?.[point as SupportPoint] ??
        null,
      ageYears: on.ageYears,
    },
    affected: on.affected,
    daysSinceOnset: on.daysSinceOnset,
    tagsOff: on.tagsOff,
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
