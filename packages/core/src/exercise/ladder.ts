import type { Change, ExerciseDefinition } from './definition.js';

/** One step up: from an exercise to a harder one, and what makes it harder. */
export interface Rise {
  readonly from: string;
  readonly to: string;
  readonly changes: readonly Change[];
  readonly change: string;
  /** Whether it leads from one ladder to another. */
  readonly across: boolean;
}

/** Exercises of a ladder from its lowest rung. */
export const rungsOf = (exercises: readonly ExerciseDefinition[], ladder: string): ExerciseDefinition[] =>
  exercises.filter((e) => e.ladder === ladder).sort((a, b) => a.rung - b.rung);

/** Every step up there is: one rung to the next on each ladder, and from a ladder onto another. */
export function risesOf(
  exercises: readonly ExerciseDefinition[],
  ordered: (ladder: string) => boolean,
): Rise[] {
  return exercises.flatMap((e) => {
    const below = ordered(e.ladder)
      ? exercises.filter((x) => x.ladder === e.ladder && x.rung === e.rung - 1)
      : [];
    return [
      ...below.map((b) => ({ from: b.key, to: e.key, changes: e.changes, change: e.change, across: false })),
      ...e.after.map((from) => ({ from, to: e.key, changes: e.changes, change: e.change, across: true })),
    ];
  });
}

/** Exercises that lie on a circle of steps, so that none of them can be the easiest. */
export function circular(exercises: readonly ExerciseDefinition[], rises: readonly Rise[]): string[] {
  let left = exercises.map((e) => e.key);
  for (;;) {
    const within = new Set(left);
    const held = left.filter((key) => rises.some((r) => r.to === key && within.has(r.from)));
    if (held.length === left.length) return held;
    left = held;
  }
}

/** Exercises nothing leads to from where one may begin: first rungs that follow no other ladder, and sets without an order. */
export function unreachable(
  exercises: readonly ExerciseDefinition[],
  rises: readonly Rise[],
  ordered: (ladder: string) => boolean,
): string[] {
  const begins = (e: ExerciseDefinition) => !ordered(e.ladder) || (e.rung === 1 && e.after.length === 0);
  const reached = new Set(exercises.filter(begins).map((e) => e.key));
  for (let before = -1; before !== reached.size;) {
    before = reached.size;
    for (const r of rises) if (reached.has(r.from)) reached.add(r.to);
  }
  return exercises.filter((e) => !reached.has(e.key)).map((e) => e.key);
}
