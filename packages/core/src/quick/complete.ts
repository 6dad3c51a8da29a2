import { say } from '../quantity/tongue.js';
import type { MeasureDefinition } from '../measure/definition.js';
import { hasWords, searchable } from '../quantity/words.js';
import { namesOf, tokensOf } from './grammar.js';

export interface Completion {
  /** The whole line when this is taken. */
  readonly line: string;
  readonly text: string;
  readonly hint: string;
}

const MOST = 8;

const hintOf = (m: MeasureDefinition): string =>
  `${m.label}${m.unitLabel === '' ? '' : `, ${m.unitLabel}`}, ${m.brief}`;

/** Names that begin with what was typed first, then those with a word that does. */
function nameCompletions(
  before: string,
  typed: string,
  measures: readonly MeasureDefinition[],
): Completion[] {
  const asked = typed.toLowerCase();
  const rank = (m: MeasureDefinition): number => {
    const names = [...namesOf(m), m.label.toLowerCase()];
    if (names.some((n) => n.startsWith(asked))) return 0;
    if (names.some((n) => n.split(/[ ,-]+/).some((w) => w.startsWith(asked)))) return 1;
    // Clinicians' own terms are found; what is written into the line stays its short name.
    return asked.length > 1 && hasWords(searchable((m.also ?? []).join(' ')), searchable(asked)) ? 2 : 3;
  };
  return measures
    .filter((m) => m.computed === null)
    .map((m, order) => ({ m, order, rank: rank(m) }))
    .filter((x) => x.rank < 3)
    .sort((a, b) => a.rank - b.rank || a.order - b.order)
    .slice(0, MOST)
    .map(({ m }) => {
      const name = namesOf(m)[0] ?? m.key;
      return { line: `${before}${name} `, text: name, hint: hintOf(m) };
    });
}

/** What can come next at the end of a line; the line's last measure decides. */
export function completeQuick(line: string, measures: readonly MeasureDefinition[]): Completion[] {
  const semicolon = line.lastIndexOf(';');
  const before = semicolon < 0 ? '' : `${line.slice(0, semicolon + 1)} `;
  const item = line.slice(semicolon + 1).trimStart();
  const words = item.toLowerCase();
  const named = measures
    .flatMap((m) => namesOf(m).map((name) => ({ m, name })))
    .filter(({ name }) => words.startsWith(`${name} `))
    .sort((a, b) => b.name.length - a.name.length)[0];
  const names = nameCompletions(before, item, measures);
  if (named === undefined) return names;
  const longer = names.filter((n) => n.text.startsWith(words) && n.text.length > words.length);
  if (longer.length > 0) return longer;
  const rest = item.slice(named.name.length);
  const last = /\s$/.test(line) ? '' : (tokensOf(rest).at(-1)?.text ?? '');
  const stem = line.slice(0, line.length - last.length);
  const { m } = named;
  const typedSides = /(^|\s)(l|r|b|left|right|both)(\s|$)/i.test(rest);
  const words2: readonly (readonly [string, string])[] = [
    ...(m.sides === 'each'
      ? ([
          ['l', say('left')],
          ['r', say('right')],
        ] as const)
      : []),
    ...(typedSides || m.sides === 'single'
      ? [
          ...(m.levels ?? []).map((l) => [l.word, `${m.label} ${l.value}`] as const),
          ...(m.painless ? [] : ([['pain', say('0 to 10')]] as const)),
          ['unable', say('could not do it')] as const,
          ['skip', say('not done')] as const,
          ['stopped', say('stopped by pain')] as const,
        ]
      : []),
  ];
  return words2
    .filter(([w]) => w.startsWith(last.toLowerCase()) && w !== last.toLowerCase())
    .map(([w, hint]) => ({ line: `${stem}${w} `, text: w, hint }));
}
