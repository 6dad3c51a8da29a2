import { type LabTask, say, type Tag } from '@heathstep/core';
import { type EpisodeView, labMeasures } from '@heathstep/contracts';
import type { ClinicContent } from '../../api/queries.js';
import { tagList } from '../../parts/tagWords.js';

/** What a task puts on the foot that is off now, in words; null when it may be done. A side without a complaint counts too. */
export function notNow(
  task: LabTask,
  side: 'left' | 'right' | 'both',
  content: Pick<ClinicContent, 'measures'>,
  off: EpisodeView['tagsOff'],
): string | null {
  const measures = (['pressure-mat', 'motion-pair'] as const).flatMap((k) =>
    labMeasures(content.measures, k, task),
  );
  const needs = new Set<Tag>(measures.flatMap(({ measure }) => measure.needs ?? []));
  const sides = side === 'both' ? (['left', 'right'] as const) : [side];
  const held = [...needs].filter((t) => sides.some((s) => off[s].includes(t)));
  return held.length === 0
    ? null
    : say('Not now: safety switches off {{tagList}}', { tagList: tagList(held) });
}
