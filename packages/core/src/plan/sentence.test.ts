import fc from 'fast-check';
import { exercise } from '../testing/exercises.js';
import type { Prescription } from './prescription.js';
import { prescribe } from './prescribe.js';
import { doseFieldValue, type DoseField, doseSentence, sentenceText, withDoseField } from './sentence.js';

const rise = exercise();
const left = prescribe(rise, { slot: 's', sideRule: 'treated', affected: 'left' });
const say = (p: Prescription, e = rise) => sentenceText(doseSentence(p, e));

const held = exercise({
  dose: { sets: 1, reps: 10, holdSeconds: 10, restSeconds: 0, timesPerDay: 3, daysPerWeek: 7 },
  range: {
    sets: [1, 3],
    reps: [1, 15],
    holdSeconds: [5, 600],
    restSeconds: [0, 60],
    timesPerDay: [1, 3],
    daysPerWeek: [1, 7],
  },
  variants: [],
});
const heldLeft = prescribe(held, { slot: 's', sideRule: 'treated', affected: 'left' });

describe('a prescription in words', () => {
  it('says side, sets, repetitions, tempo, rest, times and days', () =>
    expect(say({ ...left, addedKg: 4 })).toBe(
      'Left, 3 sets of 10, 2 s up, 1 s hold, 3 s down, with 4 kg, rest 60 s, once a day, 3 days a week.',
    ));

  it('says holds, and every day', () =>
    expect(say(heldLeft, held)).toBe('Left, 1 set of 10 holds of 10 s, 3 times a day, every day.'));

  it.each<[string, Partial<Prescription>, string]>([
    ['one hold', { reps: 1 }, '1 set of 1 hold of 10 s'],
    [
      'no hold at the top',
      { tempo: { upSeconds: 2, topSeconds: 0, downSeconds: 3, bottomSeconds: 1 } },
      '2 s up, 3 s down',
    ],
    ['one day', { daysPerWeek: 1 }, '1 day a week'],
    ['both sides', { sides: 'one-after-other' }, 'Left, then right,'],
    ['alternating', { sides: 'alternating' }, 'Left and right in turn,'],
    ['rest though one set', { sets: 1, restSeconds: 30 }, 'rest 30 s'],
  ])('%s', (_name, change, words) => {
    const [p, e] = change.reps === 1 ? [heldLeft, held] : [left, rise];
    expect(say({ ...p, ...change }, e)).toContain(words);
  });

  it('names the variant that is chosen, and none for the usual way', () => {
    expect(say({ ...left, variant: 'slow' })).toContain('Left, slower, 3 sets');
    expect(say(left)).toContain('Left, 3 sets');
  });

  it.each([
    ['pulls', { sets: 2, reps: 1 }, '2 sets of 1 pull, held 10 s'],
    ['pieces', { sets: 1, reps: 4 }, '1 set of 4 pieces, held 10 s'],
    ['minutes', { sets: 1, reps: 1, holdSeconds: 300 }, 'Left, 5 min, 3 times a day'],
    ['minutes', { sets: 1, reps: 1, holdSeconds: 90 }, 'Left, 90 s, 3 times a day'],
  ] as const)('what is counted has its own word: %s', (counted, change, words) => {
    const e = { ...held, counted };
    expect(say({ ...heldLeft, ...change }, e)).toContain(words);
  });

  it('says when of the day', () =>
    expect(say(heldLeft, { ...held, when: 'before the first step' })).toMatch(
      /every day, before the first step\.$/,
    ));

  it('says the part of the day it is given for, and no more once it is done several times', () => {
    const evening = { ...heldLeft, timesPerDay: 1, part: 'evening' as const };
    expect(say(evening, held)).toMatch(/once a day, every day, in the evening\.$/);
    const twice = withDoseField(evening, 'timesPerDay', 2);
    expect(twice).not.toHaveProperty('part');
    expect(withDoseField(evening, 'sets', 2).part).toBe('evening');
    expect(say(twice, held)).toMatch(/2 times a day, every day\.$/);
  });

  it('sets a number wherever it lives and reads it back; a held exercise has no tempo to set', () => {
    const fields: readonly DoseField[] = [
      'sets',
      'reps',
      'upSeconds',
      'topSeconds',
      'downSeconds',
      'restSeconds',
    ];
    fc.assert(
      fc.property(fc.constantFrom(...fields), fc.integer({ min: 1, max: 60 }), (field, value) => {
        expect(doseFieldValue(withDoseField(left, field, value), field)).toBe(value);
      }),
    );
    expect(withDoseField(heldLeft, 'upSeconds', 5)).toEqual(heldLeft);
    expect(doseFieldValue(heldLeft, 'upSeconds')).toBeUndefined();
  });
});
