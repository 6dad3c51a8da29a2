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
  if (daysSinceOnset === null) return { level: 'not-known', because: 'when it began is not told' };
  const days = `${daysSinceOnset} ${daysSinceOnset === 1 ? 'day' : 'days'} since it began`;
  if (daysSinceOnset <= ACUTE_DAYS) return { level: 'acute', because: `${days}, ${ACUTE_DAYS} or fewer` };
  if (daysSinceOnset < PERSISTENT_DAYS)
    return { level: 'settling', because: `${days}, under ${PERSISTENT_DAYS}` };
  return { level: 'persistent', because: `${days}, ${PERSISTENT_DAYS} or more` };
}
