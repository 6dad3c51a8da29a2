import type { ExerciseDefinition } from '@heathstep/core';
import type { ClinicContent } from '../../api/queries.js';

/** What the library can be narrowed down by; each a set of words an exercise has. */
export const FACETS = ['aim', 'body part', 'position', 'equipment', 'driver', 'free of'] as const;
export type Facet = (typeof FACETS)[number];

export type Chosen = Readonly<Partial<Record<Facet, string>>>;

const NOTHING = 'nothing needed';

/** Standing on a step is standing: the first words of a position. */
const positionOf = (e: ExerciseDefinition): string => e.position.split(/,| on | or /)[0] ?? e.position;

function wordsOf(e: ExerciseDefinition, facet: Facet): readonly string[] {
  switch (facet) {
    case 'aim':
      return [e.aim.replaceAll('-', ' ')];
    case 'body part':
      return e.parts;
    case 'position':
      return [positionOf(e)];
    case 'equipment':
      return e.equipment.length === 0 ? [NOTHING] : e.equipment;
    case 'driver':
      return e.drivers;
    case 'free of':
      return e.tags;
  }
}

const has = (e: ExerciseDefinition, facet: Facet, word: string): boolean => {
  const there = wordsOf(e, facet).includes(word);
  return facet === 'free of' ? !there : there;
};

/** Words with a space before each, so that a search finds where a word begins. */
const asWords = (text: string): string => text.toLowerCase().replace(/(?:^|[^\p{L}\p{N}]+)/gu, ' ');

/** Everything that is written about an exercise, for the search by words. */
const textOf = (e: ExerciseDefinition): string =>
  [
    e.name,
    e.aim,
    e.position,
    e.place,
    e.feel,
    e.change,
    e.moves,
    ...e.parts,
    ...e.variants.map((v) => v.name),
    ...e.equipment,
    ...e.steps,
    ...e.faults.flatMap((f) => [f.fault, f.fix]),
    ...e.drivers,
  ]
    .map(asWords)
    .join('');

/** An index made once for all exercises, so that narrowing down reads no text twice. */
export const indexOf = (exercises: readonly ExerciseDefinition[]): ReadonlyMap<string, string> =>
  new Map(exercises.map((e) => [e.key, textOf(e)]));

/** Exercises that have every word asked for and every choice made. */
export function narrowed(
  exercises: readonly ExerciseDefinition[],
  index: ReadonlyMap<string, string>,
  query: string,
  chosen: Chosen,
): ExerciseDefinition[] {
  const asked = asWords(query)
    .split(' ')
    .filter((w) => w !== '')
    .map((w) => ` ${w}`);
  const choices = Object.entries(chosen) as [Facet, string][];
  return exercises.filter((e) => {
    const text = index.get(e.key) ?? '';
    return asked.every((w) => text.includes(w)) && choices.every(([facet, word]) => has(e, facet, word));
  });
}

export interface FacetCount {
  readonly word: string;
  readonly count: number;
}

/** For each word of a facet how many exercises would be left if it were chosen, the other choices standing. */
export function countsOf(
  exercises: readonly ExerciseDefinition[],
  index: ReadonlyMap<string, string>,
  query: string,
  chosen: Chosen,
  facet: Facet,
): FacetCount[] {
  const { [facet]: _own, ...others } = chosen;
  const left = narrowed(exercises, index, query, others);
  const words = [...new Set(exercises.flatMap((e) => wordsOf(e, facet)))].sort();
  return words.map((word) => ({ word, count: left.filter((e) => has(e, facet, word)).length }));
}

/** What can be chosen: everything but the clinic's own that were put aside. */
export function offered(content: Pick<ClinicContent, 'exercises' | 'ownExercises'>): ExerciseDefinition[] {
  const aside = new Set(content.ownExercises.filter((o) => o.retired).map((o) => o.key));
  return content.exercises.filter((e) => !aside.has(e.key));
}
