import type { ConditionDefinition } from './definition.js';
import type { Known } from './known.js';
import type { RankedCondition } from './rank.js';
import type { Column } from './sign.js';

export interface ReferralReason {
  readonly condition: string;
  readonly name: string;
  readonly side: Column;
  readonly text: string;
  readonly because: readonly string[];
  readonly source: string;
}

const SEEN = new Set(['leading', 'likely', 'possible']);

/** Why someone else should see this: each criterion that holds, of every condition that is at least possible. */
export function referralReasons(
  conditions: readonly ConditionDefinition[],
  ranked: readonly RankedCondition[],
  known: Known,
): ReferralReason[] {
  return ranked
    .filter((r) => SEEN.has(r.rank))
    .flatMap((r) => {
      const definition = conditions.find((c) => c.key === r.key);
      return (definition?.refer ?? []).flatMap((criterion): ReferralReason[] => {
        const sign = known.readSign(criterion.when, r.side);
        if (sign.state !== 'present') return [];
        const { text, source } = criterion;
        return [
          {
            condition: r.key,
            name: definition?.name ?? r.key,
            side: r.side,
            text,
            because: sign.because,
            source,
          },
        ];
      });
    });
}
