import type { Column, FindingState, MeasureDefinition, ScreenRecord, Side } from '@heathstep/core';
import type { MeasureEntry } from './entryRules.js';
import type { Entries } from './facts.js';
import { type NumbEntry, type PointsEntry, seenSign, type SupportPoint, type ToeEntry } from './look.js';
import type { VisitReadings } from './measured.js';

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

const drawingOf = (sign: string): string | undefined =>
  DRAWING[sign] ?? (sign.startsWith('tender-') ? 'tender' : undefined);

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
  const drawing = drawingOf(sign);
  const looked = drawing !== undefined && entries.get(`look.${drawing}.${side}`) !== undefined;
  if (!looked) return null;
  if (sign === 'feeling-lost') {
    const numb = entries.get(`look.numb.${side}`) as NumbEntry;
    if (numb.felt.length + numb.missed.length === 0) return null;
  }
  return sign === 'toe-shape' ? toeShapes(entries, side) : (seenSign(entries, sign, side) ?? false);
}

/** Findings answered by hand, by `key.side`. */
export function findingAnswers(entries: Entries): Map<string, FindingState> {
  return new Map(
    [...entries]
      .filter(([key]) => key.startsWith('finding.'))
      .map(([key, value]) => [key.slice('finding.'.length), value as FindingState]),
  );
}

/** What reasoning and safety read of some entries, besides the safety answers. */
export function recordOf(
  measures: readonly MeasureDefinition[],
  readings: VisitReadings,
  ageYears: number | null,
): ScreenRecord {
  const { entries } = readings;
  const byKey = new Map(measures.map((m) => [m.key, m]));
  return {
    measure: (key) => byKey.get(key),
    measured: (key: string, side: Column) => readings.forSigns(key, side),
    told: (key) => toldIn(entries, key),
    marked: (side) => markedIn(entries, side),
    seen: (sign, side) => seenIn(entries, sign, side),
    point: (pose, point, side) =>
      (entries.get(`look.points.${pose}.${side}`) as PointsEntry | undefined)?.[point as SupportPoint] ??
      null,
    ageYears,
  };
}
