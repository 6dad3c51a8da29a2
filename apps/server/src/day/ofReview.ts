import { say } from '@heathstep/core';
import type { DayItem } from '@heathstep/contracts';
import type { ReviewResult, Slip, UpkeepEnd } from '@heathstep/core';

/** A row of the day: how pressing, and why. */
export type Told = Pick<DayItem, 'kind' | 'headline' | 'detail'> & { readonly weight?: number };

/**
 * What the review of someone with a plan asks of the day; null where it asks for nothing but to go on. Only what goes on by
 * its rules may be called steady: who is to be referred, looked at again or does little of the plan is not.
 *
 * @param reds red sessions running now
 */
export function ofReview(review: ReviewResult, reds: number, stageName: string): Told | null {
  const because = review.because[0] ?? '';
  if (review.decision === 'refer') return { kind: 'refer', headline: say('To be referred'), detail: because };
  if (review.decision === 'ease-back' || reds > 0)
    return {
      kind: 'flare',
      weight: reds,
      headline:
        reds > 1
          ? say('Flare: {{reds}} red sessions running', { reds })
          : review.decision === 'ease-back'
            ? say('Flare: red too often')
            : say('Red session'),
      detail: because,
    };
  // The dose is made smaller after two ambers, and made larger by the log: the first is a flare.
  if (review.rule === 3)
    return { kind: 'flare', headline: say('Two sessions amber or worse'), detail: because };
  if (review.decision === 'progress')
    return {
      kind: 'ready',
      headline: say('Ready to progress'),
      detail: say('Every criterion of {{stageName}} is met', { stageName }),
    };
  if (review.decision === 'look-again')
    return { kind: 'look-again', headline: say('No real change: look again'), detail: because };
  if (review.decision === 'hold' && review.rule === 5)
    return { kind: 'look-again', headline: say('Less done than planned'), detail: because };
  return null;
}

/** A criterion that is put off by what was measured last: later than the middle of what was told before. */
export const slipping = ({ text, was, now }: Slip): Told => ({
  kind: 'slipping',
  headline: say('Later than forecast'),
  detail:
    now.medianDate === null
      ? say('{{text}}: was about {{was}}, now not within a year', { text, was })
      : say('{{text}}: was about {{was}}, now about {{now}}', { text, was, now: now.medianDate }),
});

/** Upkeep that has lasted as long as it usually does: it never ends by itself. */
export const upkeepOver = ({ by, against }: UpkeepEnd): Told => ({
  kind: 'upkeep-over',
  headline: say('Upkeep at its end'),
  detail: against[0] ?? say('It usually ends by {{by}}', { by }),
});
