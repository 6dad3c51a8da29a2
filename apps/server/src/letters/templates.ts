import type { ContentBundle } from '@heathstep/content';
import type { LetterTemplateView } from '@heathstep/contracts';
import { LETTER_KINDS, type LetterKind, say } from '@heathstep/core';
import { namesOf } from '../episodes/rows.js';
import type { Tx } from '../persistence/db.js';
import { LetterTemplateRow } from '../persistence/entities.js';

/** What a clinic's letters begin with: its own newest version, or what comes with the application. */
export async function templatesOf(tx: Tx, bundle: ContentBundle): Promise<LetterTemplateView[]> {
  const rows = await tx.find(LetterTemplateRow, { order: { version: 'DESC' } });
  const names = await namesOf(tx);
  return LETTER_KINDS.flatMap((letter): LetterTemplateView[] => {
    const own = rows.find((r) => r.letter === letter);
    if (own !== undefined)
      return [
        {
          letter,
          opening: own.opening,
          closing: own.closing,
          shows: own.shows,
          version: own.version,
          by: names.get(own.authorId) ?? '',
          at: own.at.toISOString(),
        },
      ];
    const shipped = bundle.letters.find((l) => l.letter === letter);
    return shipped === undefined
      ? []
      : [
          {
            letter,
            opening: say(shipped.opening),
            closing: say(shipped.closing),
            shows: shipped.shows,
            version: 0,
            by: null,
            at: null,
          },
        ];
  });
}

export async function templateOf(
  tx: Tx,
  bundle: ContentBundle,
  letter: LetterKind,
): Promise<LetterTemplateView | undefined> {
  return (await templatesOf(tx, bundle)).find((t) => t.letter === letter);
}
