import type { Comparison } from '../measure/definition.js';
import type { Tag } from '../exercise/definition.js';
import type { Evidence } from '../why/evidence.js';

export type SafetyLevel = 'emergency' | 'urgent' | 'refer' | 'caution';

export interface SafetyQuestion {
  readonly key: string;
  readonly text: string;
  /** Lasting facts come pre-filled and are confirmed; acute signs start blank every time. */
  readonly kind: 'acute' | 'lasting';
  readonly scope: 'person' | 'side';
  readonly group: string;
  /** Asked only when this holds; else it is not missing and its answer counts for nothing. */
  readonly onlyIf?: Trigger;
}

/** `yes` for the person, a side or both for a side question. */
export type SafetyAnswer = 'no' | 'yes' | 'left' | 'right' | 'both';

export type Trigger =
  | string
  | { readonly any: readonly Trigger[] }
  | { readonly all: readonly Trigger[] }
  | { readonly atLeast: number; readonly of: readonly Trigger[] }
  | { readonly ageUnder: number }
  /** Scored signs, added up. */
  | {
      readonly points: readonly { readonly when: Trigger; readonly score: number }[];
      readonly sumAtLeast: number;
    }
  /** A measured value on the side asked about. */
  | { readonly measured: string; readonly op: Comparison; readonly value: number }
  /** The side asked about reads higher than the other by this much. */
  | { readonly higherBy: number; readonly than: 'other-side'; readonly measured: string }
  /** Something seen and marked on the drawings. */
  | { readonly seen: string };

export interface SafetyRule {
  readonly key: string;
  readonly title: string;
  readonly level: SafetyLevel;
  readonly scope: 'person' | 'side';
  readonly trigger: Trigger;
  /** Tags switched off; `everything` means no plan can be given. */
  readonly off: 'everything' | readonly Tag[];
  readonly action: string;
  readonly evidence: Evidence;
}
