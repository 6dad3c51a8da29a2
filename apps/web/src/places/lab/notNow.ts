import { type LabTask, say, type Tag } from '@heathstep/core';
import { type EpisodeView, labMeasures } from '@heathstep/contracts';
import type { ClinicContent } from '../../api/queries.js';
import { tagList } from '../../parts/tagWords.js';

type Which = 'left' | 'right' | 'both';

const sidesOf = (side: Which) => (side === 'both' ? (['left', 'right'] as const) : ([side] as const));

/** What a task puts on the foot, by the measures it gives. */
function needsOf(task: LabTask, content: Pick<ClinicContent, 'measures'>): readonly Tag[] {
  const measures = (['pressure-mat', 'motion-pair'] as const).flatMap((k) =>
    labMeasures(content.measures, k, task),
  );
  return [...new Set(measures.flatMap(({ measure }) => measure.needs ?? []))];
}

/**
 * Why a task is not to be done now, in words; null when it may be. An open sign, a stop from home and safety that was not asked
 * keep off all of them: nobody is put on the mat unasked. A side without a complaint counts too.
 */
export function notNow(
  task: LabTask,
  side: Which,
  content: Pick<ClinicContent, 'measures'>,
  episode: Pick<EpisodeView, 'tagsOff' | 'heldBack' | 'safety'>,
): string | null {
  const { safety, heldBack } = episode;
  // What keeps off only a plan, such as the age a protocol begins at, keeps nobody off the mat.
  const reasons = new Set([
    ...heldBack,
    ...(safety === null ? [say('The safety questions have not been asked')] : safety.blockedBecause),
  ]);
  if (reasons.size > 0) return say('Not now: {{reasons}}', { reasons: [...reasons].join('; ') });
  const held = needsOf(task, content).filter((t) =>
    sidesOf(side).some((s) => episode.tagsOff[s].includes(t)),
  );
  return held.length === 0
    ? null
    : say('Not now: safety switches off {{tagList}}', { tagList: tagList(held) });
}

/** What of a task is done only with someone beside, in words; null when nothing is. */
export function besideFor(
  task: LabTask,
  side: Which,
  content: Pick<ClinicContent, 'measures'>,
  supervised: EpisodeView['supervised'],
): string | null {
  const tags = needsOf(task, content).filter((t) => sidesOf(side).some((s) => supervised[s].includes(t)));
  return tags.length === 0 ? null : say('Only with someone beside: {{tagList}}.', { tagList: tagList(tags) });
}
