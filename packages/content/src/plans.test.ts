import {
  besideOf,
  computeDose,
  patientPlan,
  planProblems,
  prescribe,
  prescriptionTime,
  prescriptionTotals,
  secondsOn,
  stepRung,
  toDoseInput,
  NOTHING_SAID,
} from '@heathstep/core';
import { loadContent } from './index.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const { content } = loaded;
const heelPain = content.protocols.find((p) => p.key === 'plantar-heel-pain');
const exerciseOf = (key: string) => content.exercises.find((e) => e.key === key);
const none = { left: [], right: [] };
const given = content.exercises.map((e) =>
  prescribe(e, { slot: 'x', sideRule: 'treated', affected: 'left' }),
);

describe('prescriptions of the library', () => {
  it('can be given as they are made, every one', () => {
    expect(planProblems(given, exerciseOf, NOTHING_SAID)).toEqual([]);
  });

  it('can be given after every step easier and harder, with weight and variant on the old rung', () => {
    const ladders = content.ladders.filter((l) => l.set !== true).map((l) => l.key);
    const problems = given.flatMap((item) =>
      ([-1, 1] as const).flatMap((by) => {
        const loadedUp = { ...item, addedKg: 4, variant: 'some-variant' };
        const next = stepRung(loadedUp, by, {
          exercises: content.exercises,
          isOrdered: (l) => ladders.includes(l),
          affected: 'left',
          tagsOff: none,
          taken: [],
        });
        return next === null
          ? []
          : planProblems([next], exerciseOf, NOTHING_SAID).map(
              (p) => `${item.exercise} ${by}: ${p.path} ${p.bound}`,
            );
      }),
    );
    expect(problems).toEqual([]);
  });

  it('take the same time wherever it is told: plan, handout, phone and week', () => {
    for (const item of given) {
      const e = exerciseOf(item.exercise);
      if (e === undefined) continue;
      const told = patientPlan({
        supervised: none,
        items: [item],
        exerciseOf,
        stage: null,
        schools: {},
        tagsOff: none,
        seenFaults: () => [],
      }).exercises;
      const totals = prescriptionTotals(item, e);
      const time = prescriptionTime(item, e);
      const seconds = time.ok ? time.value.daySeconds : null;
      expect([item.exercise, totals.ok && totals.value.daySeconds]).toEqual([item.exercise, seconds]);
      expect([item.exercise, told[0]?.daySeconds]).toEqual([item.exercise, seconds]);
      const week = [0, 1, 2, 3, 4, 5, 6].reduce((sum, day) => sum + secondsOn(told, day), 0);
      expect([item.exercise, week]).toEqual([item.exercise, time.ok && time.value.weekSeconds]);
    }
  });

  it('take the time to put it on where something is worn, not the hours it stays on', () => {
    const aids = given.filter((p) => exerciseOf(p.exercise)?.aim === 'aid');
    expect(aids.length).toBeGreaterThan(5);
    for (const p of aids) {
      const e = exerciseOf(p.exercise);
      if (e === undefined) continue;
      const time = prescriptionTime(p, e);
      const dose = computeDose(toDoseInput(p, e));
      expect(time).toMatchObject({ ok: true, value: { exerciseSeconds: e.setupSeconds } });
      expect(dose.ok && dose.value.exerciseSeconds).toBeGreaterThanOrEqual(e.setupSeconds);
    }
  });
});

describe('what a patient is given', () => {
  const [stage] = heelPain?.stages ?? [];
  const items = given.filter((p) => ['sole-stretch', 'calf-belt'].includes(p.exercise));
  const plan = (tagsOff: Parameters<typeof patientPlan>[0]['tagsOff'] = none) =>
    patientPlan({
      supervised: none,
      items,
      exerciseOf,
      stage: stage ?? null,
      schools: { insole: 'none' },
      tagsOff,
      seenFaults: (key) => (key === 'sole-stretch' ? ['only the toe tips bend'] : []),
    });

  it('has a cue of each fault seen in teaching, and watches for the others', () => {
    const stretch = plan().exercises.find((e) => e.key === 'sole-stretch');
    expect(stretch?.cues).toEqual(['hold the toes at their base']);
    expect(stretch?.watchFor.map((f) => f.fault)).toEqual(['the ankle drops']);
  });

  it('holds back what safety switches off, and says what for the clinic', () => {
    const off = plan({ left: ['forced-extension'], right: [] });
    expect(off.exercises.map((e) => e.key)).toEqual(['calf-belt']);
    expect(off.held).toEqual([{ exercise: 'sole-stretch', why: 'safety switches off forced-extension' }]);
  });

  it('has what stands beside it under the schools chosen', () => {
    const keys = plan().beside.map((a) => a.key);
    expect(keys).toContain('load-cut');
    expect(keys).not.toContain('insole-temporary');
    expect(stage === undefined ? [] : besideOf(stage, { insole: 'temporary' }).map((a) => a.key)).toContain(
      'insole-temporary',
    );
  });
});
