import {
  type MeasuredFact,
  prescriptionTime,
  prescriptionTotals,
  type Stage,
  type Tag,
} from '@heathstep/core';
import { NOW, exerciseOf, stages, facts, HOME, plan, content } from './testing/planned.js';

describe('what a filled place is', () => {
  const rung = (key: string) => exerciseOf(key).rung;
  const slotOf = (stage: Stage, key: string) => {
    const found = stage.slots.find((slot) => slot.key === key);
    if (found === undefined) throw new Error(`no slot ${key}`);
    return found;
  };

  it.each(stages)('%s: never easier than the least that still is what it is for', (_key, protocol, stage) => {
    for (const [equipment, minutesPerDay] of [
      [HOME, 25],
      [[], 25],
      [[], 8],
    ] as const)
      for (const item of plan(protocol, stage, { equipment, minutesPerDay }).exercises) {
        const { least } = slotOf(stage, item.slot);
        if (least !== undefined)
          expect([item.slot, rung(item.exercise) >= rung(least)]).toEqual([item.slot, true]);
      }
  });

  it.each(stages)(
    '%s: fewer minutes give fewer exercises or sets, never easier ones',
    (_key, protocol, stage) => {
      const roomy = plan(protocol, stage, { minutesPerDay: 90, maxExercises: 9 });
      const rungs = new Map(roomy.exercises.map((item) => [item.slot, rung(item.exercise)]));
      for (const item of plan(protocol, stage, { minutesPerDay: 12 }).exercises)
        if (rungs.has(item.slot))
          expect([item.slot, rung(item.exercise)]).toEqual([item.slot, rungs.get(item.slot)]);
    },
  );

  it.each(
    stages.filter(([, , stage]) =>
      stage.slots.some((s) => s.whole === true && s.school === undefined && s.priority === 1),
    ),
  )('%s: what is the point is in a plan of twenty minutes', (_key, protocol, stage) => {
    const [first] = stage.slots.filter((s) => s.whole === true && s.priority === 1);
    const given = plan(protocol, stage, { minutesPerDay: 20 }).exercises.map((item) => item.slot);
    expect(given).toContain(first?.key);
  });

  it('gives the whole dose before anything else where it is the point, and a part of it where the minutes are too few', () => {
    const heel = content.protocols.find((p) => p.key === 'plantar-heel-pain');
    const stage = heel?.stages.find((s) => s.slots.some((slot) => slot.key === 'heavy-raise'));
    if (heel === undefined || stage === undefined) throw new Error('no heavy stage');
    const sets = (minutesPerDay: number) =>
      plan(heel, stage, { minutesPerDay }).exercises.find((item) => item.slot === 'heavy-raise')?.sets;
    const all = sets(60);
    expect(all).toBeGreaterThan(1);
    expect(sets(20)).toBe(all);
    expect(sets(5) ?? 0).toBeLessThan(all ?? 0);
  });

  it('keeps what is the point in its order: the first whole, the next with the sets that are left for it', () => {
    const heel = content.protocols.find((p) => p.key === 'plantar-heel-pain');
    const stage = heel?.stages.find((s) => s.key === 'build');
    if (heel === undefined || stage === undefined) throw new Error('no such stage');
    const filled = (minutesPerDay: number) =>
      plan(heel, stage, { minutesPerDay }).exercises.map((item) => [item.slot, item.sets]);
    expect(filled(20).slice(0, 2)).toEqual([
      ['before-first-step', 1],
      ['heavy-raise', 4],
    ]);
    expect(filled(10)).toContainEqual(['before-first-step', 1]);
    expect(filled(10).find(([slot]) => slot === 'heavy-raise')?.[1] ?? 0).toBeLessThan(4);
  });

  it('a towel under the toes waits for a big toe that bends up 45 degrees, also as the easier of two', () => {
    const heel = content.protocols.find((p) => p.key === 'plantar-heel-pain');
    if (heel === undefined) throw new Error('no heel pain');
    const of = (measure: string, value: number): MeasuredFact => ({ measure, side: 'left', value, at: NOW });
    const raises = (extension: number | null, raise: number, off: readonly Tag[]) =>
      heel.stages
        .filter((s) => s.slots.some((slot) => slot.key === 'heavy-raise'))
        .flatMap((stage) => {
          const measures = [
            of('single-leg-heel-raise', raise),
            ...(extension === null ? [] : [of('big-toe-extension', extension)]),
          ];
          const made = plan(heel, stage, {
            facts: facts('left', measures),
            minutesPerDay: 40,
            tagsOff: { left: off, right: [] },
          });
          return made.exercises.filter((e) => e.slot.startsWith('heavy-raise')).map((e) => e.exercise);
        });
    const towels = (keys: readonly string[]) => keys.filter((k) => exerciseOf(k).equipment.includes('towel'));
    for (const extension of [null, 30, 44])
      for (const raise of [0, 5, 10, 25])
        for (const off of [[], ['single-leg-raise'], ['heavy-load', 'single-leg-raise']] as Tag[][]) {
          const made = raises(extension, raise, off);
          expect(made.length).toBeGreaterThan(0);
          expect([extension, raise, off, towels(made)]).toEqual([extension, raise, off, []]);
        }
    expect(towels(raises(60, 5, []))).not.toEqual([]);
    expect(new Set(raises(60, 25, []))).toEqual(new Set(['raise-towel-one-leg']));
  });
});

