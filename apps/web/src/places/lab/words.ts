import { CAPTURE_WEARING_WORDS, type CaptureView } from '@heathstep/contracts';
import { LAB_TASK_WORDS, type RecordingKind, say } from '@heathstep/core';

export const INSTRUMENT_WORDS: Readonly<Record<RecordingKind, string>> = {
  'pressure-mat': say('Pressure mat'),
  'motion-pair': say('Motion pair'),
};

const sideWords = (side: CaptureView['side']): string =>
  side === 'both' ? say('both feet') : side === 'left' ? say('left foot') : say('right foot');

/** A capture in a few words: what, which foot, what was on it. */
export const captureWords = (c: Pick<CaptureView, 'task' | 'side' | 'wearing' | 'kind'>): string =>
  `${say(LAB_TASK_WORDS[c.task])}, ${sideWords(c.side)}, ${say(CAPTURE_WEARING_WORDS[c.wearing]).toLowerCase()}`;
