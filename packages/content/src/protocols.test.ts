import fc from 'fast-check';
import {
  ageProblem,
  besideOf,
  composePlan,
  type Criterion,
  type CriterionLeaf,
  evaluateCriteria,
  evaluateSafety,
  homeQuestions,
  type MeasuredFact,
  onlySupervised,
  prescriptionProblems,
  type SafetyAnswer,
  switchedOff,
} from '@heathstep/core';

import { NOW, lookup, exerciseOf, stages, schoolsOf, facts, HOME, plan, content } from './testing/planned.js';

const leavesOf = (c: Criterion): CriterionLeaf[] =>
  'all' in c
    ? c.all.flatMap(leavesOf)
    : 'any' in c
      ? c.any.flatMap(leavesOf)
      : 'of' in c
        ? c.of.flatMap(leavesOf)
        : [c];

describe('the staged protocols', () => {
  it('are all there: each has a pathway, and each pathway of a known condition has a protocol', () => {
    // Twenty-three for conditions, and one that goes by what was found.
    expect(content.protocols.filter((p) => p.conditions.length > 0)).toHaveLength(23);
    expect(content.protocols.filter((p) => p.conditions.length === 0).map((p) => p.key)).toEqual([
      'by-findings',
    ]);
    const led = new Set(content.pathways.map((p) => p.protocol));
    expect(content.protocols.filter((p) => !led.has(p.key)).map((p) => p.key)).toEqual([]);
    expect(content.pathways.filter((p) => p.protocol === null)).toEqual([]);
    const treated = content.protocols.flatMap((p) => p.conditions);
    const named = content.conditions.filter((c) => treated.includes(c.key));
    expect(named.filter((c) => c.pathway === null).map((c) => c.key)).toEqual([]);
    expect(new Set(treated).size).toBe(treated.length);
  });

  it.each(content.protocols.map((p) => [p.key, p] as const))(
    '%s says everything a protocol says',
    (_key, p) => {
      const ladder = p.stages.filter((s) => s.criteria !== null);
      expect(ladder.length).toBeGreaterThanOrEqual(3);
      expect(ladder.length).toBeLessThanOrEqual(5);
      expect(p.stages.filter((s) => s.criteria === null)).toHaveLength(1);
      expect(p.stages.at(-1)?.criteria).toBeNull();
      expect(p.stages[0]?.entry).toBeNull();
      for (const text of [
        p.usually,
        p.lookAgain,
        p.bothSides,
        p.cannotTest,
        p.relapse,
        ...p.refer,
        ...p.excludes,
      ])
        expect(text.length).toBeGreaterThan(8);
      expect([p.refer.length, p.excludes.length, p.endsOn.length].every((n) => n > 0)).toBe(true);
      expect(p.schools.length > 0).toBe(p.conditions.length > 0);
      expect(p.referWeeks).toBeGreaterThan(p.lookAgainWeeks);
      for (const s of p.stages) {
        expect([s.purpose.clinician.length > 5, s.purpose.patient.length > 5]).toEqual([true, true]);
        expect(s.remeasure.length).toBeGreaterThan(0);
        expect(s.evidence.source.length).toBeGreaterThan(3);
      }
    },
  );

  it.each(content.protocols.map((p) => [p.key, p] as const))(
    '%s: every school is somewhere felt',
    (_key, p) => {
      const felt = (question: string, option: string) =>
        p.stages.some(
          (s) =>
            s.slots.some((x) => x.school?.[question] === option) ||
            s.adjuncts.some((x) => x.school?.[question] === option),
        );
      for (const school of p.schools)
        expect([school.key, school.options.some((o) => felt(school.key, o.key))]).toEqual([school.key, true]);
    },
  );

  it('what is worn or used beside the exercises ends some day, or says that it stays', () => {
    const worn = content.protocols.flatMap((p) =>
      p.stages.flatMap((s) =>
        s.adjuncts.filter((a) => /brace|boot|lift|insole|insert|tape|spacer|crutch|pad$/.test(a.key)),
      ),
    );
    expect(worn.length).toBeGreaterThan(20);
    const heel = new Set(
      content.protocols.find((p) => p.key === 'plantar-heel-pain')?.stages.flatMap((s) => s.adjuncts),
    );
    expect(worn.filter((a) => a.weaning === null && !heel.has(a)).map((a) => a.key)).toEqual([]);
  });

  it.each(stages.filter(([, , s]) => s.criteria !== null))(
    '%s: its criteria can be evaluated, printed and asked for',
    (_key, p, s) => {
      const asked = homeQuestions(p).map((q) => q.key);
      const criteria = s.criteria as Criterion;
      for (const affected of ['left', 'both'] as const) {
        const result = evaluateCriteria(criteria, facts(affected), NOW, lookup);
        expect(result.state).not.toBe('met');
        for (const part of result.parts)
          expect([part.text.length > 3, part.because.length > 0]).toEqual([true, true]);
      }
      for (const leaf of leavesOf(criteria)) if ('answer' in leaf) expect(asked).toContain(leaf.answer);
    },
  );
});

