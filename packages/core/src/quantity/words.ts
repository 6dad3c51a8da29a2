/** Letters that carry their stroke or tie within, which taking marks off does not part. */
const WHOLE: Readonly<Record<string, string>> = {
  ø: 'o',
  ł: 'l',
  đ: 'd',
  ð: 'd',
  þ: 'th',
  æ: 'ae',
  œ: 'oe',
  ß: 'ss',
  ı: 'i',
};

/** Small letters without accents, strokes and ties: what is the same to someone who types in a hurry. */
export const folded = (text: string): string =>
  text
    .toLowerCase()
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/[øłđðþæœßı]/g, (letter) => WHOLE[letter] ?? letter);

/** Folded words with one space before each, so that a search can tell where a word begins. */
export const searchable = (text: string): string =>
  folded(text)
    .replace(/^[^\p{L}\p{N}]*|[^\p{L}\p{N}]+/gu, ' ')
    .trimEnd();

/** From how many letters on a word is also found inside another: flexion in dorsiflexion. */
const INSIDE_FROM = 5;

/**
 * Whether every word asked for stands in a text, in any order: where a word begins, and from five letters on inside one too.
 * Both are folded by `searchable`; nothing asked is found everywhere.
 */
export const hasWords = (text: string, asked: string): boolean =>
  asked
    .split(' ')
    .filter((w) => w !== '')
    .every((w) => text.includes(w.length < INSIDE_FROM ? ` ${w}` : w));
