import type { ComposedExercise } from '@heathstep/core';
import type { Beat } from '../../parts/pacer/beats.js';
import type {
  HomeEntryBody,
  HomeEntryView,
  HomeView,
  MorningPayload,
  SessionPayload,
} from '@heathstep/contracts';

/** Whole sets finished on the side that is least far; repetitions of the first set when none is finished yet. */
export function progressAt(
  beats: readonly Beat[],
  second: number,
  item: ComposedExercise,
): { sets: number; reps: number } {
  const sides = [...new Set(beats.map((b) => b.side))];
  const done = sides.map((side) => {
    const own = beats.filter((b) => b.side === side && b.rep > 0);
    const lastOf = (set: number) => Math.max(0, ...own.filter((b) => b.set === set).map((b) => b.endSecond));
    const sets = Array.from({ length: item.sets }, (_, i) => i + 1).filter((set) => lastOf(set) <= second);
    const reps = Array.from({ length: item.reps }, (_, i) => i + 1).filter(
      (rep) =>
        Math.max(0, ...own.filter((b) => b.set === 1 && b.rep === rep).map((b) => b.endSecond)) <= second,
    );
    return { sets: sets.length, reps: reps.length };
  });
  const sets = Math.min(...done.map((d) => d.sets));
  if (sets > 0) return { sets, reps: item.reps };
  const reps = Math.max(0, ...done.map((d) => d.reps));
  return { sets: reps > 0 ? 1 : 0, reps };
}

export interface Done {
  readonly exercise: string;
  readonly sets: number;
  readonly reps: number;
  readonly effort: number | null;
}

/** Today's session as far as it has come; kept on the phone. */
export interface Running {
  readonly id: string;
  readonly day: string;
  readonly before: number | null;
  readonly done: readonly Done[];
}

export const entryOf = (view: HomeView, kind: HomeEntryView['kind'], day: string): HomeEntryView | null =>
  [...view.entries].reverse().find((e) => e.kind === kind && e.day === day) ?? null;

export const asSession = (entry: HomeEntryView): SessionPayload => entry.payload as SessionPayload;
export const asMorning = (entry: HomeEntryView): MorningPayload => entry.payload as MorningPayload;

const CORRECTION_MS = 48 * 3_600_000;

export const canCorrect = (entry: HomeEntryView, now: number): boolean =>
  entry.kind !== 'stop' && now - Date.parse(entry.at) < CORRECTION_MS;

/** Entries as they will be once everything waiting on the phone has arrived. */
export function withWaiting(view: HomeView, waiting: readonly HomeEntryBody[]): HomeView {
  const newest = new Map(view.entries.map((e) => [e.id, e]));
  for (const w of waiting) {
    const had = newest.get(w.id);
    if (had === undefined || had.version < w.version)
      newest.set(w.id, { ...w, at: had?.at ?? new Date().toISOString() });
  }
  return { ...view, entries: [...newest.values()] };
}