describe('a plan by what was found', () => {
  const byFindings = content.protocols.find((p) => p.conditions.length === 0);
  const first = byFindings?.stages[0];
  const made = (found: readonly string[], change: Partial<Parameters<typeof composePlan>[0]> = {}) => {
    if (byFindings === undefined || first === undefined) throw new Error('no such protocol');
    return plan(byFindings, first, {
      drivers: found.map((key) => ({ key, because: `found: ${key}` })),
      maxExercises: 12,
      minutesPerDay: 90,
      ...change,
    });
  };
  const slotsOf = (p: ReturnType<typeof made>) => p.exercises.map((e) => e.slot);

  it('moves gently where nothing was found, and works on nothing', () => {
    expect(slotsOf(made([])).sort()).toEqual(['move', 'toes']);
  });

  it.each([...new Set(first?.slots.flatMap((s) => (s.onlyForDriver === true ? (s.drivers ?? []) : [])))])(
    'works on %s where it was found, says why, and on nothing else',
    (driver) => {
      const here = made([driver]);
      const wanted = first?.slots.filter((s) => s.onlyForDriver === true && s.drivers?.includes(driver));
      const only = here.exercises.filter((e) => !['move', 'toes'].includes(e.slot));
      expect(only.map((e) => e.slot)).toEqual(wanted?.map((s) => s.key));
      for (const e of only) expect(e.why).toContain(`found: ${driver}`);
    },
  );

  it('leaves out by its reason what safety switches off, also where it was found', () => {
    const off = { left: ['calf-load', 'push-off'] as const, right: ['calf-load', 'push-off'] as const };
    const here = made(['calf-weak'], { tagsOff: off });
    expect(slotsOf(here)).not.toContain('calf');
    expect(here.left.map((l) => l.exercise)).toContain('raise-seated');
  });
});

describe('what a slot says it is for', () => {
  const without = [
    ['without push-off', 'push-off'],
    ['without impact', 'impact'],
    ['without body weight', 'weight-bearing'],
    ['without weight', 'weight-bearing'],
    ['without load', 'weight-bearing'],
  ] as const;
  const slots = stages.flatMap(([name, , stage]) => stage.slots.map((slot) => ({ name, slot })));

  it.each(without)('is never said of an exercise that has it: %s', (words, tag) => {
    const said = slots.filter(({ slot }) => slot.purpose.toLowerCase().includes(words));
    const given = said.flatMap(({ name, slot }) =>
      [slot.start, ...(slot.rungs ?? []).map((r) => r.exercise)].map((key) => ({ name, slot, key })),
    );
    expect(given.filter((g) => exerciseOf(g.key).tags.includes(tag)).map((g) => [g.name, g.key])).toEqual([]);
  });

  it('is on one leg only where the exercise it starts from is', () =>
    expect(
      slots
        .filter(({ slot }) => /(?<!toward )(one leg|one foot)/u.test(slot.purpose.toLowerCase()))
        .filter(({ slot }) => exerciseOf(slot.start).laterality === 'together')
        .map(({ name, slot }) => [name, slot.key]),
    ).toEqual([]));
});

describe('a plan of every stage', () => {
  it.each(stages)(
    '%s: for its typical person, with what a home has, within the minutes',
    (_key, protocol, stage) => {
      for (const affected of ['left', 'right', 'both'] as const) {
        const made = plan(protocol, stage, { facts: facts(affected) });
        expect(made.exercises.length).toBeGreaterThanOrEqual(Math.min(2, stage.slots.length));
        expect(made.minutesPerDay).toBeLessThanOrEqual(25 + 1e-9);
        expect(made.warnings).toEqual([]);
        for (const item of made.exercises) {
          expect(prescriptionProblems(item, exerciseOf(item.exercise))).toEqual([]);
          expect(item.why.length).toBeGreaterThan(0);
        }
      }
    },
  );

  it.each(stages)(
    '%s: for a difficult person, both sides, nothing at home, ten minutes, one caution',
    (_key, protocol, stage) => {
      const made = plan(protocol, stage, {
        facts: facts('both'),
        equipment: [],
        minutesPerDay: 10,
        tagsOff: { left: ['standing-unsupported'], right: ['standing-unsupported'] },
      });
      expect(made.minutesPerDay).toBeLessThanOrEqual(10 + 1e-9);
      expect(made.exercises.length + made.warnings.length).toBeGreaterThan(0);
      for (const left of made.left) expect(left.why.length).toBeGreaterThan(5);
    },
  );

  it.each(stages)('%s: under every choice of its schools', (_key, protocol, stage) => {
    for (const school of protocol.schools)
      for (const option of school.options) {
        const schools = { ...schoolsOf(protocol), [school.key]: option.key };
        const made = plan(protocol, stage, { schools });
        expect(made.exercises.length).toBeGreaterThan(0);
        expect(besideOf(stage, schools).every((a) => a.text.length > 5)).toBe(true);
      }
  });
});

