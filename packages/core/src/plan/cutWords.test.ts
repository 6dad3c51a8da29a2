import { exercise } from '../testing/exercises.js';
import { cutWords } from './cutWords.js';
import { prescribe } from './prescribe.js';

const full = prescribe(exercise(), { slot: 's', sideRule: 'treated', affected: 'left' });

describe('what a dose has less of than in full', () => {
  it('is nothing where it is whole, or more', () => {
    expect(cutWords(full, full, 'to fit the minutes')).toEqual([]);
    expect(cutWords({ ...full, sets: full.sets + 1 }, full, 'to fit the minutes')).toEqual([]);
  });

  it('is told for each number with what for; of days, those there are', () =>
    expect(
      cutWords(
        { ...full, sets: 1, daysPerWeek: 2 },
        { ...full, sets: 3, daysPerWeek: 3 },
        'to fit the minutes',
      ),
    ).toEqual(['1 of 3 sets, to fit the minutes', '2 of 3 days, those there are']));
});
