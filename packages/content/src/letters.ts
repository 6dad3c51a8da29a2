import { LETTER_KINDS, type LetterTemplate, unknownGaps } from '@heathstep/core';

/** What is wrong with the letters the content brings: a kind without one, or with two, a gap that nothing fills. In words. */
export const wrongLetters = (letters: readonly LetterTemplate[]): string[] => [
  ...LETTER_KINDS.filter((kind) => letters.filter((l) => l.letter === kind).length !== 1).map(
    (kind) => `there is not exactly one letter of the kind ${kind}`,
  ),
  ...letters.flatMap((l) =>
    unknownGaps(`${l.opening}\n${l.closing}`).map(
      (gap) => `nothing fills {{${gap}}} in the letter ${l.letter}`,
    ),
  ),
];
