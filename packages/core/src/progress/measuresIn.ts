import { leavesOf } from '../forecast/criteria.js';
import { LIMP } from './criteriaState.js';
import type { Criterion } from './criteriaTypes.js';

const NAMED = ['measure', 'symmetry', 'lessThanOther', 'atLeastForAge', 'sideDifference', 'outcome'] as const;

/** Measures that a criterion reads. */
export const measuresIn = (criterion: Criterion | null): string[] =>
  criterion === null
    ? []
    : leavesOf(criterion).flatMap((leaf) => {
        if ('noLimp' in leaf) return [LIMP];
        const named = leaf as Readonly<Record<string, unknown>>;
        return NAMED.flatMap((k) => (typeof named[k] === 'string' ? [named[k]] : []));
      });
