import fc from 'fast-check';
import { neverBack } from '../src/clock.js';

const HOUR = 3_600_000;

/** A clock that can be set, beside one that runs; both in milliseconds. */
function settable() {
  let [machine, running] = [10 * HOUR, 0];
  const now = neverBack(
    () => machine,
    () => running,
  );
  return {
    now: () => now().getTime(),
    pass: (ms: number) => {
      machine += ms;
      running += ms;
    },
    set: (by: number) => (machine += by),
    machine: () => machine,
  };
}

describe('the clock of the record', () => {
  it('is the machine’s as long as nobody sets that one back', () => {
    const clock = settable();
    clock.pass(1500);
    expect(clock.now()).toBe(clock.machine());
    clock.set(5 * HOUR);
    expect(clock.now()).toBe(clock.machine());
  });

  it('goes on from where it was when the machine is an hour back, at half the pace until it has come up', () => {
    const clock = settable();
    const before = clock.now();
    clock.set(-HOUR);
    clock.pass(60_000);
    expect(clock.now()).toBe(before + 30_000);
    clock.pass(2 * HOUR - 60_000);
    expect(clock.now()).toBe(before + HOUR);
    expect(clock.machine()).toBe(before + HOUR);
    clock.pass(1000);
    expect(clock.now()).toBe(clock.machine());
  });

  it('believes the machine where it was more than two hours ahead', () => {
    const clock = settable();
    clock.now();
    clock.set(-2 * HOUR - 1);
    expect(clock.now()).toBe(clock.machine());
  });

  it('never goes back for a clock set by less, whatever is done and however often it is asked', () => {
    const step = fc.record({
      pass: fc.nat({ max: 20 * 60_000 }),
      set: fc.integer({ min: -10 * 60_000, max: 10 * 60_000 }),
    });
    fc.assert(
      fc.property(fc.array(step, { maxLength: 11 }), (steps) => {
        const clock = settable();
        let last = clock.now();
        for (const { pass, set } of steps) {
          clock.set(set);
          clock.pass(pass);
          const now = clock.now();
          expect(now).toBeGreaterThanOrEqual(last);
          last = now;
        }
      }),
    );
  });
});
