import type { Affected, PerSide, Side } from '../quantity/side.js';
import { SIDES } from '../quantity/side.js';
import type { FootRiskSign, SafetyAnswer, SafetyQuestion, SafetyRule } from '../screen/definition.js';
import type { Limits } from '../screen/limits.js';
import { type Closure, evaluateSafety, type SafetyState } from '../screen/safety.js';
import type { SafetyAnswers } from '../screen/trigger.js';
import type { FindingDefinition } from './definition.js';
import { type FindingState, Known } from './known.js';
import type { OpenSign } from './next.js';
import type { Column, SignSource } from './sign.js';

export interface ScreenContent {
  readonly findings: readonly FindingDefinition[];
  readonly safetyQuestions: readonly SafetyQuestion[];
  readonly safetyRules: readonly SafetyRule[];
  readonly footRisk?: readonly FootRiskSign[];
}

/** The record as far as it does not come from the safety answers themselves. */
export type ScreenRecord = Omit<SignSource, 'finding' | 'safety'>;

export interface ScreenInput {
  readonly answers: SafetyAnswers;
  /** Questions answered today; all of `answers` when left out. */
  readonly answered?: ReadonlySet<string>;
  /** Findings answered by hand, by `key.side`. */
  readonly found: ReadonlyMap<string, FindingState>;
  readonly record: ScreenRecord;
  readonly affected: Affected;
  /** Whether it is asked for the first time. */
  readonly firstVisit?: boolean;
  /** Parts of the body that are concerned; left out where that is not known. */
  readonly concerned?: ReadonlySet<string>;
  readonly closures: readonly Closure[];
  readonly limits?: Partial<PerSide<Limits>>;
  readonly labelOf: (measure: string) => string;
}

/** Open emergencies and urgents with what checks them, for the reasoning. */
export const openSigns = (safety: SafetyState): OpenSign[] =>
  safety.stops.map((t) => ({ title: t.rule.title, side: t.side, checks: t.rule.checks ?? [] }));

/** Whether a safety answer is a yes on a side; null where it is not a yes or a no. */
export function answerOn(answer: SafetyAnswer | undefined, side: Column): boolean | null {
  if (answer === undefined || answer === 'not-tested') return null;
  if (answer === 'no') return false;
  return side === 'none' || answer === 'yes' || answer === 'both' || answer === side;
}

/** The safety answers that findings are, by question. Not tested is an answer of its own, and no no. */
export function safetyAnswersOf(
  definitions: readonly FindingDefinition[],
  answers: ReadonlyMap<string, FindingState>,
): Record<string, SafetyAnswer> {
  const found: Record<string, SafetyAnswer> = {};
  for (const f of definitions) {
    if (f.safety === null) continue;
    const at = (side: Column) => answers.get(`${f.key}.${side}`);
    const columns: readonly Column[] = [...SIDES, 'none'];
    const sides = SIDES.filter((s) => at(s) === 'present');
    if (at('none') === 'present') found[f.safety] = f.sides === 'person' ? 'yes' : 'both';
    else if (sides.length > 0) found[f.safety] = sides.length === 2 ? 'both' : (sides[0] ?? 'both');
    else if (columns.some((s) => at(s) === 'absent')) found[f.safety] ??= 'no';
    else if (columns.some((s) => at(s) === 'not-tested')) found[f.safety] ??= 'not-tested';
  }
  return found;
}

const sidesIn = (answer: SafetyAnswer | undefined): readonly (Side | 'none')[] =>
  answer === 'yes' ? ['none'] : SIDES.filter((s) => answer === s || answer === 'both');

/** One answer from two ways of telling the same thing: a yes on any side stands, whichever way it came. */
function together(a: SafetyAnswer | undefined, b: SafetyAnswer | undefined): SafetyAnswer | undefined {
  const told = new Set([...sidesIn(a), ...sidesIn(b)]);
  if (told.has('none')) return 'yes';
  if (told.size === 2) return 'both';
  const [side] = told;
  if (side !== undefined && side !== 'none') return side;
  return a === 'no' || b === 'no' ? 'no' : (a ?? b);
}

/**
 * The safety of everything a record says: answers, measures, drawings and findings are one truth, so that a danger counts
 * whichever way it was told.
 */
export function screenRecord(content: ScreenContent, input: ScreenInput): SafetyState {
  const byFinding = safetyAnswersOf(content.findings, input.found);
  const keys = new Set([...Object.keys(input.answers), ...Object.keys(byFinding)]);
  const answers = Object.fromEntries(
    [...keys].map((k) => [k, together(input.answers[k], byFinding[k])] as const),
  );
  const known = new Known(content.findings, input.found, {
    ...input.record,
    safety: (question, side) => answerOn(answers[question], side),
  });
  const worded = (key: string, side: Column): string | null => {
    const at = known.at(key, side);
    if (at.state !== 'present') return null;
    return known.byKey.get(key)?.name ?? key;
  };
  return evaluateSafety({
    questions: content.safetyQuestions,
    rules: content.safetyRules,
    ...(content.footRisk === undefined ? {} : { footRisk: content.footRisk }),
    answers,
    ...(input.answered === undefined
      ? {}
      : { answered: new Set([...input.answered, ...Object.keys(byFinding)]) }),
    affected: input.affected,
    ...(input.firstVisit === undefined ? {} : { firstVisit: input.firstVisit }),
    ...(input.concerned === undefined ? {} : { concerned: input.concerned }),
    ageYears: input.record.ageYears,
    closures: input.closures,
    ...(input.limits === undefined ? {} : { limits: input.limits }),
    findings: {
      measured: input.record.measured,
      seen: (sign, side) => {
        const words = input.record.seen(sign, side);
        return words === false ? null : words;
      },
      finding: worded,
      labelOf: input.labelOf,
    },
  });
}
