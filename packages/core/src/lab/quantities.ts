import type { RecordingKind } from '../recording/recording.js';
import type { LabTask } from './task.js';

/** What each instrument can tell of each task, by foot. Content makes measures of them. */
export const LAB_QUANTITIES: Readonly<
  Record<RecordingKind, Readonly<Partial<Record<LabTask, readonly string[]>>>>
> = {
  'pressure-mat': {
    stance: [
      'weightShare',
      'innerBall',
      'outerBall',
      'heel',
      'archIndex',
      'area',
      'meanPressure',
      'peakHeel',
      'peakBall',
    ],
    balance: ['held', 'swayPath', 'swaySpeed', 'swayArea'],
    squat: ['outerKept', 'inwardShift', 'innerBallLow', 'heelLow'],
    raise: ['firstHeadHold', 'firstHeadTop', 'rises', 'riseSeconds'],
    walk: [
      'contactMs',
      'peakLoad',
      'peakHeel',
      'peakBall',
      'peakBigToe',
      'heelOff',
      'timeHeel',
      'timeMidfoot',
      'timeInnerBall',
      'timeOuterBall',
      'timeBigToe',
      'pushFirstRay',
      'centreSpan',
      'exit',
      'centreSpeed',
    ],
  },
  'motion-pair': {
    walk: ['amplitude', 'rate', 'peakTime', 'duration', 'heelOff', 'atHeelOff', 'late', 'contactMs'],
    squat: ['heelTurn', 'shinTurn', 'underShin'],
  },
};
