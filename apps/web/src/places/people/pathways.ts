import type { Pathway } from '@heathstep/content';

const plain = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

/** Pathways that every word of a search is found in, by name, gloss or clinical term; the one for what is not known yet first. */
export function pathwaysFor(pathways: readonly Pathway[], asked: string): readonly Pathway[] {
  const words = plain(asked)
    .split(/\s+/)
    .filter((w) => w !== '');
  const open = (p: Pathway) => (p.protocol === null ? 0 : 1);
  return pathways
    .filter((p) => {
      const text = plain([p.name, p.gloss, ...p.also].join(' '));
      return words.every((w) => text.includes(w));
    })
    .sort((a, b) => open(a) - open(b));
}
