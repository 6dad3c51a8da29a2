import {
  type Affected,
  ageProblem,
  besideOf,
  besideText,
  composePlan,
  type Facts,
  issue,
  type Issue,
  ok,
  type ProtocolDefinition,
  refused,
  type Result,
  type Sex,
  signText,
  type StageKey,
  stageOf,
} from '@heathstep/core';
import type { ContentBundle } from '@heathstep/content';
import { type SafetyIn, screened } from './safety.js';

interface PlanIn {
  readonly protocol: string;
  readonly stage: StageKey | null;
  readonly affected: Exclude<Affected, 'none'>;
  readonly ageYears: number | null;
  readonly sex: Sex | null;
  readonly schools?: Readonly<Record<string, string>>;
  readonly equipment: readonly string[];
  readonly weightsKg?: readonly number[];
  readonly minutesPerDay: number;
  readonly daysPerWeek: number;
  readonly safety: { readonly answers: SafetyIn['answers'] };
  readonly measures: readonly {
    readonly measure: string;
    readonly side: 'left' | 'right' | 'none';
    readonly value: number | null;
  }[];
  readonly drivers?: readonly string[];
  readonly locks?: { readonly keep?: readonly string[]; readonly never?: readonly string[] };
}

/** Noon of a day that stands for today; nothing here depends on which. */
const NOW = '2026-01-15T12:00:00';

const unknown = (
  path: string,
  keys: readonly string[],
  known: readonly { readonly key: string }[],
  what: string,
): Issue[] =>
  keys.flatMap((key, i) => (known.some((k) => k.key === key) ? [] : [issue(`${path}.${i}`, key, what)]));

function problemsOf(
  input: PlanIn,
  content: ContentBundle,
  protocol: ProtocolDefinition | undefined,
): Issue[] {
  if (protocol === undefined)
    return [issue('protocol', input.protocol, `one of ${content.protocols.map((p) => p.key).join(', ')}`)];
  const stages = protocol.stages.map((s) => s.key);
  return [
    ...(input.stage === null || stages.includes(input.stage)
      ? []
      : [issue('stage', input.stage, `null or one of ${stages.join(', ')}`)]),
    ...Object.entries(input.schools ?? {}).flatMap(([question, option]) => {
      const school = protocol.schools.find((s) => s.key === question);
      const options = school?.options.map((o) => o.key) ?? [];
      return options.includes(option)
        ? []
        : [
            issue(
              `schools.${question}`,
              option,
              school === undefined ? 'a question of this protocol' : `one of ${options.join(', ')}`,
            ),
          ];
    }),
    ...unknown(
      'locks.keep',
      input.locks?.keep ?? [],
      content.exercises,
      'an exercise key, listed by the function content',
    ),
    ...unknown(
      'locks.never',
      input.locks?.never ?? [],
      content.exercises,
      'an exercise key, listed by the function content',
    ),
    ...unknown(
      'drivers',
      input.drivers ?? [],
      content.drivers,
      'a driver key, listed by the function content',
    ),
  ];
}

const factsOf = (input: PlanIn): Facts => ({
  measures: input.measures.map((m) => ({ ...m, at: NOW })),
  sessions: [],
  skills: {},
  stageSince: NOW,
  affected: input.affected,
  ageYears: input.ageYears,
  sex: input.sex,
});

/** Why nothing is prescribed to this person at all, in words; empty when something may be. */
function closedTo(input: PlanIn, protocol: ProtocolDefinition, blocked: readonly string[]): string[] {
  const age = ageProblem(protocol, input.ageYears);
  return [...(age === null ? [] : [age]), ...blocked.map((b) => `Nothing is prescribed: ${b}`)];
}

/** A question that was not asked is no no: the plan is an answer to a calculation, not one to give. */
const notAsked = (missing: number): string[] =>
  missing === 0
    ? []
    : [
        `${missing} safety ${missing === 1 ? 'answer is' : 'answers are'} missing: nothing is given before they are asked`,
      ];

/** Fills a stage of a protocol for one person, by the same planner and the same safety as the application. */
export function planOn(raw: unknown, content: ContentBundle): Result<unknown> {
  const input = raw as PlanIn;
  const protocol = content.protocols.find((p) => p.key === input.protocol);
  const problems = problemsOf(input, content, protocol);
  if (protocol === undefined || problems.length > 0) return refused(...problems);
  const safety = screened(
    {
      ageYears: input.ageYears,
      affected: input.affected,
      answers: input.safety.answers,
      measures: input.measures,
    },
    content,
  );
  if (!safety.ok)
    return refused(
      ...safety.issues.map((i) => ({ ...i, path: i.path.replace(/^answers/, 'safety.answers') })),
    );
  const stage = stageOf(protocol, input.stage ?? protocol.stages[0]?.key ?? null);
  if (stage === null) return refused(issue('stage', input.stage, 'a stage of the protocol'));
  const schools = {
    ...Object.fromEntries(protocol.schools.map((s) => [s.key, s.default])),
    ...input.schools,
  };
  const adjuncts = besideOf(stage, schools).map((a) => ({ key: a.key, text: besideText(a) }));
  const closed = closedTo(input, protocol, safety.value.blocking.map(signText));
  if (closed.length > 0) return ok({ exercises: [], left: [], adjuncts, minutesPerDay: 0, warnings: closed });
  const plan = composePlan(
    {
      stage,
      exercises: content.exercises,
      facts: factsOf(input),
      schools,
      equipment: input.equipment,
      minutesPerDay: input.minutesPerDay,
      daysPerWeek: input.daysPerWeek,
      tagsOff: safety.value.tagsOff,
      supervised: safety.value.supervised,
      drivers: (input.drivers ?? []).map((key) => ({
        key,
        because: content.drivers.find((d) => d.key === key)?.label ?? key,
      })),
      now: NOW,
      weightsKg: input.weightsKg ?? [],
      locks: { keep: input.locks?.keep ?? [], never: input.locks?.never ?? [] },
    },
    (key) => content.measures.find((m) => m.key === key),
  );
  return ok({
    exercises: plan.exercises.map(({ exercise, sides, slot: _slot, why, ...dose }) => ({
      key: exercise,
      sides,
      dose,
      minutes: plan.minutes[exercise] ?? 0,
      why,
    })),
    left: plan.left.map((l) => ({ key: l.exercise, why: l.why })),
    adjuncts,
    minutesPerDay: plan.minutesPerDay,
    warnings: [...plan.warnings, ...notAsked(safety.value.unanswered.length)],
  });
}
