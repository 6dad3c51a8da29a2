import { measure } from '../testing/measures.js';
import type { Criterion } from './criteriaTypes.js';
import { criterionSentences } from './criterionSentence.js';

const raise = measure({ key: 'raise', label: 'Heel raises', unitLabel: '' });
const on = {
  lookup: (key: string) => (key === 'raise' ? raise : undefined),
  questionNames: { 'gave-way': 'giving way', exposed: 'exposures' },
  affected: 'left',
} as const;
const say = (c: Criterion) => criterionSentences(c, on);

describe('criteria in words', () => {
  it('has a sentence for each that must hold', () =>
    expect(say({ all: [{ pain: 'during', max: 2, days: 5 }, { minDays: 7 }] })).toEqual([
      'Pain during exercise 2 or less for 5 days',
      'At least 7 days in this stage',
    ]));

  it('joins what may hold instead', () =>
    expect(say({ any: [{ minDays: 7 }, { noRed: 7 }] })).toEqual([
      'At least 7 days in this stage or no red for 7 days',
    ]));

  it('puts another joining into brackets', () =>
    expect(
      say({ any: [{ minDays: 7 }, { all: [{ noRed: 7 }, { pain: 'during', max: 2, days: 5 }] }] }),
    ).toEqual([
      'At least 7 days in this stage or (no red for 7 days and pain during exercise 2 or less for 5 days)',
    ]));

  it('says how many of them', () =>
    expect(say({ atLeast: 1, of: [{ minDays: 7 }, { noRed: 7 }] })).toEqual([
      'At least 1 of: at least 7 days in this stage, no red for 7 days',
    ]));

  it('names questions as they are called', () =>
    expect(say({ events: 'gave-way', max: 0, days: 28, exposure: { what: 'exposed', min: 8 } })).toEqual([
      'No giving way in 28 days with exposures 8 times or more',
    ]));

  it('names a measure by its label', () =>
    expect(say({ measure: 'raise', side: 'treated', op: '>=', value: 10 })[0]).toContain('Heel raises'));
});
