import { hasWords, searchable } from '@heathstep/core';

/** Everything someone is looked for by: the name, and the date of birth as it is written there or here. */
function textOf(person: { readonly name: string; readonly birthDate: string | null }): string {
  if (person.birthDate === null) return searchable(person.name);
  const [year, month, day] = person.birthDate.split('-');
  return searchable(`${person.name} ${person.birthDate} ${Number(day)} ${Number(month)} ${year ?? ''}`);
}

/** People who have every word asked for, in any order and without accents, in the order they came; all where nothing is. */
export function peopleFound<T extends { readonly name: string; readonly birthDate: string | null }>(
  people: readonly T[],
  asked: string,
): readonly T[] {
  const words = searchable(asked);
  if (words.trim() !== '') return people.filter((p) => hasWords(textOf(p), words));
  // Signs alone are looked for as they are.
  const signs = asked.trim();
  return signs === '' ? people : people.filter((p) => p.name.includes(signs));
}
