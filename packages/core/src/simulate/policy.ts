import type { Decision, ReviewResult } from '../progress/review.js';
import type { Stage } from '../protocol/definition.js';

/** Who decides: the rules, or something simpler that they are held against. */
export type Policy = 'rules' | 'fixed' | 'calendar' | 'random';

export interface Decided {
  readonly decision: Decision;
  /** Which rule decided; 0 where no rule did. */
  readonly rule: number;
}

const RANDOM: readonly Decision[] = ['progress', 'hold', 'adjust-dose', 'ease-back'];

/**
 * What is decided at a visit. The same dose for ever, the next stage by the calendar (in the middle of its usual weeks), or
 * by lot: what the rules are held against.
 */
export function decide(
  policy: Policy,
  review: ReviewResult,
  stage: Stage,
  { daysInStage, random }: { readonly daysInStage: number; readonly random: () => number },
): Decided {
  if (policy === 'rules') return { decision: review.decision, rule: review.rule };
  if (policy === 'fixed') return { decision: 'hold', rule: 0 };
  if (policy === 'random')
    return { decision: RANDOM[Math.floor(random() * RANDOM.length)] ?? 'hold', rule: 0 };
  const usual = ((stage.usualWeeks.min + stage.usualWeeks.max) / 2) * 7;
  return { decision: daysInStage >= usual ? 'progress' : 'hold', rule: 0 };
}
