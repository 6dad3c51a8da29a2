import MiniSearch from 'minisearch';
import { folded, hasWords, searchable } from '@heathstep/core';

/** What is like a text that was asked for. */
export type Find<T> = (asked: string) => readonly T[];

/** By how many letters a word may be wrong: two changed places count as two. */
const misspelt = (word: string): number | false => (word.length < 4 ? false : word.length < 7 ? 1 : 2);

/** The whole of a list as one index; made when something is first misspelt. */
function likeOf<T>(items: readonly T[], nameOf: (item: T) => string): Find<T> {
  const index = new MiniSearch<{ id: number; text: string }>({
    fields: ['text'],
    processTerm: (term) => folded(term),
    searchOptions: {
      combineWith: 'AND',
      prefix: true,
      fuzzy: misspelt,
    },
  });
  index.addAll(items.map((item, id) => ({ id, text: nameOf(item) })));
  return (asked) => index.search(asked).flatMap((hit) => items[hit.id as number] ?? []);
}

/**
 * Finds in a list by words in any order, without accents; in the list's own order. Only where nothing has the words as they
 * were typed, those whose names are like them are found, the likest first. Nothing asked finds everything.
 * @param nameOf what may be misspelt, where that is not the whole text: among many words something is always like another
 */
export function finderOf<T>(
  items: readonly T[],
  textOf: (item: T) => string,
  nameOf: (item: T) => string = textOf,
): Find<T> {
  const texts = items.map((item) => searchable(textOf(item)));
  let like: Find<T> | null = null;
  let last: { asked: string; found: readonly T[] } = { asked: '', found: items };
  return (typed) => {
    const asked = searchable(typed).trim();
    if (asked === last.asked) return last.found;
    const exact = items.filter((_, i) => hasWords(texts[i] ?? '', asked));
    last = { asked, found: exact.length > 0 ? exact : (like ??= likeOf(items, nameOf))(asked) };
    return last.found;
  };
}
