import fc from 'fast-check';
import { BAND_STRETCHES, bandForce, type BandPoint, calibration } from './band.js';

const points = (...newtons: number[]): BandPoint[] =>
  newtons.map((n, i) => ({ stretchPercent: BAND_STRETCHES[i] ?? 0, newtons: n }));

describe('the pull of a band', () => {
  it.each([
    [50, 20],
    [70, 24],
    [100, 30],
    [125, 33],
    [200, 48],
  ])('at %i %% is %i N, straight between what was measured', (stretch, newtons) => {
    const force = bandForce(points(20, 30, 36, 48), stretch);
    expect(force.ok && force.value).toBeCloseTo(newtons, 9);
  });

  it('is not guessed beyond what was measured', () => {
    for (const stretch of [49, 151]) {
      const force = bandForce(points(20, 30, 36), stretch);
      expect(!force.ok && force.issues[0]?.bound).toBe('between the measured 50 and 150 %');
    }
  });

  it('takes the points in any order', () => {
    const force = bandForce(points(20, 30).reverse(), 70);
    expect(force.ok && force.value).toBeCloseTo(24, 9);
  });

  it.each([
    ['one stretch only', points(20), 'points'],
    ['a pull that falls', points(20, 18), '100'],
    ['no pull', points(0, 18), '50'],
    ['a slip of the hand', points(20, 900), '100'],
    ['a stretch measured twice', [...points(20, 30), { stretchPercent: 100, newtons: 31 }], '100'],
    ['a stretch beyond 200 %', [...points(20, 30), { stretchPercent: 250, newtons: 60 }], '250'],
  ])('refuses %s', (_what, given, path) => {
    const checked = calibration(given);
    expect(!checked.ok && checked.issues[0]?.path).toBe(path);
  });

  it('always lies between its neighbours and grows with the stretch', () => {
    const steps = fc.array(fc.integer({ min: 1, max: 60 }), { minLength: 2, maxLength: 4 });
    const stretch = fc.double({ min: 50, max: 200, noNaN: true });
    fc.assert(
      fc.property(steps, stretch, stretch, (grow, a, b) => {
        let sum = 0;
        const given = points(...grow.map((g) => (sum += g)));
        const most = given.at(-1)?.stretchPercent ?? 0;
        const [low, high] = [Math.min(a, b, most), Math.min(Math.max(a, b), most)];
        const [first, second] = [bandForce(given, low), bandForce(given, high)];
        if (!first.ok || !second.ok) throw new Error('refused');
        expect(first.value).toBeLessThanOrEqual(second.value + 1e-9);
        expect(second.value).toBeLessThanOrEqual(sum + 1e-9);
      }),
    );
  });
});
