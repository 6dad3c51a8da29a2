import { lunge, raise } from '../testing/measures.js';
import { whyChange, whyCriterion, whyMinutes, whySides, whyTrials } from './explain.js';

describe('a computed statement opened up', () => {
  it('shows the trials and the sum that made the value', () => {
    expect(whyTrials(lunge, [34, 35, null, 33])).toMatchObject({
      statement: 'Lunge, knee bent: 34°',
      inputs: [{ value: '34°' }, { value: '35°' }, { value: '33°' }],
      arithmetic: ['(34 + 35 + 33) / 3 = 34°', 'spread 2°'],
      reviewKey: 'measure:lunge-knee-bent',
    });
  });

  it('shows the change against its error, and where the error comes from', () => {
    const why = whyChange(lunge, 30, 34.5);
    expect(why.statement).toBe('Lunge, knee bent better, real');
    expect(why.arithmetic[0]).toBe('34.5 - 30 = 4.5');
    expect(why.source).toContain('Error: test');
  });

  it('says the side rule of the measure itself, and why a ratio does not apply', () => {
    expect(whySides(raise, 9, 20, 'left')).toMatchObject({
      rule: 'Flagged when the worse side is under 90 % of the better.',
    });
    expect(whySides(raise, 9, 20, 'left').arithmetic).toContain('treated / other = 45 %');
    expect(whySides(raise, 9, 20, 'both').arithmetic.join()).toContain('both sides are affected');
  });

  it('tells a criterion with what stands', () => {
    expect(whyCriterion({ text: 'no red for 7 days', state: 'met', because: 'none' })).toMatchObject({
      statement: 'no red for 7 days: met',
      arithmetic: ['none'],
    });
  });

  it('adds a week of minutes by the days each falls due', () => {
    const why = whyMinutes([
      { name: 'Raise', daySeconds: 300, daysPerWeek: 3 },
      { name: 'Stretch', daySeconds: 120, daysPerWeek: 7 },
    ]);
    expect(why.arithmetic).toEqual(['5 x 3 + 2 x 7 = 29 min']);
  });
});
