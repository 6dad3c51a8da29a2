import { say, mainPosition } from '@heathstep/core';
import type { ExerciseDefinition } from '@heathstep/core';
import type { ClinicContent } from '../../api/queries.js';
import { type Find, finderOf } from '../../parts/finder.js';

/** What the library can be narrowed down by; each a set of words an exercise has. */
export const FACETS = ['aim', 'body part', 'position', 'equipment', 'driver', 'free of'] as const;
export type Facet = (typeof FACETS)[number];

export type Chosen = Readonly<Partial<Record<Facet, string>>>;

const NOTHING = say('nothing needed');

function wordsOf(e: ExerciseDefinition, facet: Facet): readonly string[] {
  switch (facet) {
    case 'aim':
      return [e.aim];
    case 'body part':
      return e.parts;
    case 'position':
      return [mainPosition(e)];
    case 'equipment':
      return e.equipment.length === 0 ? [NOTHING] : e.equipment;
    case 'driver':
      return e.drivers;
    case 'free of':
      return e.tags;
  }
}

/** Everything that is written about an exercise, for the search by words. */
const textOf = (e: ExerciseDefinition): string =>
  [
    e.name,
    ...(e.also ?? []),
    e.aim,
    say(e.position),
    e.place,
    e.feel,
    e.change,
    e.moves,
    ...e.parts,
    ...e.variants.map((v) => v.name),
    ...e.equipment,
    ...e.steps,
    ...e.faults.flatMap((f) => [say(f.fault), f.fix]),
    ...e.drivers,
  ].join(' ');

export interface Index {
  readonly find: Find<ExerciseDefinition>;
  /** The words of each exercise by facet, read once. */
  readonly facets: ReadonlyMap<string, Readonly<Record<Facet, readonly string[]>>>;
  /** Every word of each facet, in order. */
  readonly words: Readonly<Record<Facet, readonly string[]>>;
}

const byFacet = <T>(of: (facet: Facet) => T): Record<Facet, T> =>
  Object.fromEntries(FACETS.map((f) => [f, of(f)])) as Record<Facet, T>;

/** An index made once for all exercises, so that narrowing down reads no text twice. */
export const indexOf = (exercises: readonly ExerciseDefinition[]): Index => ({
  find: finderOf(exercises, textOf, (e) => [e.name, ...(e.also ?? [])].join(' ')),
  facets: new Map(exercises.map((e) => [e.key, byFacet((f) => wordsOf(e, f))])),
  words: byFacet((f) => [...new Set(exercises.flatMap((e) => wordsOf(e, f)))].sort()),
});

const fits = (words: Readonly<Record<Facet, readonly string[]>>, facet: Facet, word: string): boolean =>
  words[facet].includes(word) !== (facet === 'free of');

/** Exercises that have every word asked for and every choice made. */
export function narrowed(index: Index, query: string, chosen: Chosen): ExerciseDefinition[] {
  const choices = Object.entries(chosen) as [Facet, string][];
  return index.find(query).filter((e) => {
    const words = index.facets.get(e.key);
    return words !== undefined && choices.every(([facet, word]) => fits(words, facet, word));
  });
}

export interface FacetCount {
  readonly word: string;
  readonly count: number;
}

/** For each word of each facet how many exercises would be left if it were chosen, the other choices standing. */
export function countsOf(index: Index, query: string, chosen: Chosen): Record<Facet, FacetCount[]> {
  const all = narrowed(index, query, chosen);
  return byFacet((facet) => {
    const { [facet]: own, ...others } = chosen;
    const left = own === undefined ? all : narrowed(index, query, others);
    const having = new Map<string, number>();
    for (const e of left)
      for (const word of index.facets.get(e.key)?.[facet] ?? [])
        having.set(word, (having.get(word) ?? 0) + 1);
    return index.words[facet].map((word) => {
      const count = having.get(word) ?? 0;
      return { word, count: facet === 'free of' ? left.length - count : count };
    });
  });
}

/** What can be chosen: everything but the clinic's own that were put aside. */
export function offered(content: Pick<ClinicContent, 'exercises' | 'ownExercises'>): ExerciseDefinition[] {
  const aside = new Set(content.ownExercises.filter((o) => o.retired).map((o) => o.key));
  return content.exercises.filter((e) => !aside.has(e.key));
}
