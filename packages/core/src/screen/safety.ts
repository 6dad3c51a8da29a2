import { TAGS, type Tag } from '../exercise/definition.js';
import { SIDES, treatedSides, type Affected, type PerSide, type Side } from '../quantity/side.js';
import type { SafetyAnswer, SafetyLevel, SafetyQuestion, SafetyRule, Trigger } from './definition.js';

export interface Closure {
  readonly rule: string;
  readonly side: Side | 'none';
  readonly kind: 'closed' | 'overridden';
  readonly text: string;
}

export interface TriggeredRule {
  readonly rule: SafetyRule;
  readonly side: Side | 'none';
  readonly status: 'open' | 'closed' | 'overridden';
  /** The answers that triggered it, in words. */
  readonly because: readonly string[];
  readonly closure: Closure | null;
}

export interface SafetyState {
  /** Keys of questions without an answer. */
  readonly unanswered: readonly string[];
  readonly triggered: readonly TriggeredRule[];
  /** Tags switched off for each side, by open rules. */
  readonly tagsOff: PerSide<readonly Tag[]>;
  /** Open emergencies and urgents. */
  readonly stops: readonly TriggeredRule[];
  /** Why nothing can be prescribed now; empty when something can. */
  readonly blockedBecause: readonly string[];
}

const LEVEL_ORDER: readonly SafetyLevel[] = ['emergency', 'urgent', 'refer', 'caution'];

/** Emergency and urgent are only ever closed with a result; refer and caution may be overridden with a reason. */
export const canOverride = (level: SafetyLevel): boolean => level === 'refer' || level === 'caution';

type Answers = Readonly<Record<string, SafetyAnswer | undefined>>;

function holds(answer: SafetyAnswer | undefined, side: Side | 'none'): boolean {
  if (answer === undefined || answer === 'no') return false;
  return answer === 'yes' || answer === 'both' || side === 'none' || answer === side;
}

function fires(
  trigger: Trigger,
  answers: Answers,
  side: Side | 'none',
  ageYears: number | null,
  used: string[],
): boolean {
  if (typeof trigger === 'string') {
    const hit = holds(answers[trigger], side);
    if (hit) used.push(trigger);
    return hit;
  }
  if ('ageUnder' in trigger) {
    const hit = ageYears !== null && ageYears < trigger.ageUnder;
    if (hit) used.push(`age ${ageYears}`);
    return hit;
  }
  const parts = 'any' in trigger ? trigger.any : 'all' in trigger ? trigger.all : trigger.of;
  const hits = parts.filter((part) => fires(part, answers, side, ageYears, used)).length;
  const needed = 'any' in trigger ? 1 : 'all' in trigger ? parts.length : trigger.atLeast;
  return hits >= needed;
}

export interface SafetyInput {
  readonly questions: readonly SafetyQuestion[];
  readonly rules: readonly SafetyRule[];
  readonly answers: Answers;
  readonly affected: Affected;
  readonly ageYears: number | null;
  readonly closures: readonly Closure[];
}

function triggeredRules(input: SafetyInput): TriggeredRule[] {
  const textOf = new Map(input.questions.map((q) => [q.key, q.text]));
  return input.rules
    .flatMap((rule) => {
      const sides: readonly (Side | 'none')[] = rule.scope === 'side' ? SIDES : ['none'];
      return sides.flatMap((side): TriggeredRule[] => {
        const used: string[] = [];
        if (!fires(rule.trigger, input.answers, side, input.ageYears, used)) return [];
        const closure =
          input.closures.find(
            (c) => c.rule === rule.key && c.side === side && (c.kind === 'closed' || canOverride(rule.level)),
          ) ?? null;
        const status = closure?.kind ?? 'open';
        return [{ rule, side, status, because: used.map((k) => textOf.get(k) ?? k), closure }];
      });
    })
    .sort((a, b) => LEVEL_ORDER.indexOf(a.rule.level) - LEVEL_ORDER.indexOf(b.rule.level));
}

const offTags = (rule: SafetyRule): readonly Tag[] => (rule.off === 'everything' ? TAGS : rule.off);

/**
 * Evaluates every safety rule on the answers given. Each open rule switches off exactly its tags;
 * an unanswered question blocks prescribing altogether, and is never read as no.
 */
export function evaluateSafety(input: SafetyInput): SafetyState {
  const unanswered = input.questions.filter((q) => input.answers[q.key] === undefined).map((q) => q.key);
  const triggered = triggeredRules(input);
  const open = triggered.filter((t) => t.status === 'open');
  const tagsFor = (side: Side): Tag[] => {
    const off = new Set(
      open.filter((t) => t.side === 'none' || t.side === side).flatMap((t) => [...offTags(t.rule)]),
    );
    return TAGS.filter((tag) => off.has(tag));
  };
  const treated = treatedSides(input.affected);
  const blocking = open.filter(
    (t) =>
      t.rule.off === 'everything' && (t.side === 'none' || treated.length === 0 || treated.includes(t.side)),
  );
  return {
    unanswered,
    triggered,
    tagsOff: { left: tagsFor('left'), right: tagsFor('right') },
    stops: open.filter((t) => t.rule.level === 'emergency' || t.rule.level === 'urgent'),
    blockedBecause: [
      ...(unanswered.length > 0
        ? [`${unanswered.length} safety ${unanswered.length === 1 ? 'answer is' : 'answers are'} missing`]
        : []),
      ...blocking.map((t) => `${t.rule.title}${t.side === 'none' ? '' : `, ${t.side}`}: ${t.rule.action}`),
    ],
  };
}
