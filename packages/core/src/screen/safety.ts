import { TAGS, type Tag } from '../exercise/definition.js';
import type { Comparison } from '../measure/definition.js';
import { otherSide, SIDES, treatedSides, type Affected, type PerSide, type Side } from '../quantity/side.js';
import { above, atLeast, shown } from '../quantity/statistics.js';
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
  /** Keys of the questions that are asked, gates passed. */
  readonly asked: readonly string[];
  /** Keys of asked questions without an answer. */
  readonly unanswered: readonly string[];
  readonly triggered: readonly TriggeredRule[];
  /** Sum of each scoring rule on each side, whatever it comes to. */
  readonly scores: Readonly<Record<string, PerSide<number>>>;
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

/** What was measured and marked at the visit, so that a sign need not be asked as well. */
export interface SafetyFindings {
  readonly measured: (measure: string, side: Side | 'none') => number | null;
  /** Words for a marked sign on a side, for example which toe; null when it was not marked. */
  readonly seen: (sign: string, side: Side) => string | null;
  readonly labelOf: (measure: string) => string;
}

interface Asked {
  readonly answers: Answers;
  readonly ageYears: number | null;
  readonly findings: SafetyFindings | null;
}

function holds(answer: SafetyAnswer | undefined, side: Side | 'none'): boolean {
  if (answer === undefined || answer === 'no') return false;
  return answer === 'yes' || answer === 'both' || side === 'none' || answer === side;
}

const COMPARE: Readonly<Record<Comparison, (a: number, b: number) => boolean>> = {
  '>=': atLeast,
  '>': above,
  '<=': (a, b) => atLeast(b, a),
  '<': (a, b) => above(b, a),
};

/** A sign of a single measured or seen thing. On `none`, either side will do. */
function found(trigger: Trigger, asked: Asked, side: Side | 'none', used: string[]): boolean {
  const { findings } = asked;
  if (findings === null || typeof trigger === 'string') return false;
  if (side === 'none' && !('op' in trigger && findings.measured(trigger.measured, 'none') !== null))
    return SIDES.map((s) => found(trigger, asked, s, used)).includes(true);
  if ('seen' in trigger) {
    const words = findings.seen(trigger.seen, side as Side);
    if (words !== null) used.push(words);
    return words !== null;
  }
  if ('op' in trigger) {
    const value = findings.measured(trigger.measured, side) ?? findings.measured(trigger.measured, 'none');
    const hit = value !== null && COMPARE[trigger.op](value, trigger.value);
    if (hit) used.push(`${findings.labelOf(trigger.measured)} ${shown(value)}`);
    return hit;
  }
  if ('than' in trigger) {
    const here = findings.measured(trigger.measured, side);
    const there = findings.measured(trigger.measured, otherSide(side as Side));
    const hit = here !== null && there !== null && atLeast(here - there, trigger.higherBy);
    if (hit) used.push(`${findings.labelOf(trigger.measured)} ${shown(here)} against ${shown(there)}`);
    return hit;
  }
  return false;
}

/** The sum of the scores whose signs are there on a side. */
function scorePoints(
  trigger: Extract<Trigger, { points: unknown }>,
  asked: Asked,
  side: Side | 'none',
  used: string[] = [],
): number {
  return trigger.points.filter((p) => fires(p.when, asked, side, used)).reduce((sum, p) => sum + p.score, 0);
}

function fires(trigger: Trigger, asked: Asked, side: Side | 'none', used: string[]): boolean {
  if (typeof trigger === 'string') {
    const hit = holds(asked.answers[trigger], side);
    if (hit) used.push(trigger);
    return hit;
  }
  if ('ageUnder' in trigger) {
    const hit = asked.ageYears !== null && asked.ageYears < trigger.ageUnder;
    if (hit) used.push(`age ${asked.ageYears}`);
    return hit;
  }
  if ('points' in trigger) return scorePoints(trigger, asked, side, used) >= trigger.sumAtLeast;
  if ('measured' in trigger || 'seen' in trigger) return found(trigger, asked, side, used);
  const parts = 'any' in trigger ? trigger.any : 'all' in trigger ? trigger.all : trigger.of;
  const hits = parts.filter((part) => fires(part, asked, side, used)).length;
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
  /** Left out where nothing was measured yet. */
  readonly findings?: SafetyFindings;
}

/** The questions that are asked of this person now, gates passed. */
function askedOf(input: SafetyInput): { questions: readonly SafetyQuestion[]; asked: Asked } {
  const findings = input.findings ?? null;
  const all: Asked = { answers: input.answers, ageYears: input.ageYears, findings };
  const open = (q: SafetyQuestion) => q.onlyIf === undefined || fires(q.onlyIf, all, 'none', []);
  const questions = input.questions.filter(open);
  const keys = new Set(questions.map((q) => q.key));
  const answers = Object.fromEntries(Object.entries(input.answers).filter(([k]) => keys.has(k)));
  return { questions, asked: { ...all, answers } };
}

function triggeredRules(input: SafetyInput, asked: Asked): TriggeredRule[] {
  const textOf = new Map(input.questions.map((q) => [q.key, q.text]));
  return input.rules
    .flatMap((rule) => {
      const sides: readonly (Side | 'none')[] = rule.scope === 'side' ? SIDES : ['none'];
      return sides.flatMap((side): TriggeredRule[] => {
        const used: string[] = [];
        if (!fires(rule.trigger, asked, side, used)) return [];
        const closure =
          input.closures.find(
            (c) => c.rule === rule.key && c.side === side && (c.kind === 'closed' || canOverride(rule.level)),
          ) ?? null;
        const status = closure?.kind ?? 'open';
        return [{ rule, side, status, because: [...new Set(used)].map((k) => textOf.get(k) ?? k), closure }];
      });
    })
    .sort((a, b) => LEVEL_ORDER.indexOf(a.rule.level) - LEVEL_ORDER.indexOf(b.rule.level));
}

/** The scored part of a trigger, however deep; null when it scores nothing. */
function scoredPart(trigger: Trigger): Extract<Trigger, { points: unknown }> | null {
  if (typeof trigger === 'string') return null;
  if ('points' in trigger) return trigger;
  const parts =
    'any' in trigger ? trigger.any : 'all' in trigger ? trigger.all : 'of' in trigger ? trigger.of : [];
  return parts.map(scoredPart).find((p) => p !== null) ?? null;
}

function scoresOf(rules: readonly SafetyRule[], asked: Asked): SafetyState['scores'] {
  return Object.fromEntries(
    rules.flatMap((rule) => {
      const scored = scoredPart(rule.trigger);
      if (scored === null) return [];
      return [
        [rule.key, { left: scorePoints(scored, asked, 'left'), right: scorePoints(scored, asked, 'right') }],
      ];
    }),
  );
}

const offTags = (rule: SafetyRule): readonly Tag[] => (rule.off === 'everything' ? TAGS : rule.off);

/**
 * Evaluates every safety rule on the answers given. Each open rule switches off exactly its tags;
 * an unanswered question blocks prescribing altogether, and is never read as no.
 */
export function evaluateSafety(input: SafetyInput): SafetyState {
  const { questions, asked } = askedOf(input);
  const unanswered = questions.filter((q) => input.answers[q.key] === undefined).map((q) => q.key);
  const triggered = triggeredRules(input, asked);
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
    asked: questions.map((q) => q.key),
    unanswered,
    triggered,
    scores: scoresOf(input.rules, asked),
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
