import fc from 'fast-check';
import type { PainState } from '../progress/painRule.js';
import { exercise } from '../testing/exercises.js';
import { isWalkRun, WALK_RUN_STEPS, walkRunAt, walkRunMove } from './walkRun.js';

const dose = (upSeconds: number, downSeconds: number) => ({
  tempo: { upSeconds, topSeconds: 0, downSeconds, bottomSeconds: 0 },
});

describe('walking and running in turn', () => {
  it.each([
    [60, 240, 0],
    [120, 180, 1],
    [60, 60, 1],
    [180, 120, 2],
    [240, 60, 3],
    [300, 0, 3],
    [30, 300, 0],
    [0, 0, 0],
  ])('%s s of running and %s s of walking are step %s', (run, walk, at) =>
    expect(walkRunAt(dose(run, walk))).toBe(at),
  );

  it.each<[readonly PainState[], number]>([
    [[], 0],
    [['green', 'green'], 0],
    [['green', 'green', 'green'], 1],
    [['green', 'amber', 'green', 'green'], 0],
    [['green', 'amber', 'green', 'green', 'green'], 1],
    [['green', 'green', 'green', 'not-known'], 1],
    [['green', 'green', 'green', 'amber'], 0],
    [['green', 'green', 'red'], -1],
    [['green', 'stop'], -1],
    [['not-known', 'not-known'], 0],
  ])('after %j it goes by %s', (states, by) => expect(walkRunMove(states).by).toBe(by));

  it('never goes on while the last run that is known was not green', () => {
    const state = fc.constantFrom<PainState>('green', 'amber', 'red', 'stop', 'not-known');
    fc.assert(
      fc.property(fc.array(state), (states) => {
        const last = states.filter((s) => s !== 'not-known').at(-1);
        return last === 'green' || walkRunMove(states).by <= 0;
      }),
    );
  });

  it('runs more and walks less from step to step, five minutes each', () => {
    expect(WALK_RUN_STEPS.map((s) => s.runSeconds + s.walkSeconds)).toEqual([300, 300, 300, 300]);
    expect(WALK_RUN_STEPS.map((s) => s.runSeconds / 60)).toEqual([1, 2, 3, 4]);
  });

  it('is a run whose slower half is set, not a raise and not a run without walking', () => {
    const run = { tags: ['impact'], position: 'walking and running' } as const;
    const rise = exercise();
    expect(isWalkRun({ ...run, range: rise.range })).toBe(true);
    expect(isWalkRun({ ...run, range: { ...rise.range, downSeconds: undefined } })).toBe(false);
    expect(isWalkRun(rise)).toBe(false);
    expect(isWalkRun({ ...run, position: 'running', range: rise.range })).toBe(false);
  });
});
