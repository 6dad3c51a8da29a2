import { say } from '../quantity/tongue.js';
export type Acuity = 'acute' | 'settling' | 'persistent' | 'not-known';

/** Days since it began up to which it is acute, and from which it persists. [convention] */
const ACUTE_DAYS = 5;
const PERSISTENT_DAYS = 42;

export interface AcuityResult {
  readonly level: Acuity;
  readonly because: string;
}

/** How fresh it is: acute for the first days, persistent from six weeks on, settling between. */
export function judgeAcuity(daysSinceOnset: number | null): AcuityResult {
  if (daysSinceOnset === null) return { level: 'not-known', because: say('when it began is not told') };
  const days = say('{{daysSinceOnset}} {{words}} since it began', {
    daysSinceOnset,
    words: daysSinceOnset === 1 ? say('day') : say('days'),
  });
  if (daysSinceOnset <= ACUTE_DAYS)
    return {
      level: 'acute',
      because: say('{{days}}, {{acuteDays}} or fewer', { days, acuteDays: ACUTE_DAYS }),
    };
  if (daysSinceOnset < PERSISTENT_DAYS)
    return {
      level: 'settling',
      because: say('{{days}}, under {{persistentDays}}', { days, persistentDays: PERSISTENT_DAYS }),
    };
  return {
    level: 'persistent',
    because: say('{{days}}, {{persistentDays}} or more', { days, persistentDays: PERSISTENT_DAYS }),
  };
}
