import { ENGLISH } from '../quantity/tongue.js';
import { measure } from '../testing/measures.js';
import type { Criterion } from './criteriaTypes.js';
import { criterionSentences } from './criterionSentence.js';

const raise = measure({ key: 'raise', label: 'Heel raises', unitLabel: '' });
const on = {
  lookup: (key: string) => (key === 'raise' ? raise : undefined),
  questions: {
    'gave-way': { name: 'giving way', kind: 'count' },
    exposed: { name: 'exposures', kind: 'count' },
    skin: { name: 'skin whole', kind: 'yes-no' },
    night: { name: 'night pain', kind: 'score' },
  },
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

  it.each<[Criterion, string]>([
    [{ answer: 'skin', op: '>=', value: 1, days: 5 }, 'Skin whole on each of 5 days'],
    [{ answer: 'night', op: '<=', value: 0, days: 7 }, 'No night pain for 7 days'],
    [{ answer: 'night', op: '<=', value: 3, days: 7 }, 'Night pain at most 3 for 7 days'],
    [{ answer: 'gave-way', op: '>=', value: 1, days: 5 }, 'Giving way at least 1 for 5 days'],
    [{ noRed: { days: 7, atLeast: 3 } }, 'No red for 7 days'],
    [{ daysSince: 'cast', min: 84 }, 'At least 84 days since the cast came off'],
    [{ status: 'weight-bearing', atLeast: 'full' }, 'Full weight-bearing allowed'],
    [{ impact: 'contacts', min: 60, maxPain: 2 }, '60 landings in a week with pain 2 or less'],
    [{ symmetry: 'raise', min: 90 }, 'Heel raises, treated side at least 90 % of the other'],
    [{ sideDifference: 'raise', max: 3 }, 'Heel raises within 3 of the other side'],
    [{ outcome: 'raise', gain: 5 }, 'Heel raises better by 5'],
    [{ measure: 'gone', side: 'treated', op: '<', value: 5 }, 'Gone'],
  ])('%j is %s', (criterion, sentence) => expect(say(criterion)).toEqual([sentence]));

  it('asks each side of someone whose both sides are affected', () =>
    expect(
      criterionSentences({ symmetry: 'raise', min: 90, floor: 10 }, { ...on, affected: 'both' }),
    ).toEqual(['Heel raises, each side at least 10']));

  it('names a level by its word', () => {
    const limp = measure({
      key: 'limp',
      label: 'Limp',
      sides: 'single',
      levels: [
        { value: 0, word: 'none' },
        { value: 1, word: 'only-at-speed' },
      ],
    });
    expect(
      criterionSentences(
        { measure: 'limp', side: 'treated', op: '<=', value: 1 },
        { ...on, lookup: () => limp },
      ),
    ).toEqual(['Limp at most \u201conly at speed\u201d']);
  });

  it('tells a patient of pain and not of colours, in their tongue', () => {
    const tongue = { ...ENGLISH, say: (text: string) => `<${text}>` };
    expect(criterionSentences({ noRed: 7 }, { ...on, forPatient: true })).toEqual([
      'No session that hurt too much for 7 days',
    ]);
    expect(criterionSentences({ minDays: 7 }, { ...on, tongue })).toEqual([
      '<at least {{days}} days in this stage>',
    ]);
  });
});
