import {
  type Affected,
  emptyRecord,
  exercisesLeft,
  type FindingAnswer,
  type FindingState,
  issue,
  type Issue,
  ok,
  outsideAllowed,
  refused,
  type Result,
  type SafetyAnswer,
  type SafetyQuestion,
  type SafetyState,
  screenRecord,
  SEEN_SIGNS,
} from '@heathstep/core';
import type { ContentBundle } from '@heathstep/content';

type Column = 'left' | 'right' | 'none';
type GivenAnswer = boolean | 'not-tested' | { readonly left?: boolean; readonly right?: boolean };

export interface SafetyIn {
  readonly ageYears: number | null;
  readonly affected: Affected;
  readonly answers: Readonly<Record<string, GivenAnswer>>;
  readonly measures?: readonly {
    readonly measure: string;
    readonly side: Column;
    readonly value: number | null;
  }[];
  readonly seen?: readonly { readonly sign: string; readonly side: 'left' | 'right' }[];
  readonly findings?: readonly FindingAnswer[];
}

/** A given answer in the words of the record; a plain yes to a question about a side is both sides. */
function answerOf(question: SafetyQuestion, given: GivenAnswer): SafetyAnswer {
  if (given === 'not-tested') return given;
  if (typeof given === 'boolean') return !given ? 'no' : question.scope === 'side' ? 'both' : 'yes';
  const { left, right } = given;
  if (question.scope === 'person') return left === true || right === true ? 'yes' : 'no';
  if (left === true) return right === true ? 'both' : 'left';
  return right === true ? 'right' : 'no';
}

/** A sign by its name, or a tender bone by the bone's. */
const signOf = (sign: string): string | undefined =>
  [sign, `tender-${sign}`].find((s) => SEEN_SIGNS.includes(s));

function problemsOf(input: SafetyIn, content: ContentBundle): Issue[] {
  const questions = new Set(content.safetyQuestions.map((q) => q.key));
  const findings = new Set(content.findings.map((f) => f.key));
  return [
    ...Object.keys(input.answers)
      .filter((k) => !questions.has(k))
      .map((k) => issue(`answers.${k}`, input.answers[k], 'a question of the safety screen')),
    ...(input.measures ?? []).flatMap((m, i) => {
      const measure = content.measures.find((x) => x.key === m.measure);
      if (measure === undefined)
        return [issue(`measures.${i}.measure`, m.measure, 'a measure key, listed by the function content')];
      return m.value === null ? [] : outsideAllowed(measure, m.value, `measures.${i}.value`);
    }),
    ...(input.seen ?? []).flatMap((s, i) =>
      signOf(s.sign) === undefined
        ? [issue(`seen.${i}.sign`, s.sign, `one of ${SEEN_SIGNS.join(', ')}`)]
        : [],
    ),
    ...(input.findings ?? []).flatMap((f, i) =>
      findings.has(f.key)
        ? []
        : [issue(`findings.${i}.key`, f.key, 'a finding key, listed by the function content')],
    ),
  ];
}

/** The safety screen on what is told, measured, drawn and found of one person. */
export function screened(input: SafetyIn, content: ContentBundle): Result<SafetyState> {
  const problems = problemsOf(input, content);
  if (problems.length > 0) return refused(...problems);
  const byKey = new Map(content.safetyQuestions.map((q) => [q.key, q]));
  const answers = Object.fromEntries(
    Object.entries(input.answers).flatMap(([key, given]) => {
      const question = byKey.get(key);
      return question === undefined ? [] : [[key, answerOf(question, given)] as const];
    }),
  );
  const measureOf = (key: string) => content.measures.find((m) => m.key === key);
  const measured = (key: string, side: Column): number | null => {
    const found = (input.measures ?? []).filter((m) => m.measure === key && m.side === side).pop();
    if (found === undefined) return null;
    return found.value ?? (measureOf(key)?.direction === 'more' ? 0 : null);
  };
  const sideOf = (f: FindingAnswer): Column =>
    content.findings.find((d) => d.key === f.key)?.sides === 'person' ? 'none' : f.side;
  const marked = new Set((input.seen ?? []).map((s) => `${signOf(s.sign) ?? ''}.${s.side}`));
  return ok(
    screenRecord(content, {
      answers,
      found: new Map(
        (input.findings ?? []).map((f): [string, FindingState] => [`${f.key}.${sideOf(f)}`, f.state]),
      ),
      record: {
        ...emptyRecord(input.ageYears),
        measure: measureOf,
        measured,
        seen: (sign, side) => (marked.has(`${sign}.${side}`) ? sign.replaceAll('-', ' ') : null),
      },
      affected: input.affected,
      closures: [],
      labelOf: (key) => measureOf(key)?.label ?? key,
    }),
  );
}

/** Runs the safety screen and says what it asks, triggers and leaves. */
export function safetyOn(raw: unknown, content: ContentBundle): Result<unknown> {
  const result = screened(raw as SafetyIn, content);
  if (!result.ok) return result;
  const state = result.value;
  const personal = state.blocking.some((t) => t.side === 'none');
  return ok({
    asked: state.asked,
    unanswered: state.unanswered,
    notTested: state.notTested,
    triggered: state.triggered.map((t) => ({
      rule: t.rule.key,
      level: t.rule.level,
      side: t.side,
      status: t.status,
      because: t.because,
      action: t.rule.action,
    })),
    tagsOff: state.tagsOff,
    exercisesLeft: personal ? { left: 0, right: 0 } : exercisesLeft(content.exercises, state.tagsOff),
    school: state.acts.school,
    blocked: state.blockedBecause.length > 0,
    blockedBecause: state.blockedBecause,
  });
}
