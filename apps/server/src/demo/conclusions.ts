import type { ConcludedIdea } from '@heathstep/contracts';

/** An idea the clinician agreed with and treats first. */
export const concluded = (condition: string, side: 'left' | 'right'): ConcludedIdea => ({
  condition,
  side,
  verdict: 'agreed',
  leads: true,
  reason: null,
});

/** One that is followed beside it. */
export const followed = (condition: string, side: 'left' | 'right'): ConcludedIdea => ({
  ...concluded(condition, side),
  leads: false,
});
