import type { Tag } from '../exercise/definition.js';
import { TAGS } from '../exercise/definition.js';
import type { PerSide, Side } from '../quantity/side.js';
import type { ConditionDefinition } from './definition.js';
import type { RankedCondition } from './rank.js';
import type { Column } from './sign.js';

/** Tags that an idea of what it is switches off, before a safety answer does. */
export interface HeldTags {
  readonly condition: string;
  readonly name: string;
  readonly side: Column;
  readonly tags: readonly Tag[];
  /** `leading` or `likely` by the ranking, or `concluded` by a clinician. */
  readonly by: 'leading' | 'likely' | 'concluded';
  /** Not ours to treat: while it stands, a test that puts these on the foot can hurt, not only an exercise. */
  readonly dangerous: boolean;
}

/** What a clinician said of an idea. */
export interface Verdict {
  readonly condition: string;
  readonly side: Column;
  readonly verdict: 'agreed' | 'added' | 'rejected';
}

const DANGEROUS: readonly ConditionDefinition['care'][] = ['medical', 'refer'];

const isDangerous = (c: ConditionDefinition): boolean => DANGEROUS.includes(c.care);

/**
 * Tags held back by what leads, by what is likely and not ours to treat, and by what was concluded. An idea that a
 * clinician rejected with a reason holds nothing.
 */
export function heldTags(
  conditions: readonly ConditionDefinition[],
  ranked: readonly RankedCondition[],
  verdicts: readonly Verdict[] = [],
): HeldTags[] {
  const verdictOn = (key: string, side: Column) =>
    verdicts.find((v) => v.condition === key && (v.side === side || v.side === 'none'))?.verdict;
  const byRank = ranked.flatMap((r): HeldTags[] => {
    const c = conditions.find((x) => x.key === r.key);
    if (c === undefined || c.holds.length === 0 || verdictOn(r.key, r.side) === 'rejected') return [];
    const holds = r.rank === 'leading' || (r.rank === 'likely' && isDangerous(c));
    if (!holds) return [];
    return [
      { condition: c.key, name: c.name, side: r.side, tags: c.holds, by: r.rank, dangerous: isDangerous(c) },
    ];
  });
  const concluded = verdicts.flatMap((v): HeldTags[] => {
    const c = conditions.find((x) => x.key === v.condition);
    const standing = byRank.some((h) => h.condition === v.condition && h.side === v.side);
    if (c === undefined || c.holds.length === 0 || v.verdict === 'rejected' || standing) return [];
    const { key: condition, name, holds: tags } = c;
    return [{ condition, name, side: v.side, tags, by: 'concluded', dangerous: isDangerous(c) }];
  });
  return [...byRank, ...concluded];
}

/** Tags off on each side, by safety and by what is thought together. */
export function withHeld(off: PerSide<readonly Tag[]>, held: readonly HeldTags[]): PerSide<readonly Tag[]> {
  const on = (side: Side): Tag[] => {
    const all = new Set([
      ...off[side],
      ...held.filter((h) => h.side === side || h.side === 'none').flatMap((h) => h.tags),
    ]);
    return TAGS.filter((t) => all.has(t));
  };
  return { left: on('left'), right: on('right') };
}
