import fc from 'fast-check';
import { compareValues, isImportant } from './compare.js';
import { guardReading, isWhole } from './guard.js';
import { estimateLungeAngle } from './lungeEstimate.js';
import { compareSides } from './symmetry.js';
import { combineTrials } from './trials.js';
import { orThrow } from '../result/result.js';
import { firstStep, lunge, posture, raise, toePress } from '../testing/measures.js';

describe('trials', () => {
  it('averages where the measure says mean, and reports the spread', () => {
    expect(combineTrials(lunge, [34, 35, 33])).toEqual({ value: 34, how: 'mean', spread: 2, outliers: [] });
  });

  it('takes the best by direction: the most raises', () => {
    expect(combineTrials(raise, [11, 14, null])).toMatchObject({ value: 14, how: 'best' });
  });

  it('gives null, not zero, when nothing was taken', () => {
    expect(combineTrials(lunge, [])).toEqual({ value: null, how: 'mean', spread: null, outliers: [] });
    expect(combineTrials(lunge, [null, null]).value).toBeNull();
  });

  it('flags a trial more than the detectable change from the median of the others, only with 3 or more', () => {
    expect(combineTrials(lunge, [34, 34, 38.5]).outliers).toEqual([]);
    expect(combineTrials(lunge, [34, 34, 38.6]).outliers).toEqual([2]);
    expect(combineTrials(lunge, [34, 44]).outliers).toEqual([]);
    expect(combineTrials(lunge, [34, null, 34, 42]).outliers).toEqual([3]);
  });

  it('keeps the mean between the smallest and the largest trial, in any order', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 70 }), { minLength: 1, maxLength: 6 }), (values) => {
        const forward = combineTrials(lunge, values).value as number;
        const backward = combineTrials(lunge, [...values].reverse()).value as number;
        expect(forward).toBeCloseTo(backward, 9);
        expect(forward).toBeGreaterThanOrEqual(Math.min(...values) - 1e-9);
        expect(forward).toBeLessThanOrEqual(Math.max(...values) + 1e-9);
      }),
    );
  });
});

describe('change between visits', () => {
  const likelyFrom = (1.81 * 4.5) / 2.77;

  it.each([
    [30, 34.5, 'real', 'better'],
    [30, 34.49, 'likely', 'better'],
    [34.5, 30, 'real', 'worse'],
    [30, 30 + likelyFrom, 'likely', 'better'],
    [30, 30 + likelyFrom - 0.01, 'within-error', 'same'],
    [30, 30, 'within-error', 'same'],
  ] as const)('lunge from %d to %d is %s, %s', (then, now, kind, direction) => {
    expect(compareValues(lunge, then, now)).toEqual({ change: now - then, class: kind, direction });
  });

  it('takes a percentage error from the mean of the two values', () => {
    expect(compareValues(toePress, 100, 116.3).class).toBe('real');
    expect(compareValues(toePress, 100, 115).class).toBe('likely');
  });

  it('is not known where the error is not known, and still says which way', () => {
    expect(compareValues(firstStep, 6, 4)).toEqual({ change: -2, class: 'not-known', direction: 'better' });
    expect(compareValues(firstStep, 4, 4)).toMatchObject({ class: 'not-known', direction: 'same' });
  });

  it('counts only the distance outside a target band', () => {
    expect(compareValues(posture, 1, 4)).toMatchObject({ class: 'real', direction: 'same' });
    expect(compareValues(posture, 9, 5)).toMatchObject({ class: 'real', direction: 'better' });
    expect(compareValues(posture, -1, -4)).toMatchObject({ class: 'real', direction: 'worse' });
  });

  it('calls a change of pain important from 2 points or 30 %', () => {
    expect(isImportant(firstStep, 8, 6)).toBe(true);
    expect(isImportant(firstStep, 3, 2)).toBe(true);
    expect(isImportant(firstStep, 8, 7)).toBe(false);
    expect(isImportant(lunge, 30, 40)).toBeNull();
  });

  it('mirrors: swapping then and now swaps better and worse', () => {
    const swap = { better: 'worse', worse: 'better', same: 'same' } as const;
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 70 }), fc.integer({ min: 0, max: 70 }), (a, b) => {
        const there = compareValues(lunge, a, b);
        const back = compareValues(lunge, b, a);
        expect(back.class).toBe(there.class);
        expect(back.direction).toBe(swap[there.direction]);
      }),
    );
  });
});

