import fc from 'fast-check';
import { orThrow } from '../result/result.js';
import { repetitionMaximum, type RepetitionMaximumInput } from './repetitionMaximum.js';

const of = (over: Partial<RepetitionMaximumInput> = {}): RepetitionMaximumInput => ({
  loadKg: 20,
  reps: 10,
  targetReps: 6,
  stepsKg: [10, 15, 20, 25],
  ...over,
});
const worked = (over: Partial<RepetitionMaximumInput> = {}) => orThrow(repetitionMaximum(of(over)));

describe('repetition maximum', () => {
  it.each([
    [20, 1, 20],
    [20, 2, 20 * (1 + 2 / 30)],
    [20, 10, 20 * (1 + 10 / 30)],
    [20, 12, 28],
  ])('%d kg %d times: once %d kg', (loadKg, reps, once) =>
    expect(worked({ loadKg, reps }).oneRepMaxKg).toBeCloseTo(once, 9),
  );

  it('rounds the load for another number down to an owned weight', () => {
    expect(worked()).toMatchObject({ loadKg: 20, reason: null });
    expect(worked({ stepsKg: [22.2] }).loadKg).toBe(22.2);
    expect(worked({ stepsKg: [22.3] })).toMatchObject({
      loadKg: null,
      reason: 'Every owned weight is heavier than 22.2 kg',
    });
  });

  it('takes an owned weight that is just the one wanted, whatever the last digit', () =>
    // 24 kg 5 times is 28 kg once, and 12 times exactly 20.
    expect(worked({ loadKg: 24, reps: 5, targetReps: 12, stepsKg: [20] }).loadKg).toBe(20));

  it('adds the body before and takes it off after', () => {
    const made = worked({ loadKg: 10, bodyMassKg: 70, reps: 6, targetReps: 12, stepsKg: [0, 2, 4, 10] });
    expect(made.oneRepMaxKg).toBeCloseTo(96, 9);
    // 96 / 1.4 is 68.6: less than the body.
    expect(made).toMatchObject({
      loadKg: null,
      reason: 'The body alone is heavier than the load for so many repetitions',
    });
    expect(
      worked({ loadKg: 10, bodyMassKg: 70, reps: 12, targetReps: 6, stepsKg: [10, 20, 25] }).loadKg,
    ).toBe(20);
  });

  it('says that nothing is owned', () =>
    expect(worked({ stepsKg: [] })).toMatchObject({ loadKg: null, reason: 'No weight is owned' }));

  it.each([
    [{ reps: 13 }, 'reps'],
    [{ reps: 0 }, 'reps'],
    [{ reps: 2.5 }, 'reps'],
    [{ targetReps: 13 }, 'targetReps'],
    [{ loadKg: -1 }, 'loadKg'],
    [{ loadKg: 0 }, 'loadKg'],
    [{ bodyMassKg: 400 }, 'bodyMassKg'],
    [{ stepsKg: [5, -2] }, 'stepsKg.1'],
  ])('refuses %j by its field', (change, path) => {
    const result = repetitionMaximum(of(change));
    expect(result.ok ? [] : result.issues.map((i) => i.path)).toEqual([path]);
  });

  it('never gives more than what was lifted for as many repetitions or more', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 200 }),
        fc.integer({ min: 1, max: 12 }),
        fc.integer({ min: 1, max: 12 }),
        fc.array(fc.integer({ min: 0, max: 250 }), { maxLength: 8 }),
        (loadKg, reps, targetReps, stepsKg) => {
          const made = worked({ loadKg, reps, targetReps, stepsKg });
          if (made.loadKg === null) return;
          expect(stepsKg).toContain(made.loadKg);
          if (targetReps >= reps && reps > 1) expect(made.loadKg).toBeLessThanOrEqual(loadKg + 1e-9);
        },
      ),
    ));
});
