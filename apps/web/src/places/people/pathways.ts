import type { Pathway } from '@heathstep/content';

const plain = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

/** Pathways that every word of a search is found in, by name, gloss or clinical term, in the library's order. */
export function pathwaysFor(pathways: readonly Pathway[], asked: string): readonly Pathway[] {
  const words = plain(asked)
    .split(/\s+/)
    .filter((w) => w !== '');
  return pathways.filter((p) => {
    const text = plain([p.name, p.gloss, ...p.also].join(' '));
    return words.every((w) => text.includes(w));
  });
}
