import type { ConcludedIdea } from '@heathstep/contracts';
import type { Idea } from '../findings/ideas.js';

/**
 * Whether an earlier conclusion may be taken over as it was: what is known now leads to what stood then, and nothing has to be
 * ruled out that was not judged then.
 */
export function asBefore(
  before: readonly ConcludedIdea[],
  ideas: readonly Pick<Idea, 'ranked' | 'ruleOut'>[],
): { readonly why: 'rule-out' | 'other-leads' | null } {
  const judged = ({ ranked }: Pick<Idea, 'ranked'>): ConcludedIdea | undefined =>
    before.find((i) => i.condition === ranked.key && i.side === ranked.side);
  if (ideas.some((i) => i.ruleOut && judged(i) === undefined)) return { why: 'rule-out' };
  const leading = ideas.filter((i) => i.ranked.rank === 'leading');
  const stands = (i: Pick<Idea, 'ranked'>) => {
    const verdict = judged(i)?.verdict;
    return verdict === 'agreed' || verdict === 'added';
  };
  return { why: leading.every(stands) ? null : 'other-leads' };
}
