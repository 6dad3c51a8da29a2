import {
  ageProblem,
  composePlan,
  exercisesLeft,
  type ExerciseDefinition,
  type SafetyAnswer,
  type SafetyState,
  type Side,
  SIDES,
  sidesFor,
  switchedOff,
  type Trigger,
} from '@heathstep/core';
import fc from 'fast-check';
import { loadContent } from './index.js';
import { ENDANGERED } from './testing/endangered.js';
import { type Endangered, screenOf } from './testing/people.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const { content } = loaded;

const opened = (s: SafetyState): string[] =>
  s.triggered.flatMap((t) => [t.rule.key, ...(t.side === 'none' ? [] : [`${t.rule.key}.${t.side}`])]);

const offered = (e: ExerciseDefinition, side: Side, s: SafetyState): boolean =>
  s.blockedBecause.length === 0 &&
  switchedOff(e, e.laterality === 'together' ? 'together' : side, s.tagsOff) === null;

/** Everything the shipped stages would put before this person, by any school, with every piece of equipment. */
function plannedFor(p: Endangered, s: SafetyState): string[] {
  if (s.blockedBecause.length > 0) return [];
  const equipment = [...new Set(content.exercises.flatMap((e) => e.equipment))];
  return content.protocols
    .filter((protocol) => ageProblem(protocol, p.age) === null)
    .flatMap((protocol) =>
      protocol.stages.flatMap(
        (stage) =>
          composePlan(
            {
              stage,
              exercises: content.exercises,
              facts: {
                measures: [],
                sessions: [],
                skills: {},
                stageSince: '2026-03-01',
                affected: p.affected,
              },
              schools: Object.fromEntries(protocol.schools.map((q) => [q.key, q.default])),
              equipment,
              minutesPerDay: 120,
              tagsOff: s.tagsOff,
              supervised: s.supervised,
              drivers: [],
              now: '2026-03-01',
              maxExercises: 12,
            },
            (key) => content.measures.find((m) => m.key === key),
          ).exercises,
      ),
    )
    .map((e) => e.exercise);
}

describe('people who could be hurt', () => {
  it('are at least sixty, each of a name of their own', () => {
    expect(ENDANGERED.length).toBeGreaterThanOrEqual(60);
    expect(new Set(ENDANGERED.map((p) => p.who)).size).toBe(ENDANGERED.length);
  });

  it.each(ENDANGERED.map((p) => [p.who, p] as const))('%s', (_who, p) => {
    const s = screenOf(p, content);
    const rules = opened(s);
    expect({ missing: (p.opens ?? []).filter((r) => !rules.includes(r)) }).toEqual({ missing: [] });
    expect({ wrong: (p.shut ?? []).filter((r) => rules.includes(r)) }).toEqual({ wrong: [] });
    expect({ blocked: s.blockedBecause.length > 0 }).toEqual({ blocked: p.blocked });
    const left = exercisesLeft(content.exercises, s.tagsOff);
    for (const side of p.nothing ?? []) expect([side, left[side]]).toEqual([side, 0]);
    const forbidden = (e: ExerciseDefinition) =>
      p.never?.includes(e.key) === true || e.tags.some((t) => p.noTags?.includes(t));
    const sides: readonly Side[] =
      p.affected === 'right' ? ['right'] : p.affected === 'left' ? ['left'] : SIDES;
    const wrongly = content.exercises.filter(
      (e) => forbidden(e) && sides.some((side) => offered(e, side, s)),
    );
    expect(wrongly.map((e) => e.key)).toEqual([]);
    const still = content.exercises.filter((e) => p.still?.includes(e.key));
    expect(still.length).toBe(p.still?.length ?? 0);
    expect(still.filter((e) => !sides.some((side) => offered(e, side, s))).map((e) => e.key)).toEqual([]);
    const planned = plannedFor(p, s);
    const given = content.exercises.filter((e) => planned.includes(e.key));
    expect(
      given
        .filter((e) => forbidden(e) || switchedOff(e, sidesFor(e, 'treated', p.affected), s.tagsOff) !== null)
        .map((e) => e.key),
    ).toEqual([]);
  });

  it('under 16 are given no adult protocol, and none while the age is not known', () => {
    for (const protocol of content.protocols) {
      expect(ageProblem(protocol, null)).toMatch(/date of birth/);
      if (protocol.toAge !== null) {
        expect([7, 8, protocol.toAge, 16].map((age) => ageProblem(protocol, age) === null)).toEqual([
          false,
          true,
          true,
          false,
        ]);
        continue;
      }
      expect(protocol.fromAge).toBeGreaterThanOrEqual(16);
      expect(ageProblem(protocol, 12)).toMatch(/from \d+ years/);
      expect(ageProblem(protocol, protocol.fromAge - 1)).not.toBeNull();
      expect(ageProblem(protocol, protocol.fromAge)).toBeNull();
    }
  });

  it('after a stroke get nothing standing by itself, and pain is judged by comfort', () => {
    const stroke = ENDANGERED.find((p) => p.who === 'after a stroke') as Endangered;
    const s = screenOf(stroke, content);
    expect(s.acts.school).toBe('comfort');
    const standing = content.exercises.filter((e) => e.tags.includes('weight-bearing')).map((e) => e.key);
    expect(plannedFor(stroke, s).filter((k) => standing.includes(k))).toEqual([]);
  });
});

