import type { PerSide, Tag } from '@heathstep/core';
import { sentence } from '../../parts/Judgement.js';
import { tagList } from '../../parts/tagWords.js';

/**
 * What safety switches off of what a test or measure puts on the foot, on either side, in words; null when it may be
 * done on both. A side without a complaint counts too: what is tested on it can hurt it as well.
 */
export function forbiddenOn(off: PerSide<readonly Tag[]>, needs: readonly Tag[]): string | null {
  const hit = {
    left: needs.filter((t) => off.left.includes(t)),
    right: needs.filter((t) => off.right.includes(t)),
  };
  if (hit.left.length === 0 && hit.right.length === 0) return null;
  const all = needs.filter((t) => hit.left.includes(t) || hit.right.includes(t));
  const words = `do not test now, safety switches off ${tagList(all)}`;
  return sentence(
    hit.right.length === 0 ? `left: ${words}` : hit.left.length === 0 ? `right: ${words}` : words,
  );
}
