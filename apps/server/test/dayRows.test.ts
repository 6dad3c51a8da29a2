import type { Decision, ReviewResult } from '@heathstep/core';
import { ofReview } from '../src/day/ofReview.js';

const review = (decision: Decision, rule: number): ReviewResult => ({
  decision,
  rule,
  because: ['the reason'],
  wouldChange: [],
  confidence: 'clear',
  criteria: null,
});

describe('what a review asks of the day', () => {
  it.each([
    ['refer', 6, 0, 'refer', 'To be referred'],
    ['ease-back', 2, 1, 'flare', 'Flare: red too often'],
    ['ease-back', 2, 3, 'flare', 'Flare: 3 red sessions running'],
    ['adjust-dose', 3, 1, 'flare', 'Red session'],
    ['adjust-dose', 3, 0, 'flare', 'Two sessions amber or worse'],
    ['progress', 4, 0, 'ready', 'Ready to progress'],
    ['look-again', 6, 0, 'look-again', 'No real change: look again'],
    ['hold', 5, 0, 'look-again', 'Less done than planned'],
  ] as const)('%s by rule %i with %i reds is %s: %s', (decision, rule, reds, kind, headline) =>
    expect(ofReview(review(decision, rule), reds, 'Build')).toMatchObject({ kind, headline }),
  );

  it.each([
    ['hold', 9],
    ['hold-and-retest', 7],
    ['hold-and-retest', 8],
    ['adjust-dose', 9],
  ] as const)('%s by rule %i goes on, and asks for nothing', (decision, rule) =>
    expect(ofReview(review(decision, rule), 0, 'Build')).toBeNull(),
  );

  it('gives the reason with whatever it asks', () =>
    expect(ofReview(review('refer', 6), 0, 'Build')?.detail).toBe('the reason'));
});
