import {
  type Column,
  type FindingDefinition,
  type FindingState,
  otherSide,
  type SafetyAnswer,
} from '@heathstep/core';
import type { Change, EntryStore } from '../../../api/entryStore.js';
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

/**
 * What an answer changes. Where the finding is a safety question that question is answered; but one side found free of
 * it never answers for the other: until both are, the side's own answer stands and the question stays open. Null takes
 * the answer back, and leaves a sign of the other side standing.
 */
export function changesFor(
  finding: Pick<FindingDefinition, 'key' | 'safety'>,
  side: Column,
  state: FindingState | null,
  get: EntryStore['get'],
): Change[] {
  const key = `finding.${finding.key}.${side}` as const;
  if (finding.safety === null || state === 'not-tested') return [[key, state]];
  const question = `safety.${finding.safety}` as const;
  const held = get(question);
  if (state === null) {
    const kept = held === 'both' && side !== 'none' ? sidedAnswer(held, side, false) : null;
    return [
      [question, kept],
      [key, null],
    ];
  }
  if (state === 'absent' && held === null && side !== 'none') {
    const other = `finding.${finding.key}.${otherSide(side)}` as const;
    if (get(other) !== 'absent') return [[key, 'absent']];
    return [
      [question, 'no'],
      [key, null],
      [other, null],
    ];
  }
  return [
    [question, sidedAnswer(held, side, state === 'present')],
    [key, null],
  ];
}

/** Keeps an answer, so that one undo takes it back whole. */
export function answerFinding(
  live: LiveVisit,
  finding: FindingDefinition,
  side: Column,
  state: FindingState | null,
): void {
  live.store.setMany(changesFor(finding, side, state, (key) => live.store.get(key)));
}
