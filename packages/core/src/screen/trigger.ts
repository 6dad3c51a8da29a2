import { say } from '../quantity/tongue.js';
import type { Comparison } from '../measure/definition.js';
import { otherSide, SIDES, type PerSide, type Side } from '../quantity/side.js';
import { above, atLeast, shown } from '../quantity/statistics.js';
import type { SafetyAnswer, SafetyRule, Trigger } from './definition.js';

export type SafetyAnswers = Readonly<Record<string, SafetyAnswer | undefined>>;

/** What was measured, marked and found at the visit, so that a sign need not be asked as well. */
export interface SafetyFindings {
  readonly measured: (measure: string, side: Side | 'none') => number | null;
  /** Words for a marked sign on a side, for example which toe; null when it was not marked. */
  readonly seen: (sign: string, side: Side) => string | null;
  /** Words for a clinical finding that is present on a side; null when it is absent or not known. */
  readonly finding?: (key: string, side: Side | 'none') => string | null;
  readonly labelOf: (measure: string) => string;
}

/** Everything a trigger reads. */
export interface Asked {
  readonly answers: SafetyAnswers;
  readonly ageYears: number | null;
  readonly findings: SafetyFindings | null;
}

type Column = Side | 'none';

function holds(answer: SafetyAnswer | undefined, side: Column): boolean {
  if (answer === undefined || answer === 'no' || answer === 'not-tested') return false;
  return answer === 'yes' || answer === 'both' || side === 'none' || answer === side;
}

/** Tested and found absent on this side; an answer for the other foot alone clears this one. */
const cleared = (answer: SafetyAnswer | undefined, side: Column): boolean =>
  answer !== undefined && answer !== 'not-tested' && !holds(answer, side);

const COMPARE: Readonly<Record<Comparison, (a: number, b: number) => boolean>> = {
  '>=': atLeast,
  '>': above,
  '<=': (a, b) => atLeast(b, a),
  '<': (a, b) => above(b, a),
};

type Found = Extract<Trigger, { measured: string } | { seen: string } | { finding: string }>;

/** A sign of a single measured, marked or found thing, in words; null when it is not there. On `none`, either side will do. */
function found(trigger: Found, findings: SafetyFindings, side: Column): string | null {
  if ('finding' in trigger) {
    return findings.finding?.(trigger.finding, side) ?? null;
  }
  const single = 'op' in trigger && findings.measured(trigger.measured, 'none') !== null;
  if (side === 'none' && !single)
    return SIDES.map((s) => found(trigger, findings, s)).find((words) => words !== null) ?? null;
  if ('seen' in trigger) return findings.seen(trigger.seen, side as Side);
  if ('op' in trigger) {
    const value = findings.measured(trigger.measured, side) ?? findings.measured(trigger.measured, 'none');
    const hit = value !== null && COMPARE[trigger.op](value, trigger.value);
    return hit ? `${findings.labelOf(trigger.measured)} ${shown(value)}` : null;
  }
  const here = findings.measured(trigger.measured, side);
  const there = findings.measured(trigger.measured, otherSide(side as Side));
  const hit = here !== null && there !== null && atLeast(here - there, trigger.higherBy);
  return hit
    ? say('{{labelOf}} {{here}} against {{there}}', {
        labelOf: findings.labelOf(trigger.measured),
        here: shown(here),
        there: shown(there),
      })
    : null;
}

/** The sum of the scores whose signs are there on a side. */
function scorePoints(
  trigger: Extract<Trigger, { points: unknown }>,
  asked: Asked,
  side: Column,
  used: string[] = [],
): number {
  return trigger.points.filter((p) => fires(p.when, asked, side, used)).reduce((sum, p) => sum + p.score, 0);
}

/**
 * Whether a trigger holds on a side, or for the person on `none`. What made it hold is added to `used`: question keys, and
 * words for everything else. What is not known never makes a sign hold, and never takes one away.
 */
export function fires(trigger: Trigger, asked: Asked, side: Column, used: string[]): boolean {
  const because: string[] = [];
  const hit = holdsOn(trigger, asked, side, because);
  if (hit) used.push(...because);
  return hit;
}

function holdsOn(trigger: Trigger, asked: Asked, side: Column, used: string[]): boolean {
  if (typeof trigger === 'string') {
    const hit = holds(asked.answers[trigger], side);
    if (hit) used.push(trigger);
    return hit;
  }
  if ('ageUnder' in trigger) {
    const hit = asked.ageYears !== null && asked.ageYears < trigger.ageUnder;
    if (hit) used.push(say('age {{ageYears}}', { ageYears: asked.ageYears }));
    return hit;
  }
  if ('ageFrom' in trigger) return asked.ageYears === null || asked.ageYears >= trigger.ageFrom;
  if ('points' in trigger) return scorePoints(trigger, asked, side, used) >= trigger.sumAtLeast;
  if ('notCleared' in trigger) return !cleared(asked.answers[trigger.notCleared], side);
  if ('answeredNo' in trigger) return cleared(asked.answers[trigger.answeredNo], side);
  if ('without' in trigger) return !fires(trigger.without, asked, side, []);
  if ('measured' in trigger || 'seen' in trigger || 'finding' in trigger) {
    const words = asked.findings === null ? null : found(trigger, asked.findings, side);
    if (words !== null) used.push(words);
    return words !== null;
  }
  const parts = 'any' in trigger ? trigger.any : 'all' in trigger ? trigger.all : trigger.of;
  const hits = parts.filter((part) => fires(part, asked, side, used)).length;
  const needed = 'any' in trigger ? 1 : 'all' in trigger ? parts.length : trigger.atLeast;
  return hits >= needed;
}

/** The scored part of a trigger, however deep; null when it scores nothing. */
function scoredPart(trigger: Trigger): Extract<Trigger, { points: unknown }> | null {
  if (typeof trigger === 'string') return null;
  if ('points' in trigger) return trigger;
  const parts =
    'any' in trigger ? trigger.any : 'all' in trigger ? trigger.all : 'of' in trigger ? trigger.of : [];
  return parts.map(scoredPart).find((p) => p !== null) ?? null;
}

/** Sum of each scoring rule on each side, whatever it comes to. */
export function scoresOf(rules: readonly SafetyRule[], asked: Asked): Record<string, PerSide<number>> {
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
