import type { MeasureLookup } from './criteria.js';
import type { Criterion, CriterionLeaf } from './criteriaTypes.js';
import { leafText, type SayingOf } from './criterionText.js';
import { spoken } from '../quantity/tongue.js';

/** How criteria are named for whom they are printed. */
export interface SentenceOn extends SayingOf {
  readonly lookup: MeasureLookup;
}

/** Children of a node with the word that joins them; null for a single criterion. */
function joined(
  node: Criterion,
  { tongue: t = spoken() }: SentenceOn,
): { readonly list: readonly Criterion[]; readonly word: string } | null {
  if ('all' in node) return { list: node.all, word: t.say('and') };
  if ('any' in node) return { list: node.any, word: t.say('or') };
  if ('of' in node) return { list: node.of, word: t.say('at least {{n}} of:', { n: node.atLeast }) };
  return null;
}

/** One part as words; an inner list of other joining stands in brackets. */
function words(node: Criterion, on: SentenceOn, inner: boolean): string {
  const list = joined(node, on);
  if (list === null) return leafText(node as CriterionLeaf, on, on.lookup);
  const within = (on.tongue ?? spoken()).inside;
  const parts = list.list.map((c, i) => (i === 0 ? words(c, on, true) : within(words(c, on, true))));
  if (parts.length === 1) return parts[0] ?? '';
  const text = list.word.endsWith(':')
    ? `${list.word} ${parts.join(', ')}`
    : `${parts.slice(0, -1).join(', ')} ${list.word} ${parts.at(-1) ?? ''}`;
  return inner ? `(${text})` : text;
}

const upper = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/**
 * An expression of criteria as sentences to print: one for each that must hold, each ending without a full stop.
 *
 * @example all of pain and (A or B): ["Pain 2 or less for 5 days", "A or B"]
 */
export function criterionSentences(criterion: Criterion, on: SentenceOn): readonly string[] {
  const parts = 'all' in criterion ? criterion.all : [criterion];
  return parts.map((c) => upper(words(c, on, false)));
}
