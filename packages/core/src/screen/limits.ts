import { TAGS, type Tag } from '../exercise/definition.js';
import type { DayText } from '../quantity/day.js';

export const WEIGHT_BEARING = ['none', 'partial', 'full'] as const;
export type WeightBearing = (typeof WEIGHT_BEARING)[number];

/** What a surgeon or fracture clinic allows of one side. */
export interface Limits {
  readonly what: 'surgery' | 'cast' | 'fracture' | 'other';
  /** Day of the surgery, the injury, or the end of the cast. */
  readonly day: DayText;
  readonly weightBearing: WeightBearing;
  /** Up to how many kg, where it is partial. */
  readonly partialKg: number | null;
  /** Everything else stays off. */
  readonly allowed: readonly Tag[];
  /** Allowed range and anything else, in the words of who said it. */
  readonly text: string;
  readonly by: string;
}

const STANDING: readonly Tag[] = [
  'weight-bearing',
  'push-off',
  'impact',
  'standing-unsupported',
  'single-leg-raise',
  'step-edge',
  'heavy-load',
];
/** Never on part of the weight, whatever was ticked. */
const WHOLE_WEIGHT: readonly Tag[] = STANDING.filter((t) => t !== 'weight-bearing');
const BARRED: Readonly<Record<WeightBearing, readonly Tag[]>> = {
  none: STANDING,
  partial: WHOLE_WEIGHT,
  full: [],
};

/** Tags that stay off under these limits: all but the allowed ones, and none that the weight-bearing status rules out. */
export const offUnder = (limits: Limits): Tag[] =>
  TAGS.filter((t) => !limits.allowed.includes(t) || BARRED[limits.weightBearing].includes(t));

/** What can be allowed at all at a weight-bearing status. */
export const allowable = (status: WeightBearing): Tag[] => TAGS.filter((t) => !BARRED[status].includes(t));
