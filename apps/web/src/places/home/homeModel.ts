import type { HomeScores, Prescription } from '@heathstep/core';
import type { Beat } from '../../parts/pacer/beats.js';
import type { HomeEntryBody, HomeEntryView, HomeView, SessionPayload } from '@heathstep/contracts';

/**
 * Whole sets finished on the side that is least far; repetitions of the first set when none is finished yet.
 * @param turn which of what is done in turn `item` is
 */
export function progressAt(
  all: readonly Beat[],
  second: number,
  item: Prescription,
  turn = 0,
): { sets: number; reps: number } {
  const beats = all.filter((b) => b.turn === turn);
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

/**
 * Sets and repetitions after one of them was put right. A set is of as many repetitions as were planned until something
 * else is said, and what was not done at all has neither: a set of nothing is not kept.
 */
export function putRight<D extends { readonly sets: number; readonly reps: number }>(
  done: D,
  field: 'sets' | 'reps',
  by: number,
  planned: number,
): D {
  const value = Math.max(0, done[field] + by);
  if (value === 0) return { ...done, sets: 0, reps: 0 };
  return field === 'sets'
    ? { ...done, sets: value, reps: done.reps === 0 ? planned : done.reps }
    : { ...done, reps: value, sets: Math.max(1, done.sets) };
}

/** Today's session as far as it has come; kept on the phone. */
export interface Running {
  readonly id: string;
  readonly day: string;
  /** Answered so far. */
  readonly scores: HomeScores;
  /** The plan version that was on the phone when it began. */
  readonly planId: string | null;
  readonly done: readonly Done[];
}

export const entryOf = (view: HomeView, kind: HomeEntryView['kind'], day: string): HomeEntryView | null =>
  [...view.entries].reverse().find((e) => e.kind === kind && e.day === day) ?? null;

export const asSession = (entry: HomeEntryView): SessionPayload => entry.payload as SessionPayload;

const CORRECTION_MS = 48 * 3_600_000;

export const canCorrect = (entry: HomeEntryView, now: number): boolean =>
  entry.kind !== 'stop' && now - Date.parse(entry.at) < CORRECTION_MS;

/** Entries as they will be once everything waiting on the phone has arrived. */
export function withWaiting(view: HomeView, waiting: readonly HomeEntryBody[]): HomeView {
  const newest = new Map(view.entries.map((e) => [e.id, e]));
  for (const w of waiting) {
    const had = newest.get(w.id);
    if (had === undefined || had.version < w.version)
      newest.set(w.id, {
        ...w,
        planId: w.planId ?? had?.planId ?? null,
        at: had?.at ?? new Date().toISOString(),
      });
  }
  return { ...view, entries: [...newest.values()] };
}

/** What stands on the phone's one screen. */
export type Screen =
  | { readonly at: 'list' }
  | { readonly at: 'before' }
  | { readonly at: 'exercise'; readonly index: number }
  | { readonly at: 'after' }
  | {
      readonly at: 'hurts';
      readonly exercise: string | null;
      readonly back: Screen;
      /** What of its round was done before. */ readonly done: readonly Done[];
    }
  | { readonly at: 'morning' }
  | { readonly at: 'correct'; readonly entryId: string };

/** Sessions saved today; each was one round of what is done several times a day. */
export const sessionsToday = (view: HomeView): HomeEntryView[] =>
  view.entries.filter((e) => e.kind === 'session' && e.day === view.today);

/** What the coming round of today holds: exercises that are done more often a day than there were rounds. */
export function roundOf(view: HomeView): HomeView['items'] {
  const rounds = sessionsToday(view).length;
  return view.items.filter((i) => i.prescription.timesPerDay > rounds);
}

/** The first exercise of this round from an index on that is not done; as many as there are once all are. */
export const nextIndex = (view: HomeView, done: readonly Done[], from = 0): number => {
  const round = roundOf(view);
  const at = view.items.findIndex(
    (i, index) =>
      index >= from && round.includes(i) && done.every((d) => d.exercise !== i.prescription.exercise),
  );
  return at === -1 ? view.items.length : at;
};

/** Whether an exercise is done with: in the round under way, or, where none is to come, in one before. */
export function isDone(view: HomeView, running: Running | null, item: HomeView['items'][number]): boolean {
  const has = (done: readonly Done[]) => done.some((d) => d.exercise === item.prescription.exercise);
  if (running !== null && has(running.done)) return true;
  return !roundOf(view).includes(item) && sessionsToday(view).some((s) => has(asSession(s).exercises));
}

/** What is done in turn from an index on: the exercises of its round that are for today and not done, else it alone. */
export function turnsFrom(
  view: HomeView,
  index: number,
  done: readonly Done[],
): readonly HomeView['items'][number][] {
  const item = view.items[index];
  if (item === undefined) return [];
  const { round } = item.prescription;
  if (round === undefined) return [item];
  const todo = roundOf(view);
  return view.items.filter(
    (i) =>
      i === item ||
      (i.prescription.round?.key === round.key &&
        todo.includes(i) &&
        done.every((d) => d.exercise !== i.prescription.exercise)),
  );
}
