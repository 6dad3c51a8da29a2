import type { MeasureLookup } from './criteria.js';
import { evaluateCriteria } from './criteria.js';
import type { Criterion, Facts } from './criteriaTypes.js';

const NOTHING_KNOWN: Facts = {
  measures: [],
  sessions: [],
  skills: {},
  stageSince: '2000-01-01',
  affected: 'left',
};

/** How criteria are named for whom they are printed. */
export interface SentenceOn {
  readonly lookup: MeasureLookup;
  /** What questions of the home log are called, by key. */
  readonly questionNames: Readonly<Record<string, string>>;
  readonly affected: Facts['affected'];
}

/** Children of a node with the word that joins them; null for a single criterion. */
function joined(node: Criterion): { readonly list: readonly Criterion[]; readonly word: string } | null {
  if ('all' in node) return { list: node.all, word: 'and' };
  if ('any' in node) return { list: node.any, word: 'or' };
  if ('of' in node) return { list: node.of, word: `at least ${node.atLeast} of:` };
  return null;
}

/** One part as words; an inner list of other joining stands in brackets. */
function words(node: Criterion, on: SentenceOn, inner: boolean): string {
  const list = joined(node);
  if (list === null) {
    const facts = { ...NOTHING_KNOWN, affected: on.affected, questionNames: on.questionNames };
    return evaluateCriteria(node, facts, '2000-01-01', on.lookup).parts[0]?.text ?? '';
  }
  const parts = list.list.map((c) => words(c, on, true));
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
