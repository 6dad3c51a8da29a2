import fc from 'fast-check';
import { acheMeans, judgePain, type PainSchool } from './painRule.js';

describe('an ordinary ache during an exercise', () => {
  it.each<[PainSchool, number, number, string]>([
    ['next-morning', 0, 3, 'all-right'],
    ['next-morning', 0, 4, 'less'],
    ['next-morning', 2, 5, 'less'],
    ['next-morning', 0, 6, 'too-much'],
    ['comfort', 3, 3, 'all-right'],
    ['comfort', 2, 3, 'less'],
    ['comfort', 1, 3, 'too-much'],
    ['comfort', 3, 4, 'too-much'],
    ['bone', 0, 0, 'all-right'],
    ['bone', 0, 1, 'too-much'],
    ['bone', 2, 1, 'too-much'],
  ])('under %s, %d before and %d now, is %s', (school, before, now, means) =>
    expect(acheMeans(school, before, now)).toBe(means),
  );

  it('is too much exactly where the session would be red by it, whatever the morning brings', () =>
    fc.assert(
      fc.property(
        fc.constantFrom<PainSchool>('next-morning', 'comfort'),
        fc.integer({ min: 0, max: 10 }),
        fc.integer({ min: 0, max: 10 }),
        (school, before, during) => {
          const judged = judgePain({
            school,
            before,
            during,
            after: 0,
            hourAbove: false,
            stopSign: null,
            nextMorning: null,
            morningBaseline: null,
          });
          expect(acheMeans(school, before, during) === 'too-much').toBe(
            judged.ok && judged.value.state === 'red',
          );
        },
      ),
    ));
});
