import { say } from '../quantity/tongue.js';
import { daysBetween, dayOf, type DayText } from '../quantity/day.js';
import type { MeasureDefinition } from '../measure/definition.js';
import {
  atLeastForAgeLeaf,
  lessThanOtherLeaf,
  measureLeaf,
  sideDifferenceLeaf,
  symmetryLeaf,
} from './criteriaMeasures.js';
import { leafText } from './criterionText.js';
import { adherenceLeaf, answerLeaf, noRedLeaf, painLeaf } from './criteriaLog.js';
import {
  daysSinceLeaf,
  eventsLeaf,
  impactLeaf,
  noLimpLeaf,
  outcomeLeaf,
  statusLeaf,
} from './criteriaState.js';
import type {
  CriteriaResult,
  Criterion,
  CriterionLeaf,
  CriterionPart,
  CriterionState,
  Facts,
} from './criteriaTypes.js';
import { treatedSides } from '../quantity/side.js';

/** Looks a measure up by key; undefined when the content has none such. */
export type MeasureLookup = (key: string) => MeasureDefinition | undefined;

const RANK: Record<CriterionState, number> = {
  'not-met': 0,
  'not-known': 1,
  'met-within-error': 2,
  met: 3,
};

type Applied = CriterionState | 'not-applicable';

function skillLeaf(leaf: { skill: string; state: string }, facts: Facts): CriterionPart {
  const known = facts.skills[leaf.skill];
  const text = leafText(leaf, facts, () => undefined);
  if (known === undefined) return { text, state: 'not-known', because: say('not looked at yet') };
  const sides = treatedSides(facts.affected);
  const states =
    typeof known === 'string'
      ? [known]
      : (sides.length > 0 ? sides : (['left', 'right'] as const)).map((s) => known[s]);
  if (states.some((s) => s !== undefined && s !== leaf.state)) {
    return {
      text,
      state: 'not-met',
      because: say('now {{list}}', { list: states.filter(Boolean).join(say(' and ')) }),
    };
  }
  if (states.includes(undefined))
    return { text, state: 'not-known', because: say('not looked at on every treated side') };
  return { text, state: 'met', because: say('now {{state}}', { state: leaf.state }) };
}

function minDaysLeaf(leaf: { minDays: number }, facts: Facts, today: DayText): CriterionPart {
  const days = daysBetween(dayOf(facts.stageSince), today);
  return {
    text: leafText(leaf, facts, () => undefined),
    state: days >= leaf.minDays ? 'met' : 'not-met',
    because: say('{{days}} days so far', { days }),
  };
}

function evaluateLeaf(
  leaf: CriterionLeaf,
  facts: Facts,
  today: DayText,
  lookup: MeasureLookup,
): CriterionPart {
  if ('measure' in leaf) return measureLeaf(leaf, facts, today, lookup);
  if ('symmetry' in leaf) return symmetryLeaf(leaf, facts, today, lookup);
  if ('lessThanOther' in leaf) return lessThanOtherLeaf(leaf, facts, today, lookup);
  if ('atLeastForAge' in leaf) return atLeastForAgeLeaf(leaf, facts, today, lookup);
  if ('sideDifference' in leaf) return sideDifferenceLeaf(leaf, facts, today, lookup);
  if ('pain' in leaf) return painLeaf(leaf, facts, today);
  if ('answer' in leaf) return answerLeaf(leaf, facts, today);
  if ('noRed' in leaf) return noRedLeaf(leaf, facts, today);
  if ('skill' in leaf) return skillLeaf(leaf, facts);
  if ('adherence' in leaf) return adherenceLeaf(leaf, facts, today);
  if ('daysSince' in leaf) return daysSinceLeaf(leaf, facts, today);
  if ('events' in leaf) return eventsLeaf(leaf, facts, today);
  if ('outcome' in leaf) return outcomeLeaf(leaf, facts, today, lookup);
  if ('status' in leaf) return statusLeaf(leaf, facts);
  if ('noLimp' in leaf) return noLimpLeaf(facts, today, lookup);
  if ('impact' in leaf) return impactLeaf(leaf, facts, today);
  return minDaysLeaf(leaf, facts, today);
}

const isMet = (state: Applied): state is 'met' | 'met-within-error' =>
  state === 'met' || state === 'met-within-error';

/** The k-th highest of the applicable states, k = 1 for any, all of them for all. */
function kthHighest(states: readonly Applied[], k: number): Applied {
  const applicable = states.filter((s): s is CriterionState => s !== 'not-applicable');
  if (applicable.length === 0) return 'not-applicable';
  const sorted = [...applicable].sort((a, b) => RANK[b] - RANK[a]);
  return sorted[k - 1] ?? 'not-met';
}

function walk(
  node: Criterion,
  leafOf: (leaf: CriterionLeaf) => CriterionPart,
): { state: Applied; parts: CriterionPart[] } {
  const children = 'all' in node ? node.all : 'any' in node ? node.any : 'of' in node ? node.of : null;
  if (children === null) {
    const part = leafOf(node as CriterionLeaf);
    return { state: part.state, parts: [part] };
  }
  const walked = children.map((child) => walk(child, leafOf));
  const states = walked.map((w) => w.state);
  const applicable = states.filter((s) => s !== 'not-applicable').length;
  const k = 'all' in node ? applicable : 'any' in node ? 1 : (node as { atLeast: number }).atLeast;
  const state = kthHighest(states, Math.max(1, k));
  // Of several ways those that fall short are spare, once enough of the others are met.
  const spare = (of: Applied): boolean =>
    !('all' in node) && isMet(state) && of !== 'not-applicable' && RANK[of] < RANK[state];
  const parts = walked.flatMap((w) =>
    spare(w.state) ? w.parts.map((p): CriterionPart => ({ ...p, spare: true })) : w.parts,
  );
  return { state, parts };
}

/**
 * Evaluates an expression of criteria: all takes the lowest state, any the highest, atLeast n the n-th highest,
 * in the order not-met, not-known, met-within-error, met. Every leaf is evaluated and reported with its numbers.
 * An expression none of whose parts applies is not-known, never met.
 */
export function evaluateCriteria(
  criteria: Criterion,
  facts: Facts,
  now: string,
  lookup: MeasureLookup,
): CriteriaResult {
  const today = dayOf(now);
  const { state, parts } = walk(criteria, (leaf) => evaluateLeaf(leaf, facts, today, lookup));
  return { state: state === 'not-applicable' ? 'not-known' : state, parts };
}
