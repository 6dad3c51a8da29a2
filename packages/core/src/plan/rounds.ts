import { isWalkRun } from '../dose/walkRun.js';
import type { ExerciseDefinition } from '../exercise/definition.js';
import type { Issue } from '../result/result.js';
import { type Tongue, say, spoken } from '../quantity/tongue.js';
import type { Prescription } from './prescription.js';

/**
 * How an exercise stands in a round: one set of each exercise of it in turn, then again from the first. `sets` of a
 * prescription says how many rounds, `restSeconds` the rest after each of its sets; that of the last one is the rest
 * between rounds.
 */
export interface InRound {
  /** Shared by the exercises of one round. */
  readonly key: string;
  /** Both feet in each exercise, or one foot through the whole round first. */
  readonly feet: 'each' | 'through';
}

/** A round is gone through this often at most. [convention] */
export const MOST_ROUNDS = 4;

/** What a short rest within a round and a longer one between rounds begin with, in seconds. [convention] */
const REST_IN_ROUND = { within: 15, between: 60 } as const;

/** Worn, walked and run by the clock, or done at its own part of the day: never in turn with others. */
export const isDoneAlone = (exercise: ExerciseDefinition): boolean =>
  exercise.aim === 'aid' || isWalkRun(exercise) || exercise.when !== null;

/** What the exercises of a round have in common: who changes it in one, changes it in all. */
const SHARED = ['sets', 'timesPerDay', 'daysPerWeek', 'days', 'part', 'round'] as const;
type Shared = (typeof SHARED)[number];

const sharedOf = (p: Prescription): Pick<Prescription, Shared> => ({
  sets: p.sets,
  timesPerDay: p.timesPerDay,
  daysPerWeek: p.daysPerWeek,
  days: p.days,
  part: p.part,
  round: p.round,
});

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** Without fields that are undefined, so that a plan equals what comes back of it. */
const defined = <T extends object>(value: T): T =>
  Object.fromEntries(Object.entries(value).filter(([, v]) => v !== undefined)) as T;

/** A plan in stretches: the exercises of a round together, every other exercise alone. */
export function stretches<T extends Prescription>(items: readonly T[]): readonly (readonly T[])[] {
  const made: T[][] = [];
  for (const item of items) {
    const last = made.at(-1);
    const before = last?.at(-1);
    if (last !== undefined && item.round !== undefined && before?.round?.key === item.round.key)
      last.push(item);
    else made.push([item]);
  }
  return made;
}

const mates = <T extends Prescription>(items: readonly T[], key: string): T[] =>
  items.filter((i) => i.round?.key === key);

/** What a round of these is dosed by: the fewest rounds, times and days that one of them has. */
function carefulOf(group: readonly Prescription[], first: Prescription): Pick<Prescription, Shared> {
  const days = group.reduce((least, i) => (i.daysPerWeek < least.daysPerWeek ? i : least), first);
  return {
    ...sharedOf(days),
    round: first.round,
    sets: Math.min(MOST_ROUNDS, ...group.map((i) => i.sets)),
    timesPerDay: Math.min(...group.map((i) => i.timesPerDay)),
  };
}

/** What is done with an exercise that leaves its round: its own shortest rest binds again. */
export type Alone<T> = (item: T) => T;

/**
 * A plan in which every round holds: its exercises stand together where its first stands, with the fewest rounds, times and
 * days that one of them has; what is left alone is in no round.
 */
export function tidyRounds<T extends Prescription>(items: readonly T[], leaves: Alone<T> = (i) => i): T[] {
  const seen = new Set<string>();
  return items.flatMap((item): T[] => {
    const { round, ...alone } = item;
    if (round === undefined) return [item];
    if (seen.has(round.key)) return [];
    seen.add(round.key);
    const group = mates(items, round.key);
    if (group.length < 2) return [leaves(alone as T)];
    const shared = carefulOf(group, item);
    const feet = group.every((i) => i.sides !== 'together') ? round.feet : 'each';
    return group.map((i) => defined({ ...i, ...shared, round: { key: round.key, feet } }));
  });
}

