import type { Column } from '@heathstep/core';
import type { ConcludedIdea } from '@heathstep/contracts';
import type { LiveVisit } from '../live.js';

export const ENTRY = 'conclude.ideas';

export const judgedIdeas = (live: LiveVisit): readonly ConcludedIdea[] => live.store.get(ENTRY) ?? [];

const same = (i: ConcludedIdea, condition: string, side: Column): boolean =>
  i.condition === condition && i.side === side;

/** The list with one idea judged anew; what leads stays one on each side, and is never a rejected one. */
export function withVerdict(list: readonly ConcludedIdea[], idea: ConcludedIdea): ConcludedIdea[] {
  const others = list.filter((i) => !same(i, idea.condition, idea.side));
  const ledBefore = others.some((i) => i.leads && i.verdict !== 'rejected');
  const leads = idea.verdict !== 'rejected' && (idea.leads || !ledBefore);
  const rest = leads ? others.map((i) => ({ ...i, leads: false })) : others;
  return withLeader([...rest, { ...idea, leads }]);
}

/** Without one idea. */
export const without = (list: readonly ConcludedIdea[], condition: string, side: Column): ConcludedIdea[] =>
  withLeader(list.filter((i) => !same(i, condition, side)));

/** When nothing leads any more the first that stands does. */
function withLeader(list: readonly ConcludedIdea[]): ConcludedIdea[] {
  if (list.some((i) => i.leads)) return [...list];
  const first = list.find((i) => i.verdict !== 'rejected');
  return list.map((i) => (i === first ? { ...i, leads: true } : i));
}
