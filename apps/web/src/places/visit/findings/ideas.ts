import type { ConditionDefinition, Push, RankedCondition, Reasoning } from '@heathstep/core';

export interface Idea {
  readonly ranked: RankedCondition;
  readonly condition: ConditionDefinition;
  /** Must be ruled out before anything else is treated. */
  readonly ruleOut: boolean;
}

/** A push of at least this ratio, by something found on the side itself, makes an idea; a gradual beginning or a jump of load alone does not. */
const SPECIFIC = 2.9;
const MOST = 7;

const isSpecific = (p: Push, r: RankedCondition, reasoning: Reasoning): boolean =>
  p.ratio >= SPECIFIC &&
  !p.weak &&
  (r.side === 'none' || reasoning.known.byKey.get(p.finding)?.sides === 'each');

/** The ideas worth showing: what ranks, and what must not be missed; families once. */
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
    .slice(0, MOST);
}

/** Odds as a length from 0 to 1. */
export const lengthOf = (weight: number): number => weight / (1 + weight);

export const ideaId = (r: Pick<RankedCondition, 'key' | 'side'>): string => `${r.key}.${r.side}`;
