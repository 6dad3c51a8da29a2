import { say } from '../quantity/tongue.js';
import type { StoryFacts } from './story.js';

export type Irritability = 'low' | 'moderate' | 'high';

export interface IrritabilityResult {
  readonly level: Irritability | 'not-known';
  readonly because: readonly string[];
  readonly missing: readonly string[];
}

/**
 * High when two of: worst pain 7 or more, provoked within 5 minutes, lasting over 2 hours, night pain.
 * Low when worst is 3 or less, it settles within 30 minutes and there is no night pain. Else moderate. [convention]
 * First-step pain by itself does not count as provoked within 5 minutes.
 */
export function judgeIrritability(story: StoryFacts): IrritabilityResult {
  const { worstPain, provokedWithinFiveMinutes, settlesMinutes, nightPain } = story;
  const missing = [
    worstPain === undefined ? say('worst pain') : '',
    provokedWithinFiveMinutes === undefined ? say('how soon it is provoked') : '',
    settlesMinutes === undefined ? say('how long it lasts') : '',
    nightPain === undefined ? say('night pain') : '',
  ].filter((m) => m !== '');
  const high = [
    worstPain !== undefined && worstPain >= 7
      ? say('worst pain {{worstPain}}, 7 or more', { worstPain })
      : '',
    provokedWithinFiveMinutes === true ? say('provoked within 5 minutes') : '',
    settlesMinutes !== undefined && settlesMinutes > 120 ? say('lasts over 2 hours') : '',
    nightPain === true ? say('night pain') : '',
  ].filter((h) => h !== '');
  if (high.length >= 2) return { level: 'high', because: high, missing };
  if (missing.length > 0) return { level: 'not-known', because: high, missing };
  const low = (worstPain ?? 10) <= 3 && (settlesMinutes ?? 999) <= 30 && nightPain === false;
  if (low) {
    return {
      level: 'low',
      because: [
        say('worst pain {{worstPain}}, 3 or less', { worstPain: worstPain ?? '' }),
        say('settles within 30 minutes'),
        say('no night pain'),
      ],
      missing,
    };
  }
  return {
    level: 'moderate',
    because: high.length > 0 ? [...high, say('only one sign of high')] : [say('neither high nor low')],
    missing,
  };
}
