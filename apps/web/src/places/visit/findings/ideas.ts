import type { ConditionDefinition, Push, RankedCondition, Reasoning } from '@heathstep/core';

export interface Idea {
  readonly ranked: RankedCondition;
  readonly condition: ConditionDefinition;
  /** Must be ruled out before anything else is treated. */
  readonly ruleOut: boolean;
}

/** A push of at least this ratio, by something found on the side itself, makes an idea; a gradual beginning or a jump of load alone does not. */
const SPECIFIC = 2.9;
const MOST = 9;

const isSpecific = (p: Push, r: RankedCondition, reasoning: Reasoning): boolean =>
  p.ratio >= SPECIFIC &&
  !p.weak &&
  (r.side === 'none' || reasoning.known.byKey.get(p.finding)?.sides === 'each');

/** The ideas worth showing: what must be ruled out first, then what ranks; families once. */
export function ideasOf(reasoning: Reasoning, conditions: readonly ConditionDefinition[]): Idea[] {
  return reasoning.ranked
    .filter((r) => r.shownAs === null && r.rank !== 'unlikely')
    .filter(
      (r) => r.rank !== 'possible' || r.keptBy !== null || r.for.some((p) => isSpecific(p, r, reasoning)),
    )
    .flatMap((ranked): Idea[] => {
      const condition = conditions.find((c) => c.key === ranked.key);
      if (condition === undefined) return [];
      const ruleOut = ranked.keptBy !== null && (condition.care === 'medical' || condition.care === 'refer');
      return [{ ranked, condition, ruleOut }];
    })
    .sort((a, b) => Number(b.ruleOut) - Number(a.ruleOut))
    .slice(0, MOST);
}

/** One condition with its ideas on one side or on both. */
export interface IdeaGroup {
  readonly condition: ConditionDefinition;
  readonly ideas: readonly Idea[];
}

/** Ideas by condition, in the order of the first of each, left before right. */
export function groupIdeas(ideas: readonly Idea[]): IdeaGroup[] {
  const groups = new Map<string, Idea[]>();
  for (const idea of ideas) groups.set(idea.condition.key, [...(groups.get(idea.condition.key) ?? []), idea]);
  return [...groups.values()].flatMap((list): IdeaGroup[] => {
    const [first] = list;
    if (first === undefined) return [];
    return [
      {
        condition: first.condition,
        ideas: [...list].sort((a, b) => (a.ranked.side < b.ranked.side ? -1 : 1)),
      },
    ];
  });
}

/** Odds as a length from 0 to 1. */
export const lengthOf = (weight: number): number => weight / (1 + weight);

export const ideaId = (r: Pick<RankedCondition, 'key' | 'side'>): string => `${r.key}.${r.side}`;