describe('sides', () => {
  it('compares the treated with the other side', () => {
    const result = compareSides(raise, 11, 19, 'left');
    expect(result).toMatchObject({ difference: 8, worseSide: 'left', flagged: true, reason: null });
    expect(result.symmetryPercent).toBeCloseTo(57.895, 3);
    expect(result.criteriaPercent).toBeCloseTo(57.895, 3);
  });

  it('does not let a weak sound side pass or fail anyone: treated over other may exceed 100', () => {
    expect(compareSides(raise, 20, 10, 'left').criteriaPercent).toBe(200);
  });

  it('turns the ratio over when less is better', () => {
    expect(compareSides(firstStep, 6, 3, 'left')).toMatchObject({
      worseSide: 'left',
      symmetryPercent: 50,
      criteriaPercent: 50,
      flagged: null,
    });
  });

  it.each(['both', 'none'] as const)('has no criteria percent with %s affected, and says why', (affected) => {
    const result = compareSides(raise, 11, 19, affected);
    expect(result.criteriaPercent).toBeNull();
    expect(result.reason).toMatch(/both sides|no treated side/);
  });

  it('gives no ratio on signed or target scales or over zero', () => {
    expect(compareSides(posture, 7, 2, 'left')).toMatchObject({
      symmetryPercent: null,
      criteriaPercent: null,
      worseSide: 'left',
    });
    expect(compareSides(raise, 5, 0, 'left')).toMatchObject({ criteriaPercent: null, symmetryPercent: 0 });
    expect(compareSides(raise, 0, 0, 'left')).toMatchObject({ symmetryPercent: null, worseSide: 'none' });
  });

  it('flags each measure by its own rule: the lunge over 5, not at 5; raises under 90 %', () => {
    expect(compareSides(lunge, 30, 35, 'left').flagged).toBe(false);
    expect(compareSides(lunge, 30, 35.1, 'left').flagged).toBe(true);
    expect(compareSides(raise, 18, 20, 'left').flagged).toBe(false);
    expect(compareSides(raise, 17, 20, 'left').flagged).toBe(true);
    expect(compareSides(posture, 2, 4, 'left').flagged).toBe(true);
  });

  it('is the same seen from either side', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), fc.integer({ min: 1, max: 60 }), (a, b) => {
        const one = compareSides(raise, a, b, 'left');
        const two = compareSides(raise, b, a, 'right');
        expect(two.criteriaPercent).toBe(one.criteriaPercent);
        expect(two.difference).toBe(one.difference);
        expect(one.symmetryPercent).toBeLessThanOrEqual(100);
      }),
    );
  });
});

describe('lunge estimate by geometry', () => {
  it('gives 33.3 degrees, plus or minus 2.28, for the worked case', () => {
    const { angleDeg, plusMinusDeg } = orThrow(
      estimateLungeAngle({ distanceCm: 8, footLengthCm: 26, shinLengthCm: 41 }),
    );
    expect(angleDeg).toBeCloseTo(33.283, 3);
    expect(plusMinusDeg).toBeCloseTo(2.282, 3);
  });

  it('is refused at r of 1 or more and 0 or less', () => {
    expect(estimateLungeAngle({ distanceCm: 27, footLengthCm: 24, shinLengthCm: 40 })).toMatchObject({
      ok: false,
      issues: [{ path: 'r', value: 1 }],
    });
    expect(estimateLungeAngle({ distanceCm: 0, footLengthCm: 6, shinLengthCm: 40 }).ok).toBe(false);
  });

  it('names every field out of range', () => {
    const result = estimateLungeAngle({ distanceCm: -1, footLengthCm: 400, shinLengthCm: Number.NaN });
    expect(result.ok ? [] : result.issues.map((i) => i.path)).toEqual([
      'distanceCm',
      'footLengthCm',
      'shinLengthCm',
    ]);
  });

  it('grows with distance and shrinks with a longer shin', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 2, max: 12, noNaN: true }),
        fc.double({ min: 36, max: 50, noNaN: true }),
        (d, t) => {
          const at = (distanceCm: number, shinLengthCm: number) =>
            orThrow(estimateLungeAngle({ distanceCm, footLengthCm: 25, shinLengthCm })).angleDeg;
          expect(at(d + 0.5, t)).toBeGreaterThan(at(d, t));
          expect(at(d, t + 1)).toBeLessThan(at(d, t));
        },
      ),
    );
  });
});

describe('typing guard', () => {
  it.each([
    ['34,5', { state: 'fine', value: 34.5 }],
    ['34.5', { state: 'fine', value: 34.5 }],
    [' 34 ', { state: 'fine', value: 34 }],
    ['', { state: 'empty' }],
    ['9.9', { state: 'unusual', value: 9.9 }],
    ['10', { state: 'fine', value: 10 }],
    ['55', { state: 'fine', value: 55 }],
    ['56', { state: 'unusual', value: 56 }],
    ['70', { state: 'unusual', value: 70 }],
    ['340', { state: 'impossible' }],
    ['-3', { state: 'impossible' }],
    ['abc', { state: 'impossible' }],
    ['😀', { state: 'impossible' }],
    ['1.2.3', { state: 'impossible' }],
    ['1,234.5', { state: 'impossible' }],
    ['9'.repeat(10_000), { state: 'impossible' }],
  ])('reads %p', (text, expected) => {
    expect(guardReading(lunge, text)).toMatchObject(expected);
  });

  it.each([
    ['34.5', true],
    ['34,5', true],
    // A decimal may still follow, or another figure.
    ['34', false],
    ['34.', false],
    ['345', false],
    // More than is taken, asked whether it is right, impossible, with a unit: each waits.
    ['34.55', false],
    ['9.9', false],
    ['71.5', false],
    ['34.5 ', false],
    ['34.5 °', false],
    ['', false],
  ])('of %p says whether it can only be whole', (text, whole) => expect(isWhole(lunge, text)).toBe(whole));

  it('never takes a measure of whole numbers for whole', () => expect(isWhole(raise, '25')).toBe(false));

  it('refuses half a heel raise', () => {
    expect(guardReading(raise, '12.5')).toMatchObject({
      state: 'impossible',
      message: 'Single-leg heel raise is a whole number',
    });
  });

  it('never lets text through as a number', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        const result = guardReading(lunge, text);
        if (result.state === 'fine' || result.state === 'unusual') {
          expect(Number.isFinite(result.value)).toBe(true);
          expect(result.value).toBeGreaterThanOrEqual(0);
          expect(result.value).toBeLessThanOrEqual(70);
        }
      }),
    );
  });
});
