import { exercise } from '../testing/exercises.js';
import { prescribe } from '../plan/prescribe.js';
import { applyStep } from '../plan/step.js';
import type { Prescription } from '../plan/prescription.js';
import type { PainState } from './painRule.js';
import { doseSteps, type DoseStepsOn, readySteps } from './doseSteps.js';

const run = exercise({
  key: 'walk-run',
  aim: 'endurance',
  position: 'walking and running',
  tags: ['weight-bearing', 'impact'],
  laterality: 'together',
  beats: ['run', 'walk'],
  dose: {
    sets: 1,
    reps: 6,
    tempo: { upSeconds: 60, topSeconds: 0, downSeconds: 240, bottomSeconds: 0 },
    restSeconds: 0,
    timesPerDay: 1,
    daysPerWeek: 3,
  },
  range: {
    sets: [1, 1],
    reps: [3, 12],
    upSeconds: [30, 300],
    topSeconds: [0, 1],
    downSeconds: [30, 300],
    restSeconds: [0, 0],
    timesPerDay: [1, 1],
    daysPerWeek: [1, 4],
  },
  variants: [],
  load: null,
});
const asked = prescribe(run, { slot: 'run', sideRule: 'both', affected: 'left' });
const at = (minutes: number): Prescription => ({
  ...asked,
  tempo: { upSeconds: minutes * 60, topSeconds: 0, downSeconds: (5 - minutes) * 60, bottomSeconds: 0 },
});

const DAYS = ['2026-03-02', '2026-03-04', '2026-03-06', '2026-03-09'];
const on = (states: readonly PainState[], item = asked, daysAtLevel = 8): DoseStepsOn => ({
  items: [item],
  work: states.map((_, i) => ({
    exercise: 'walk-run',
    day: DAYS[i] ?? '',
    planId: 'p',
    sets: 1,
    reps: 6,
    effort: 3,
    item,
    definition: run,
  })),
  sessions: states.map((state, i) => ({ day: DAYS[i] ?? '', state })),
  exerciseOf: () => run,
  ownedKg: [],
  bodyMassKg: 70,
  daysAtLevel,
  cautiousStepPercent: null,
});
const ladder = {
  exercises: [run],
  isOrdered: () => true,
  affected: 'left',
  tagsOff: { left: [], right: [] },
  taken: [],
} as const;
const after = (states: readonly PainState[], item = asked) => {
  const [ready] = doseSteps(on(states, item), '2026-03-01');
  return ready === undefined ? null : applyStep(item, ready.step, ladder).tempo;
};

describe('a run by its steps', () => {
  it('goes from one minute to two after three green runs, not after two', () => {
    expect(after(['green', 'green'])).toBeNull();
    expect(after(['green', 'green', 'green'])).toMatchObject({ upSeconds: 120, downSeconds: 180 });
  });

  it('waits a week at a step, and repeats it on amber', () => {
    expect(readySteps(on(['green', 'green', 'green'], asked, 6))).toEqual([]);
    expect(after(['green', 'green', 'green', 'amber'])).toBeNull();
  });

  it('waits twice as long where a caution asks for small steps', () => {
    const green = ['green', 'green', 'green'] as const;
    const cautious = (days: number) => readySteps({ ...on(green, asked, days), cautiousStepPercent: 5 });
    expect(cautious(13)).toEqual([]);
    expect(cautious(14)[0]?.step.kind).toBe('run');
  });

  it('goes back without waiting, though something else was green since', () => {
    const early = on(['green', 'red'], at(3), 3);
    const sessions = [...early.sessions, { day: '2026-03-05', state: 'green' as const }];
    expect(doseSteps({ ...early, sessions }, '2026-03-01')[0]?.step).toMatchObject({
      kind: 'run',
      runSeconds: 120,
    });
  });

  it('says two ambers where it was no red', () =>
    expect(doseSteps(on(['amber', 'amber'], at(3)), '2026-03-01')[0]?.step).toMatchObject({
      runSeconds: 120,
      because: 'two sessions running amber or worse: one step back',
    }));

  it('goes one step back on red', () =>
    expect(after(['green', 'green', 'red'], at(3))).toMatchObject({ upSeconds: 120, downSeconds: 180 }));

  it('becomes running without walking only after the last step', () =>
    expect(readySteps(on(['green', 'green', 'green'], at(4)))[0]?.step.kind).toBe('harder'));

  it('is made shorter where it is red at the first step already', () =>
    expect(doseSteps(on(['green', 'red']), '2026-03-01')[0]?.step.kind).toBe('easier'));
});
