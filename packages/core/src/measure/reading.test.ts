import { guardReading } from './guard.js';
import { readText } from './reading.js';
import { areLike, unlikeness } from './like.js';
import { readThreshold, usualAtAge } from './thresholds.js';
import { lunge, raise } from '../testing/measures.js';
import type { MeasureDefinition } from './definition.js';

const distance: MeasureDefinition = {
  ...lunge,
  key: 'lunge-distance',
  label: 'Lunge, toe to wall',
  unit: 'cm',
  unitLabel: 'cm',
  allowed: { min: 0, max: 30 },
  usual: { min: 1, max: 18 },
};
const hold: MeasureDefinition = { ...raise, unit: 's', unitLabel: 's', decimals: 1 };
const grip: MeasureDefinition = {
  ...raise,
  label: 'Paper grip',
  allowed: { min: 0, max: 1 },
  usual: { min: 0, max: 1 },
  levels: [
    { value: 0, word: 'fail' },
    { value: 1, word: 'pass' },
  ],
};

describe('what is typed for a measure', () => {
  it.each([
    [distance, '80 mm', 8],
    [distance, '8cm', 8],
    [distance, '0.08 m', 8],
    [distance, '8,5', 8.5],
    [lunge, '34°', 34],
    [lunge, '34 deg', 34],
    [hold, '1:05', 65],
    [hold, '1 min', 60],
    [hold, '7.5 s', 7.5],
    [grip, 'pass', 1],
    [grip, 'F', 0],
  ] as const)('%# %s reads as %d', (measure, text, value) => {
    expect(readText(measure, text)).toEqual({ kind: 'value', value });
  });

  it.each([
    [distance, '8 deg', 'deg'],
    [lunge, '34 cm', 'cm'],
    [hold, '10 kg', 'kg'],
  ] as const)('%# %s is of another kind and told so', (measure, text, typed) => {
    expect(readText(measure, text)).toEqual({ kind: 'wrong-unit', typed });
  });

  it('says the unit it wants when another is typed', () => {
    expect(guardReading(lunge, '34 cm')).toEqual({
      state: 'impossible',
      message: 'Lunge, knee bent is in °, not cm',
    });
  });

  it('offers the reading a slipped decimal mark meant, and only an ordinary one', () => {
    expect(guardReading(lunge, '340')).toEqual({
      state: 'impossible',
      message: 'Lunge, knee bent lies between 0 and 70°. Did you mean 34?',
      meant: 34,
    });
    expect(guardReading(lunge, '90')).toMatchObject({ state: 'impossible' });
    expect(guardReading(lunge, '90')).not.toHaveProperty('meant');
    // Whole numbers have no decimal mark to slip.
    expect(guardReading(raise, '200')).not.toHaveProperty('meant');
  });

  it('refuses a negative where there is none, and a word that is no level', () => {
    expect(guardReading(lunge, '-3').state).toBe('impossible');
    expect(guardReading(grip, 'maybe')).toEqual({ state: 'impossible', message: 'Choose fail, pass' });
    expect(guardReading(grip, '0.5')).toMatchObject({ state: 'impossible' });
  });
});

describe('thresholds', () => {
  const restricted: MeasureDefinition = {
    ...lunge,
    thresholds: [{ key: 'restricted', op: '<', value: 35, meaning: 'restricted', source: 'test' }],
  };
  const sem = 4.5 / 2.77;

  it.each([
    [35, null],
    [34.99, 'within-error'],
    [35 - sem + 0.01, 'within-error'],
    [35 - sem, 'clear'],
    [30, 'clear'],
  ] as const)('a lunge of %d is %s', (value, margin) => {
    expect(readThreshold(restricted, value, null)?.margin ?? null).toBe(margin);
  });

  it('takes the first that holds, in the order written', () => {
    const posture = {
      ...lunge,
      error: null,
      thresholds: [
        { key: 'high', op: '>=', value: 10, meaning: 'high', source: '' },
        { key: 'raised', op: '>=', value: 6, meaning: 'raised', source: '' },
      ],
    } as MeasureDefinition;
    expect([12, 10, 9, 6, 5].map((v) => readThreshold(posture, v, null)?.key ?? null)).toEqual([
      'high',
      'high',
      'raised',
      'raised',
      null,
    ]);
  });

  it('compares with what is usual at the age, by bands', () => {
    const stance: MeasureDefinition = {
      ...hold,
      error: null,
      byAge: {
        bands: [
          { from: 18, value: 45 },
          { from: 50, value: 41 },
          { from: 70, value: 22 },
        ],
        source: 'test',
      },
    };
    expect([17, 18, 49, 50, 69, 70, 99].map((age) => usualAtAge(stance, age))).toEqual([
      null,
      45,
      45,
      41,
      41,
      22,
      22,
    ]);
    expect(readThreshold(stance, 30, 75)).toBeNull();
    expect(readThreshold(stance, 30, 55)?.meaning).toBe('not what is usual at this age');
    expect(readThreshold(stance, 30, null)).toBeNull();
  });
});

describe('only like is compared with like', () => {
  it('fills in the usual way, so that saying it changes nothing', () => {
    expect(areLike(lunge, {}, { method: 'goniometer', position: 'standing', by: 'another' })).toBe(true);
  });

  it.each([
    [{ method: 'phone' }, 'goniometer and phone'],
    [{ position: 'sitting' }, 'standing and sitting'],
    [{ by: 'self' as const }, 'measured by another and by oneself'],
  ])('%j is another way', (other, words) => {
    expect(areLike(lunge, {}, other)).toBe(false);
    expect(unlikeness(lunge, {}, other)).toBe(words);
  });
});