describe('limits of a week', () => {
  it.each(stages)('%s: a plan that is filled keeps the impact its stage allows', (_key, protocol, stage) => {
    const made = plan(protocol, stage, { minutesPerDay: 90, maxExercises: 9 });
    const weeks = made.exercises.map((item) => prescriptionTotals(item, exerciseOf(item.exercise)));
    const sum = (of: 'contacts' | 'runMinutes') =>
      weeks.reduce((total, w) => total + (w.ok ? w.value.weekImpact[of] : Number.POSITIVE_INFINITY), 0);
    if (stage.contactsPerWeek !== null)
      expect(sum('contacts')).toBeLessThanOrEqual(stage.contactsPerWeek + 1e-9);
    if (stage.runMinutesPerWeek !== null)
      expect(sum('runMinutes')).toBeLessThanOrEqual(stage.runMinutesPerWeek + 1e-9);
  });

  it('gives the balance of a fall programme its dose, three hours a week with what else is done', () => {
    const protocol = content.protocols.find((p) => p.key === 'fall-risk-foot');
    if (protocol === undefined) throw new Error('no fall protocol');
    for (const stage of protocol.stages) {
      const made = plan(protocol, stage, { facts: facts('both'), minutesPerDay: 35 });
      const balance = made.exercises.filter((e) => e.slot === 'balance');
      const minutes = balance.reduce((total, item) => {
        const time = prescriptionTime(item, exerciseOf(item.exercise));
        return total + (time.ok ? (time.value.daySeconds / 60) * item.daysPerWeek : 0);
      }, 0);
      expect([stage.key, minutes >= 120]).toEqual([stage.key, true]);
    }
  });

  it('follows the table of the weeks', () => {
    const protocol = content.protocols.find((p) => p.key === 'achilles-midportion');
    const stage = protocol?.stages.find((s) => s.key === 'slow-load');
    if (protocol === undefined || stage === undefined) throw new Error('no stage');
    const heavy = (since: string) => {
      const measures: MeasuredFact[] = [
        { measure: 'single-leg-heel-raise', side: 'left', value: 12, at: NOW },
      ];
      const made = plan(protocol, stage, {
        schools: { loading: 'heavy' },
        minutesPerDay: 60,
        facts: { ...facts('left', measures), stageSince: since },
      });
      return made.exercises.find((e) => e.slot === 'heavy-straight');
    };
    expect([heavy('2026-03-18')?.reps, heavy('2026-03-18')?.sets]).toEqual([15, 3]);
    expect([heavy('2026-03-10')?.reps, heavy('2026-02-20')?.reps]).toEqual([12, 10]);
    expect([heavy('2026-01-01')?.reps, heavy('2026-01-01')?.sets]).toEqual([6, 4]);
  });
});