const anyAnswer = (q: (typeof content.safetyQuestions)[number]) =>
  fc.constantFrom<SafetyAnswer>(
    ...(q.scope === 'side' ? (['no', 'left', 'right', 'both'] as const) : (['no', 'yes'] as const)),
  );
/** What lessens a danger, so that telling it may give exercises back. */
const LESSENS = new Set(['gout-assessed', 'calf-wasted', 'wells-other']);
const dangers = content.safetyQuestions.filter((q) => !LESSENS.has(q.key));
const answerSets = fc.record(
  Object.fromEntries(
    dangers.map((q) => [
      q.key,
      fc.oneof(
        { weight: 12, arbitrary: fc.constant<SafetyAnswer>('no') },
        { weight: 1, arbitrary: anyAnswer(q) },
      ),
    ]),
  ),
);
const person = (answers: Record<string, SafetyAnswer>, more: Partial<Endangered> = {}): Endangered => ({
  who: 'anyone',
  age: 40,
  affected: 'left',
  blocked: false,
  answers,
  ...more,
});
const widened = (a: SafetyAnswer | undefined, b: SafetyAnswer): SafetyAnswer => {
  if (a === undefined || a === 'no' || a === b) return b;
  return a === 'yes' || b === 'yes' ? 'yes' : 'both';
};

