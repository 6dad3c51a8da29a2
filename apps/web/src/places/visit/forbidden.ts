import {
  type HeldTags,
  isStrenuous,
  type PerSide,
  type Tag,
  tooEarlyToday,
  treatedSides,
  say,
} from '@heathstep/core';
import { sentence } from '../../parts/Judgement.js';
import { tagList } from '../../parts/tagWords.js';
import type { LiveVisit } from './live.js';

/** What must not be put on the foot now, and by what. */
export interface NotNow {
  readonly safety: PerSide<readonly Tag[]>;
  /** What the ideas in view hold back; only those that are not ours to treat keep from testing. */
  readonly held: readonly HeldTags[];
  /** Why strenuous tests wait for another day, on the sides they do. */
  readonly early: PerSide<string | null>;
}

/** A test or measure, as far as it says what it puts on the foot. */
type Test = Parameters<typeof isStrenuous>[0];

/** Of a visit, what keeps tests from being done now; `held` by the ideas in view. */
export function notNowOf(
  live: Pick<LiveVisit, 'safety' | 'acuity' | 'irritability' | 'cannotTakeWeight' | 'affected'>,
  held: readonly HeldTags[],
): NotNow {
  const why = tooEarlyToday(live);
  const treated = treatedSides(live.affected);
  const on = (side: 'left' | 'right') => (treated.includes(side) ? why : null);
  return { safety: live.safety.tagsOff, held, early: { left: on('left'), right: on('right') } };
}

const STOP = say('do not test now');
const SIDES = ['left', 'right'] as const;

function onSide({ safety, held, early }: NotNow, test: Test, side: 'left' | 'right'): string | null {
  const { needs = [] } = test;
  const off = needs.filter((t) => safety[side].includes(t));
  if (off.length > 0)
    return say('{{stop}}, safety switches off {{tagList}}', { stop: STOP, tagList: tagList(off) });
  const idea = held.find(
    (h) => h.dangerous && (h.side === side || h.side === 'none') && h.tags.some((t) => needs.includes(t)),
  );
  if (idea !== undefined) {
    const tags = needs.filter((t) => idea.tags.includes(t));
    return say('{{stop}}, {{name}} is {{by}} and keeps off {{tagList}}', {
      stop: STOP,
      name: idea.name,
      by: say(idea.by),
      tagList: tagList(tags),
    });
  }
  const why = early[side];
  return why !== null && isStrenuous(test) ? say('too early today, {{why}}', { why }) : null;
}

/** Whether what was said is a stop, or only advice to wait. */
export const isStop = (said: string): boolean => said.includes(STOP) || said.includes(sentence(STOP));

/**
 * Why a test or measure that puts something on the foot is not to be done now, on either side, in words; null when it
 * may be done on both. A side without a complaint counts too: what is tested on it can hurt it as well.
 */
export function forbiddenOn(off: NotNow, test: Test): string | null {
  const [left, right] = SIDES.map((side) => onSide(off, test, side));
  if (left === right) return left === null || left === undefined ? null : sentence(left);
  return [
    left === null ? '' : sentence(say('left: {{left}}', { left: left ?? '' })),
    right === null ? '' : sentence(say('right: {{right}}', { right: right ?? '' })),
  ]
    .filter((s) => s !== '')
    .join('. ');
}
