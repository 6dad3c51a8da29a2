import { LIMP } from './criteriaState.js';
import type { Criterion, CriterionLeaf } from './criteriaTypes.js';

/** Every single criterion of an expression, however deep. */
export function criterionLeaves(criterion: Criterion): readonly CriterionLeaf[] {
  if ('all' in criterion) return criterion.all.flatMap(criterionLeaves);
  if ('any' in criterion) return criterion.any.flatMap(criterionLeaves);
  if ('of' in criterion) return criterion.of.flatMap(criterionLeaves);
  return [criterion];
}

function readBy(leaf: CriterionLeaf): readonly string[] {
  if ('measure' in leaf) return [leaf.measure];
  if ('symmetry' in leaf) return [leaf.symmetry];
  if ('lessThanOther' in leaf) return [leaf.lessThanOther];
  if ('atLeastForAge' in leaf) return [leaf.atLeastForAge];
  if ('outcome' in leaf) return [leaf.outcome];
  if ('noLimp' in leaf) return [LIMP];
  return 'sideDifference' in leaf ? [leaf.sideDifference] : [];
}

/** Measures that an expression reads, each once. */
export const measuresRead = (criterion: Criterion): readonly string[] => [
  ...new Set(criterionLeaves(criterion).flatMap(readBy)),
];