/** A plan after an edit: what the exercises of a round share follows the one that was changed. */
export function followRound<T extends Prescription>(
  before: readonly T[],
  after: readonly T[],
  leaves: Alone<T> = (i) => i,
): T[] {
  const was = (item: T) => before.find((b) => b.exercise === item.exercise)?.round !== undefined;
  const led = after.map((item): T => {
    const { round } = item;
    if (round === undefined) return item;
    const changed = mates(after, round.key).flatMap((mate) => {
      const old = before.find((b) => b.exercise === mate.exercise);
      if (old === undefined || old.round?.key !== round.key) return [];
      const [now, then] = [sharedOf(mate), sharedOf(old)];
      return [Object.fromEntries(SHARED.filter((f) => !same(now[f], then[f])).map((f) => [f, now[f]]))];
    });
    return defined(Object.assign({}, item, ...changed) as T);
  });
  return tidyRounds(led, leaves).map((i) => (i.round === undefined && was(i) ? leaves(i) : i));
}

/** A key no round of the plan has. */
function freeKey(items: readonly Prescription[]): string {
  const taken = new Set(items.map((i) => i.round?.key));
  return ['a', 'b', 'c', 'd', 'e', 'f'].find((k) => !taken.has(k)) ?? 'g';
}

/** The plan with the exercise at an index, and all of its round, in one round with the next. */
export function joinNext<T extends Prescription>(items: readonly T[], index: number): T[] {
  const [one, next] = [items[index], items[index + 1]];
  if (one === undefined || next === undefined) return [...items];
  const round = one.round ?? next.round ?? { key: freeKey(items), feet: 'each' as const };
  const belongs = (i: T) =>
    i === one ||
    i === next ||
    (i.round !== undefined && (i.round.key === one.round?.key || i.round.key === next.round?.key));
  const last = items.findLast(belongs);
  return tidyRounds(
    items.map((i) =>
      belongs(i)
        ? {
            ...i,
            round,
            restSeconds:
              i.round !== undefined && i !== one
                ? i.restSeconds
                : i === last
                  ? REST_IN_ROUND.between
                  : REST_IN_ROUND.within,
          }
        : i,
    ),
  );
}

/** The plan with the round of an exercise ended between it and the next. */
export function partNext<T extends Prescription>(items: readonly T[], index: number): T[] {
  const key = items[index]?.round?.key;
  if (key === undefined) return [...items];
  const other = freeKey(items);
  return tidyRounds(
    items.map((i, at) =>
      at > index && i.round?.key === key ? { ...i, round: { ...i.round, key: other } } : i,
    ),
  );
}

/** What is wrong with the rounds of a plan, by index and field. */
export function roundProblems(items: readonly Prescription[]): Issue[] {
  return stretches(items).flatMap((group) => {
    const [first] = group;
    if (first?.round === undefined) return [];
    const { key } = first.round;
    const issue = (item: Prescription, field: string, value: unknown, bound: string): Issue => ({
      path: `items.${items.indexOf(item)}.${field}`,
      value,
      bound,
    });
    if (group.length < 2 || group.length !== mates(items, key).length)
      return [
        issue(first, 'round', key, say('a round of two exercises or more, one after another in the plan')),
      ];
    return group.flatMap((item) => [
      ...(item.sets > MOST_ROUNDS
        ? [issue(item, 'sets', item.sets, say('at most {{mostRounds}} rounds', { mostRounds: MOST_ROUNDS }))]
        : []),
      ...(item.round?.feet === 'through' && item.sides === 'together'
        ? [issue(item, 'round', 'through', say('both feet in each: this exercise is done with both at once'))]
        : []),
      ...SHARED.filter((f) => !same(item[f], first[f])).map((f) =>
        issue(item, f, item[f], say('as in the first exercise of the round')),
      ),
    ]);
  });
}

/** What is said before the first exercise of a round. */
export function roundSentence(group: readonly Prescription[], t: Tongue = spoken()): string {
  const [first] = group;
  if (first?.round === undefined) return '';
  const sides = group.some((i) => i.sides === 'one-after-other' || i.sides === 'alternating');
  const feet = !sides
    ? ''
    : `, ${t.say(first.round.feet === 'through' ? 'one foot through all of them, then the other' : 'both feet in each')}`;
  return t.say(
    first.sets === 1
      ? 'In turn, {{count}} round of the next {{exercises}}: one set of each{{feet}}.'
      : 'In turn, {{count}} rounds of the next {{exercises}}: one set of each{{feet}}.',
    { count: first.sets, exercises: t.number(group.length), feet },
  );
}
