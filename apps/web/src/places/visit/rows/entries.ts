import { say } from '@heathstep/core';
import type { MeasureDefinition } from '@heathstep/core';
import type { MeasureEntry } from '@heathstep/contracts';
import type { EntryStore } from '../../../api/entryStore.js';
import type { Column } from '../live.js';

export const EMPTY: MeasureEntry = { trials: [], status: 'taken', pain: null };

export const STATUS_WORDS: Record<MeasureEntry['status'], string> = {
  taken: say('taken'),
  'not-done': say('not done'),
  unable: say('unable'),
  'stopped-by-pain': say('stopped by pain'),
};

const says = (e: MeasureEntry): boolean =>
  e.status !== 'taken' ||
  e.pain !== null ||
  e.trials.some((t) => t !== null) ||
  e.again !== undefined ||
  (e.parts !== undefined && Object.keys(e.parts).length > 0);

export type MeasureKey = `measure.${string}.${Column}`;

export const keyOf = (measure: MeasureDefinition, side: Column): MeasureKey =>
  `measure.${measure.key}.${side}`;

export const readEntry = (store: EntryStore, measure: MeasureDefinition, side: Column): MeasureEntry =>
  store.get(keyOf(measure, side)) ?? EMPTY;

/** Writes an entry; one that says nothing is cleared. */
export function writeEntry(
  store: EntryStore,
  measure: MeasureDefinition,
  side: Column,
  entry: MeasureEntry,
): void {
  store.set(keyOf(measure, side), says(entry) ? entry : null);
}

/** An entry with one trial changed; a confirmed odd reading is asked about anew. */
export function withTrial(entry: MeasureEntry, index: number, value: number | null): MeasureEntry {
  const { confirmed: _confirmed, ...rest } = entry;
  const length = Math.max(index + 1, entry.trials.length);
  const trials = Array.from({ length }, (_, i) => (i === index ? value : (entry.trials[i] ?? null)));
  while (trials.length > 0 && trials[trials.length - 1] === null) trials.pop();
  if (trials.length > 0) return { ...rest, trials };
  // With the last reading goes what it was taken with.
  const { simulated: _simulated, ...bare } = rest;
  return { ...bare, trials };
}

/** Where the next value goes on a side: the first empty trial; null when all are there. */
export function nextTrial(measure: MeasureDefinition, entry: MeasureEntry): number | null {
  for (let i = 0; i < measure.trials.count; i += 1) if (entry.trials[i] == null) return i;
  return null;
}

/**
 * Which side and trial the next captured value fills: alternating takes the side with fewer trials, left first;
 * otherwise the left side is filled before the right.
 */
export function nextPlace(
  measure: MeasureDefinition,
  entryOf: (side: Column) => MeasureEntry,
  sides: readonly Column[],
  alternating: boolean,
): { side: Column; trial: number } | null {
  const open = sides.flatMap((side) => {
    const trial = nextTrial(measure, entryOf(side));
    return trial === null || entryOf(side).status !== 'taken' ? [] : [{ side, trial }];
  });
  if (open.length === 0) return null;
  return alternating ? open.reduce((a, b) => (b.trial < a.trial ? b : a)) : (open[0] ?? null);
}

/** Left and right of a measure change places, everything that stands beside the trials with them. */
export function swapSides(store: EntryStore, measure: MeasureDefinition): void {
  const left = store.get(keyOf(measure, 'left'));
  const right = store.get(keyOf(measure, 'right'));
  store.setMany([
    [keyOf(measure, 'left'), right],
    [keyOf(measure, 'right'), left],
  ]);
}
