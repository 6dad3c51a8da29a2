import { LIMP } from '../progress/criteriaState.js';
import type { Criterion } from '../progress/criteriaTypes.js';

/** Measures that a criterion reads. */
export const measuresIn = (criterion: Criterion | null): string[] => {
  if (criterion === null) return [];
  if ('all' in criterion) return criterion.all.flatMap(measuresIn);
  if ('any' in criterion) return criterion.any.flatMap(measuresIn);
  if ('of' in criterion) return criterion.of.flatMap(measuresIn);
  if ('noLimp' in criterion) return [LIMP];
  const named = criterion as Readonly<Record<string, unknown>>;
  return ['measure', 'symmetry', 'lessThanOther', 'atLeastForAge', 'sideDifference', 'outcome'].flatMap((k) =>
    typeof named[k] === 'string' ? [named[k]] : [],
  );
};