describe('safety of any answers', () => {
  it('a danger added never adds an exercise', () => {
    fc.assert(
      fc.property(
        answerSets,
        fc.constantFrom(...dangers),
        fc.constantFrom<SafetyAnswer>('left', 'right', 'both'),
        fc.integer({ min: 6, max: 90 }),
        (answers, q, side, age) => {
          const added = q.scope === 'person' ? 'yes' : side;
          const before = screenOf(person(answers, { age }), content);
          const after = screenOf(
            person({ ...answers, [q.key]: widened(answers[q.key], added) }, { age }),
            content,
          );
          for (const s of SIDES)
            for (const e of content.exercises)
              if (offered(e, s, after))
                expect([q.key, e.key, offered(e, s, before)]).toEqual([q.key, e.key, true]);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('a stop on either foot blocks at its level, whichever is treated', () => {
    fc.assert(
      fc.property(
        answerSets,
        fc.constantFrom('left' as const, 'right' as const, 'both' as const),
        (answers, affected) => {
          const s = screenOf(person(answers, { affected }), content);
          const left = exercisesLeft(content.exercises, s.tagsOff);
          for (const t of s.triggered) {
            const everyone = t.side === 'none' || t.rule.level === 'emergency' || t.rule.blocks === 'person';
            if (t.off !== 'everything') continue;
            if (everyone) expect([left.left, left.right, s.blockedBecause.length > 0]).toEqual([0, 0, true]);
            else expect(left[t.side]).toBe(0);
            if (affected === 'both' || t.side === affected)
              expect(s.blockedBecause.length).toBeGreaterThan(0);
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  it('does not hang on the order of the answers', () => {
    fc.assert(
      fc.property(answerSets, (answers) => {
        const turned = Object.fromEntries(Object.entries(answers).reverse());
        expect(screenOf(person(turned), content)).toEqual(screenOf(person(answers), content));
      }),
      { numRuns: 20 },
    );
  });

  it('not tested opens nothing that a no would not, but for what must be tested first', () => {
    const asked = content.safetyQuestions.filter((q) => q.how === 'test');
    expect(asked.length).toBeGreaterThan(10);
    for (const q of asked) {
      const s = screenOf(person({ [q.key]: 'not-tested' }), content);
      expect(s.unanswered).toEqual([]);
      expect([q.key, opened(s)]).toEqual([q.key, []]);
    }
    const all = Object.fromEntries(asked.map((q) => [q.key, 'not-tested' as const]));
    const s = screenOf(person(all), content);
    expect(new Set(s.notTested)).toEqual(
      new Set(asked.filter((q) => s.asked.includes(q.key)).map((q) => q.key)),
    );
  });
});

/** Answers, findings, signs, measures and ages that open a gate. */
function opening(gate: Trigger): Partial<Endangered>[] {
  if (typeof gate === 'string') {
    const q = content.safetyQuestions.find((x) => x.key === gate);
    return [{ answers: { [gate]: q?.scope === 'side' ? 'left' : 'yes' } }];
  }
  if ('any' in gate) return gate.any.flatMap(opening);
  if ('seen' in gate) return [{ seen: [`${gate.seen}.left`] }];
  if ('finding' in gate) return [{ found: [`${gate.finding}.left`] }];
  if ('ageUnder' in gate) return [{ age: gate.ageUnder - 1 }];
  if ('higherBy' in gate) return [{ measures: { [gate.measured]: [30 + gate.higherBy, 30] } }];
  throw new Error(`a gate this test does not know: ${JSON.stringify(gate)}`);
}

describe('gates of the screen', () => {
  const gated = content.safetyQuestions.filter((q) => q.onlyIf !== undefined);

  it.each(gated.map((q) => [q.key, q] as const))(
    '%s is asked once anything opens its gate, and not before',
    (_key, q) => {
      expect(screenOf(person({}), content).asked).not.toContain(q.key);
      const ways = opening(q.onlyIf as Trigger);
      expect(ways.length).toBeGreaterThan(0);
      for (const way of ways) expect(screenOf({ ...person({}), ...way }, content).asked).toContain(q.key);
    },
  );

  it.each(content.safetyQuestions.filter((q) => !LESSENS.has(q.key)).map((q) => [q.key, q] as const))(
    '%s: a danger told behind a closed gate counts as it does before an open one',
    (_key, q) => {
      const yes: SafetyAnswer = q.scope === 'side' ? 'left' : 'yes';
      const told = screenOf(person({ [q.key]: yes }), content);
      for (const way of q.onlyIf === undefined ? [] : opening(q.onlyIf)) {
        const inFront = screenOf(
          { ...person({}), ...way, answers: { ...way.answers, [q.key]: yes } },
          content,
        );
        expect(opened(inFront)).toEqual(expect.arrayContaining(opened(told)));
      }
    },
  );
});

describe('tests that can be spared', () => {
  const sparable = content.safetyQuestions.filter((q) => q.neededIf !== undefined);
  const left = (p: Partial<Endangered>): Endangered => ({
    ...person({}),
    ...p,
    answers: { ...Object.fromEntries(sparable.map((q) => [q.key, 'open' as const])), ...p.answers },
  });

  it.each(sparable.map((q) => [q.key, q] as const))(
    '%s is asked where its part is concerned or not known, and once anything told makes it needed',
    (key, q) => {
      expect(screenOf(left({ concerned: [] }), content).spared).toContain(key);
      expect(screenOf(left({ concerned: [] }), content).unanswered).not.toContain(key);
      expect(screenOf(left({}), content).unanswered).toContain(key);
      expect(screenOf(left({ concerned: [q.part ?? ''] }), content).unanswered).toContain(key);
      for (const way of opening(q.neededIf as Trigger))
        expect(screenOf(left({ concerned: [], ...way }), content).unanswered).toContain(key);
    },
  );

  it.each(sparable.map((q) => [q.key, q] as const))(
    '%s counts as before where it was made all the same',
    (key, q) => {
      const yes: SafetyAnswer = q.scope === 'side' ? 'left' : 'yes';
      const made = screenOf({ ...person({ [key]: yes }), concerned: [] }, content);
      expect(made.asked).toContain(key);
      expect(opened(made)).toEqual(opened(screenOf(person({ [key]: yes }), content)));
    },
  );

  it('hide no danger that is known: whoever could be hurt is stopped as before, or the test is asked for', () => {
    for (const p of ENDANGERED) {
      const whole = screenOf(p, content);
      const spared = screenOf(
        {
          ...p,
          concerned: [],
          answers: {
            ...Object.fromEntries(
              sparable.filter((q) => p.answers?.[q.key] === undefined).map((q) => [q.key, 'open' as const]),
            ),
            ...p.answers,
          },
        },
        content,
      );
      expect(opened(spared)).toEqual(expect.arrayContaining(opened(whole)));
    }
  });

  it.each(content.safetyQuestions.flatMap((q) => (q.clashes ?? []).map((c) => [q.key, c] as const)))(
    'a no to %s is held against what the story tells, a yes is not',
    (key, clash) => {
      const when = clash.when as
        | { finding: string }
        | { seen: string }
        | { all: readonly [{ finding: string }, { any: readonly [{ finding: string }] }] };
      const found =
        'seen' in when
          ? []
          : 'finding' in when
            ? [when.finding]
            : [when.all[0].finding, when.all[1].any[0].finding];
      const told = {
        found: found.map((f) => `${f}.left`),
        seen: 'seen' in when ? [`${when.seen}.left`] : [],
      };
      const words = (p: Partial<Endangered>) =>
        screenOf({ ...person({}), ...p }, content).clashes.map((c) => c.question);
      expect(words(told)).toContain(key);
      expect(words({})).not.toContain(key);
      expect(words({ ...told, answers: { [key]: 'both' } })).not.toContain(key);
    },
  );
});
