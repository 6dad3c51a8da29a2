import { NOTHING_SAID } from './safety.js';
import { exercise } from '../testing/exercises.js';
import { planProblems } from './check.js';
import { doseRange, withBeyond } from './doseRange.js';
import { prescribe } from './prescribe.js';
import type { Prescription } from './prescription.js';

const rise = exercise();
const usual = prescribe(rise, { slot: 's', sideRule: 'treated', affected: 'left' });
const problems = (p: Prescription) => planProblems([p], () => rise, NOTHING_SAID).map((i) => i.path);

describe('a dose beyond the usual range', () => {
  it('is refused without a reason, and taken with one, up to half again as much', () => {
    expect(problems({ ...usual, reps: 20 })).toEqual(['items.0.reps']);
    expect(problems({ ...usual, reps: 20, beyond: 'dancer, used to more' })).toEqual([]);
    expect(problems({ ...usual, reps: 22, beyond: 'dancer, used to more' })).toEqual([]);
    expect(problems({ ...usual, reps: 23, beyond: 'dancer, used to more' })).toEqual(['items.0.reps']);
    expect(problems({ ...usual, addedKg: 30, beyond: 'weightlifter' })).toEqual([]);
    expect(problems({ ...usual, addedKg: 31, beyond: 'weightlifter' })).toEqual(['items.0.addedKg']);
  });

  it('needs a reason that says something', () =>
    expect(problems({ ...usual, reps: 20, beyond: ' no ' })).toEqual(['items.0.beyond']));

  it('goes down to half as little, and never under one', () => {
    const range = doseRange({ beyond: 'weak after weeks in bed' }, rise);
    expect([range.reps, range.sets, range.daysPerWeek, range.timesPerDay]).toEqual([
      [3, 22],
      [1, 7],
      [1, 7],
      [1, 3],
    ]);
  });

  it('never opens what safety switches off', () =>
    expect(
      planProblems([{ ...usual, reps: 20, beyond: 'dancer, used to more' }], () => rise, {
        ...NOTHING_SAID,
        tagsOff: { left: ['calf-load'], right: [] },
      }).map((i) => i.path),
    ).toEqual(['items.0.exercise']));

  it('has its reason only as long as it goes beyond', () => {
    const beyond = withBeyond({ ...usual, reps: 20 }, rise, 'dancer');
    expect(beyond.beyond).toBe('dancer');
    expect(withBeyond({ ...beyond, reps: 12 }, rise)).toEqual({ ...usual, reps: 12 });
    expect(withBeyond({ ...usual, reps: 12 }, rise, 'dancer').beyond).toBe(undefined);
    expect(
      withBeyond({ ...usual, restSeconds: 0, round: { key: 'a', feet: 'each' } }, rise, 'dancer').beyond,
    ).toBe(undefined);
  });
});