describe('easing back', () => {
  const doses = (p: ReturnType<typeof plan>) =>
    p.exercises.map(({ why: _why, ...dose }) => JSON.stringify(dose)).sort();
  const pairs = content.protocols.flatMap((protocol) =>
    protocol.stages
      .slice(1)
      .flatMap((stage, i) =>
        protocol.stages
          .slice(i, i + 1)
          .map(
            (before) => [`${protocol.key}: ${stage.key} to ${before.key}`, protocol, stage, before] as const,
          ),
      ),
  );

  it.each(pairs)('changes the plan, %s', (_name, protocol, stage, before) =>
    expect(doses(plan(protocol, before))).not.toEqual(doses(plan(protocol, stage))),
  );
});

describe('safety over every protocol', () => {
  const answer = (scope: 'person' | 'side'): fc.Arbitrary<SafetyAnswer> =>
    scope === 'person'
      ? fc.oneof(
          { weight: 9, arbitrary: fc.constant<SafetyAnswer>('no') },
          { weight: 1, arbitrary: fc.constant<SafetyAnswer>('yes') },
        )
      : fc.oneof(
          { weight: 9, arbitrary: fc.constant<SafetyAnswer>('no') },
          { weight: 1, arbitrary: fc.constantFrom<SafetyAnswer>('left', 'right', 'both') },
        );
  const answers = fc.record(
    Object.fromEntries(
      content.safetyQuestions.map((q) => [q.key, answer(q.scope === 'person' ? 'person' : 'side')]),
    ),
  ) as fc.Arbitrary<Record<string, SafetyAnswer>>;
  const person = fc.record({
    answers,
    affected: fc.constantFrom('left', 'right', 'both'),
    ageYears: fc.integer({ min: 8, max: 95 }),
    minutesPerDay: fc.integer({ min: 3, max: 60 }),
    equipment: fc.subarray(HOME),
    raises: fc.option(fc.integer({ min: 0, max: 30 }), { nil: null }),
    keep: fc.subarray(
      content.exercises.map((e) => e.key),
      { maxLength: 2 },
    ),
  });

  it('never offers what safety switches off, in any stage, to anyone, even when it is asked for', () => {
    fc.assert(
      fc.property(person, (p) => {
        const state = evaluateSafety({
          questions: content.safetyQuestions,
          rules: content.safetyRules,
          answers: p.answers,
          affected: p.affected,
          ageYears: p.ageYears,
          closures: [],
        });
        const measures: MeasuredFact[] =
          p.raises === null
            ? []
            : (['left', 'right'] as const).map((side) => ({
                measure: 'single-leg-heel-raise',
                side,
                value: p.raises,
                at: NOW,
              }));
        for (const [, protocol, stage] of stages) {
          if (ageProblem(protocol, p.ageYears) !== null) continue;
          const made = plan(protocol, stage, {
            facts: { ...facts(p.affected, measures), ageYears: p.ageYears },
            tagsOff: state.tagsOff,
            supervised: state.supervised,
            minutesPerDay: p.minutesPerDay,
            equipment: p.equipment,
            locks: { keep: p.keep, never: [] },
          });
          for (const item of made.exercises) {
            const e = exerciseOf(item.exercise);
            expect([stage.key, e.key, switchedOff(e, item.sides, state.tagsOff)]).toEqual([
              stage.key,
              e.key,
              null,
            ]);
            expect(onlySupervised(e, item.sides, state.supervised)).toBeNull();
          }
          expect(made.minutesPerDay).toBeLessThanOrEqual(p.minutesPerDay + 1e-9);
          if (made.exercises.length === 0) expect(made.warnings.length).toBeGreaterThan(0);
        }
      }),
      { numRuns: 60 },
    );
  });
});

describe('totals in percent of the best score', () => {
  const leafOf = (protocol: string, at: (leaf: CriterionLeaf) => boolean) => {
    const found = content.protocols
      .find((p) => p.key === protocol)
      ?.stages.flatMap((s) => (s.criteria === null ? [] : leavesOf(s.criteria)))
      .find(at);
    if (found === undefined) throw new Error(`no such criterion in ${protocol}`);
    return found;
  };
  const total = (value: number, at = NOW): MeasuredFact => ({
    measure: 'instability-total',
    side: 'left',
    value,
    at,
  });

  it.each([
    [24, 'not-met'],
    [79, 'not-met'],
    [80, 'met-within-error'],
  ])('after a sprain sport needs 24 of 30 points, 80 %%: %d %%', (value, state) => {
    const leaf = leafOf('lateral-ankle-sprain', (l) => 'measure' in l && l.measure === 'instability-total');
    expect(evaluateCriteria(leaf, facts('left', [total(value)]), NOW, lookup).state).toBe(state);
  });

  it.each([
    [63, 'not-met'],
    [70, 'met-within-error'],
  ])('an unstable ankle is better by 3 of 30 points, 10 %%: from 60 to %d %%', (value, state) => {
    const leaf = leafOf('ankle-instability', (l) => 'outcome' in l);
    const before = total(60, '2026-01-10T10:00:00');
    expect(evaluateCriteria(leaf, facts('left', [before, total(value)]), NOW, lookup).state).toBe(state);
  });
});
