import { addImpact, impactOf, impactRise, NO_IMPACT } from './impact.js';

const hop = { tags: ['impact', 'calf-load'] as const, position: 'standing' };
const run = { tags: ['impact'] as const, position: 'walking and running' };

describe('the ledger of impact', () => {
  it('counts landings of hops and minutes of runs, and nothing of a slow raise', () => {
    const done = { repetitions: 60, runSeconds: 600 };
    expect(impactOf(hop, done)).toEqual({ contacts: 60, runMinutes: 0 });
    expect(impactOf(run, done)).toEqual({ contacts: 0, runMinutes: 10 });
    expect(impactOf({ tags: ['calf-load'], position: 'standing' }, done)).toEqual(NO_IMPACT);
    expect(addImpact(impactOf(hop, done), impactOf(run, done))).toEqual({ contacts: 60, runMinutes: 10 });
  });

  it.each([
    [60, 0, false],
    [61, 0, true],
    [120, 100, false],
    [121, 100, true],
    [60, 20, false],
  ])('%d contacts after %d done: over %p', (coming, done, over) => {
    const rise = impactRise({ contacts: coming, runMinutes: 0 }, { contacts: done, runMinutes: 0 }, 20);
    expect(rise.over).toBe(over);
    expect(rise.because).toEqual(over ? ['contacts'] : []);
  });

  it('rises by what the stage allows', () =>
    expect(impactRise(NO_IMPACT, { contacts: 100, runMinutes: 0 }, 10).most.contacts).toBeCloseTo(110, 9));

  it('judges running apart from landings', () => {
    expect(impactRise({ contacts: 0, runMinutes: 31 }, { contacts: 500, runMinutes: 25 }, 20)).toMatchObject({
      over: true,
      because: ['runMinutes'],
      most: { runMinutes: 30 },
    });
  });
});
