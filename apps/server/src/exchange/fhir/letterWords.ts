import type { LetterContent, LetterText } from '@heathstep/contracts';
import type { Row } from '../tables.js';

const line = (...parts: readonly string[]): string => parts.filter((p) => p !== '').join('; ');

/** All a letter that went out said, in plain words; of a draft what is written in it. */
export function letterWords(row: Row): string {
  const content = row['content'] as LetterContent | null;
  if (content === null) {
    const { to, opening, closing } = row['text'] as LetterText;
    return [to, opening, closing].filter((t) => t !== '').join('\n\n');
  }
  return [
    [content.title, content.clinic, content.day].join('\n'),
    content.to.join('\n'),
    [content.person, ...content.about.map(({ label, text }) => `${label}: ${text}`)].join('\n'),
    ...content.opening,
    content.open.length === 0 ? '' : [content.labels.open, ...content.open].join('\n'),
    content.rows
      .map((r) => line(`${r.measure} ${r.sideText}`.trim(), r.first, r.last, r.change, r.other))
      .join('\n'),
    ...content.charts.map((c) => `${c.title}: ${c.alt}`),
    ...content.parts.map((p) => [p.title, ...p.lines].join('\n')),
    ...content.closing,
    content.signed,
    content.notice,
  ]
    .filter((t) => t !== '')
    .join('\n\n');
}
