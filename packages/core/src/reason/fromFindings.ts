import { issue, ok, refused, type Result } from '../result/result.js';
import type { SafetyAnswer, SafetyQuestion, SafetyRule } from '../screen/definition.js';
import { evaluateSafety, type SafetyState } from '../screen/safety.js';
import { SIDES } from '../quantity/side.js';
import type { FindingDefinition, ReasonContent } from './definition.js';
import type { FindingState } from './known.js';
import { emptyRecord, reasonAbout, type Reasoning } from './reason.js';
import type { Column } from './sign.js';

export interface FindingAnswer {
  readonly key: string;
  readonly side: Column;
  readonly state: FindingState;
}

export interface FindingsInput {
  readonly findings: readonly FindingAnswer[];
  readonly ageYears: number | null;
  readonly daysSinceOnset: number | null;
}

export interface FindingsContent extends ReasonContent {
  readonly safetyQuestions: readonly SafetyQuestion[];
  readonly safetyRules: readonly SafetyRule[];
}

/** The safety answers that findings are, by question. Not tested is no answer. */
export function safetyAnswersOf(
  definitions: readonly FindingDefinition[],
  answers: ReadonlyMap<string, FindingState>,
): Record<string, SafetyAnswer> {
  const found: Record<string, SafetyAnswer> = {};
  for (const f of definitions) {
    if (f.safety === null) continue;
    const at = (side: Column) => answers.get(`${f.key}.${side}`);
    const sides = SIDES.filter((s) => at(s) === 'present');
    if (at('none') === 'present') found[f.safety] = f.sides === 'person' ? 'yes' : 'both';
    else if (sides.length > 0) found[f.safety] = sides.length === 2 ? 'both' : (sides[0] ?? 'both');
    else if ([...SIDES, 'none' as const].some((s) => at(s) === 'absent')) found[f.safety] = 'no';
  }
  return found;
}

/** Signs that open a gate of the screen although nobody asked: a sign of an injury is one. */
function opened(
  questions: readonly SafetyQuestion[],
  answers: Record<string, SafetyAnswer>,
): Record<string, SafetyAnswer> {
  const gates = questions.flatMap((q) =>
    typeof q.onlyIf === 'string' && answers[q.key] !== undefined && answers[q.key] !== 'no' ? [q.onlyIf] : [],
  );
  return Object.fromEntries(gates.map((g) => [g, 'both' as const]));
}

export interface ReasonedFindings {
  readonly reasoning: Reasoning;
  readonly safety: SafetyState;
}

/** Reasons from a bare list of findings, without a record. Refuses unknown keys and a finding that is both present and absent. */
export function reasonFromFindings(content: FindingsContent, input: FindingsInput): Result<ReasonedFindings> {
  const byKey = new Map(content.findings.map((f) => [f.key, f]));
  const answers = new Map<string, FindingState>();
  const problems = input.findings.flatMap((f, i) => {
    const definition = byKey.get(f.key);
    if (definition === undefined)
      return [issue(`findings.${i}.key`, f.key, 'a finding key, listed by the function content')];
    const id = `${f.key}.${definition.sides === 'person' ? 'none' : f.side}`;
    const held = answers.get(id);
    if (held !== undefined && held !== f.state)
      return [
        issue(
          `findings.${i}.state`,
          f.state,
          `the same as the ${held} given before for this finding and side`,
        ),
      ];
    answers.set(id, f.state);
    return [];
  });
  if (problems.length > 0) return refused(...problems);
  const told = safetyAnswersOf(content.findings, answers);
  const safety = evaluateSafety({
    questions: content.safetyQuestions,
    rules: content.safetyRules,
    answers: { ...opened(content.safetyQuestions, told), ...told },
    affected: 'both',
    ageYears: input.ageYears,
    closures: [],
  });
  const reasoning = reasonAbout(content, {
    answers,
    record: emptyRecord(input.ageYears),
    affected: null,
    daysSinceOnset: input.daysSinceOnset,
    tagsOff: (side) =>
      side === 'none' ? [...safety.tagsOff.left, ...safety.tagsOff.right] : safety.tagsOff[side],
  });
  return ok({ reasoning, safety });
}
