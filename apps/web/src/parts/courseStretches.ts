import {
  daysBetween,
  type ProtocolDefinition,
  type StageKey,
  type StageStretch,
  stageStretches,
  say,
} from '@heathstep/core';
import type { EpisodeView } from '@heathstep/contracts';
import { dayHere } from './dates.js';

/** A stage of the course with its name and how long it takes, in words. */
export interface Stretch extends StageStretch {
  readonly key: string;
  readonly name: string;
  readonly note: string;
}

/**
 * Stages of an episode along its days; from today on where none has begun.
 * @param planned a stage that would begin today, by a plan not given yet
 */
export function stretchesOf(
  episode: Pick<EpisodeView, 'stages' | 'today' | 'stage'>,
  protocol: Pick<ProtocolDefinition, 'stages'>,
  planned: StageKey | null = null,
): Stretch[] {
  const begins =
    planned === null || planned === episode.stage ? [] : [{ stage: planned, day: episode.today }];
  const spans = [...episode.stages.map((s) => ({ stage: s.stage, day: dayHere(s.since) })), ...begins];
  return stageStretches(spans, protocol.stages, episode.today).map((s, i) => {
    const stage = protocol.stages.find((x) => x.key === s.stage);
    const usual =
      stage === undefined
        ? ''
        : say('{{min}} to {{max}}', { min: stage.usualWeeks.min, max: stage.usualWeeks.max });
    const week = Math.floor(daysBetween(s.from, episode.today) / 7) + 1;
    const took = Math.max(1, Math.round(daysBetween(s.from, s.to) / 7));
    const notes = {
      done: say('took {{took}} {{words}}', { took, words: took === 1 ? say('week') : say('weeks') }),
      now: say('week {{week}}, usually {{usual}}', { week, usual }),
      ahead: say('usually {{usual}} weeks', { usual }),
    };
    return { ...s, key: `${s.stage}-${i}`, name: stage?.name ?? s.stage, note: notes[s.kind] };
  });
}
