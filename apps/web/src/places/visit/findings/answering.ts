import type { Column, FindingDefinition, FindingState, SafetyAnswer } from '@heathstep/core';
import type { LiveVisit } from '../live.js';

const SIDED: readonly SafetyAnswer[] = ['left', 'right'];

/** A side's answer put into a safety question's one answer for both sides. */
export function sidedAnswer(held: SafetyAnswer | null, side: Column, present: boolean): SafetyAnswer {
  if (side === 'none') return present ? 'yes' : 'no';
  const on = new Set(held === 'both' || held === 'yes' ? ['left', 'right'] : SIDED.filter((s) => s === held));
  if (present) on.add(side);
  else on.delete(side);
  if (on.size === 2) return 'both';
  return on.has('left') ? 'left' : on.has('right') ? 'right' : 'no';
}

/** Keeps an answer: where the finding is a safety question, that is what is answered. Null takes it back. */
export function answerFinding(
  live: LiveVisit,
  finding: FindingDefinition,
  side: Column,
  state: FindingState | null,
): void {
  const key = `finding.${finding.key}.${side}`;
  if (finding.safety === null || state === 'not-tested') {
    live.store.set(key, state);
    return;
  }
  const question = `safety.${finding.safety}`;
  const held = live.store.get(question) as SafetyAnswer | null;
  const answer = state === null ? null : sidedAnswer(held, side, state === 'present');
  live.store.setMany([
    [question, answer],
    [key, null],
  ]);
}
