import { say } from '@heathstep/core';
import type { Column, FindingState, MeasureDefinition, ScreenRecord, Side } from '@heathstep/core';
import { entriesOfKind, readKey, standsFor } from './entries/registry.js';
import { asEntries, type Entries, type MeasureEntry } from './entries/values.js';
import { injuredLately, POSES, seenSign, type SupportPoint } from './look.js';
import type { VisitReadings } from './measured.js';

const skipsOver = (key: string, value: unknown): boolean =>
  readKey(key)?.kind === 'measure' && (value as MeasureEntry).status === 'not-done';

/** The newest of every entry over some visits, oldest first. What stands for its visit only is that of the last; not done hides nothing. */
export function newestEntries(visits: readonly Entries[]): Entries {
  const merged = new Map<string, unknown>();
  for (const [i, entries] of visits.entries())
    for (const [key, value] of entries) {
      if (standsFor(key) === 'visit' && i < visits.length - 1) continue;
      if (merged.has(key) && skipsOver(key, value)) continue;
      merged.set(key, value);
    }
  return asEntries(merged);
}

const STORY_WORDS = ['onset', 'load-change', 'character', 'worse-when'] as const;

function toldIn(entries: Entries, key: string): readonly string[] | null {
  if (key === 'night') {
    const night = entries.get('story.night');
    return night === undefined ? null : [night ? 'yes' : 'no'];
  }
  const told = STORY_WORDS.find((w) => w === key);
  const value = told === undefined ? undefined : entries.get(`story.${told}`);
  if (value === undefined || value.length === 0) return null;
  return typeof value === 'string' ? [value] : value;
}

function markedIn(entries: Entries, side: Side): readonly string[] | null {
  const regions = entries.get('story.regions') ?? [];
  if (regions.length === 0) return null;
  return regions.filter((r) => r.startsWith(`${side}:`)).map((r) => r.slice(side.length + 1));
}

const AREAS: Readonly<Record<string, readonly [drawing: 'wear' | 'callus', areas: readonly string[]]>> = {
  'wear-outer': ['wear', ['forefoot-out']],
  'wear-inner': ['wear', ['heel-in', 'forefoot-in']],
  'callus-first-head': ['callus', ['first-head']],
  'callus-middle-heads': ['callus', ['middle-heads']],
  'callus-fifth-head': ['callus', ['fifth-head']],
  'callus-outer-border': ['callus', ['outer-border']],
};

/** The drawing a sign is marked on. */
const DRAWING: Readonly<Record<string, 'numb' | 'toes'>> = {
  'feeling-lost': 'numb',
  'rigid-toe': 'toes',
  'toe-shape': 'toes',
};

const drawingOf = (sign: string): 'numb' | 'toes' | 'tender' | undefined =>
  DRAWING[sign] ?? (sign.startsWith('tender-') ? 'tender' : undefined);

function toeShapes(entries: Entries, side: Side): string | false {
  const toes = entries.get(`look.toes.${side}`) ?? {};
  const curled = Object.entries(toes).filter(([toe, t]) => toe !== 'big' && t.shape !== 'straight');
  return curled.length === 0
    ? false
    : curled.map(([toe, t]) => say('{{shape}} {{toe}} toe', { shape: say(t.shape), toe })).join(', ');
}

function seenIn(entries: Entries, sign: string, side: Side): string | false | null {
  const area = AREAS[sign];
  if (area !== undefined) {
    const marked = entries.get(`look.${area[0]}.${side}`);
    if (marked === undefined) return null;
    return (marked as readonly string[]).some((m) => area[1].includes(m))
      ? say('marked on the drawing')
      : false;
  }
  if (sign === 'injured-lately') return injuredLately(entries) ?? false;
  const drawing = drawingOf(sign);
  const looked = drawing !== undefined && entries.get(`look.${drawing}.${side}`) !== undefined;
  if (!looked) return null;
  if (sign === 'feeling-lost') {
    const numb = entries.get(`look.numb.${side}`);
    if (numb === undefined || numb.felt.length + numb.missed.length === 0) return null;
  }
  return sign === 'toe-shape' ? toeShapes(entries, side) : (seenSign(entries, sign, side) ?? false);
}

/** Findings answered by hand, by `key.side`. */
export function findingAnswers(entries: Entries): Map<string, FindingState> {
  return new Map(
    entriesOfKind(entries, 'finding').map(({ name, side, value }) => [`${name}.${side}`, value]),
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
    point: (pose, point, side) => {
      const looked = POSES.find(([p]) => p === pose)?.[0];
      if (looked === undefined) return null;
      return entries.get(`look.points.${looked}.${side}`)?.[point as SupportPoint] ?? null;
    },
    ageYears,
  };
}
