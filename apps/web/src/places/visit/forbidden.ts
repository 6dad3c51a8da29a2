import type { HeldTags, PerSide, Tag } from '@heathstep/core';
import { sentence } from '../../parts/Judgement.js';
import { tagList } from '../../parts/tagWords.js';

/** What must not be put on the foot now, and by what. */
export interface NotNow {
  readonly safety: PerSide<readonly Tag[]>;
  /** What the ideas in view hold back; only those that are not ours to treat keep from testing. */
  readonly held: readonly HeldTags[];
}

const SIDES = ['left', 'right'] as const;

function onSide({ safety, held }: NotNow, needs: readonly Tag[], side: 'left' | 'right'): string | null {
  const off = needs.filter((t) => safety[side].includes(t));
  if (off.length > 0) return `safety switches off ${tagList(off)}`;
  const idea = held.find(
    (h) => h.dangerous && (h.side === side || h.side === 'none') && h.tags.some((t) => needs.includes(t)),
  );
  if (idea === undefined) return null;
  const tags = needs.filter((t) => idea.tags.includes(t));
  return `${idea.name} is ${idea.by} and keeps off ${tagList(tags)}`;
}

/**
 * Why a test or measure that puts something on the foot is not to be done now, on either side, in words; null when it
 * may be done on both. A side without a complaint counts too: what is tested on it can hurt it as well.
 */
export function forbiddenOn(off: NotNow, needs: readonly Tag[]): string | null {
  const [left, right] = SIDES.map((side) => onSide(off, needs, side));
  if (left === right)
    return left === null || left === undefined ? null : sentence(`do not test now, ${left}`);
  return [
    left === null ? '' : sentence(`left: do not test now, ${left ?? ''}`),
    right === null ? '' : sentence(`right: do not test now, ${right ?? ''}`),
  ]
    .filter((s) => s !== '')
    .join('. ');
}
