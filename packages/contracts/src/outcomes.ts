import type { StageKey } from '@heathstep/core';
import type { Outcome } from './episode.js';

/** Of fewer people than this nothing is told: one could be picked out. [convention] */
export const FEWEST_PEOPLE = 5;

/** A change of so many points of 10 matters to patients, for pain and for own activities. [convention] */
export const MATTERS = 2;

/** A distribution: the middle, and the quarter below and above. */
export interface Quartiles {
  readonly low: number;
  readonly middle: number;
  readonly high: number;
}

/** How many it is made of, and the distribution; null of fewer than five. */
export interface Spread {
  readonly n: number;
  readonly spread: Quartiles | null;
}

/** A distribution of changes, and of whom it is a change that matters for the better, in percent; null of fewer than five. */
export interface ChangeSpread extends Spread {
  readonly betterPercent: number | null;
}

/** Decisions that went one way about the rules, and what came next. */
export interface DecisionsOf {
  readonly n: number;
  /** Followed by another decision. */
  readonly followed: number;
  /** That next decision eased back or referred, in percent of those followed; null of fewer than five. */
  readonly worsePercent: number | null;
}

/** What became of the people on one version of a protocol. */
export interface ProtocolOutcomes {
  readonly protocol: string;
  readonly name: string;
  readonly version: number;
  readonly people: number;
  readonly stages: readonly {
    readonly stage: StageKey;
    readonly name: string;
    readonly usualWeeks: { readonly min: number; readonly max: number };
    /** Weeks in it, of those who have left it. */
    readonly weeks: Spread;
  }[];
  /** Worst pain told at the last signed visit less that of the first, 0 to 10. */
  readonly painChange: ChangeSpread;
  /** The same of own activities, the mean of those scored; more is better. */
  readonly functionChange: ChangeSpread;
  /** Flares that came to a decision, for each 100 days at home; null of fewer than five people. */
  readonly flaresPer100Days: number | null;
  /** How many came back after they were closed; null of fewer than five, 0 where nobody did. */
  readonly cameBack: number | null;
  readonly agreed: DecisionsOf;
  readonly otherwise: DecisionsOf;
  /** How it ended; null of fewer than five. */
  readonly ended: readonly { readonly outcome: Outcome; readonly n: number | null }[];
  /** Days with something logged, of the last 28 since there was a plan, in percent; null of fewer than five people. */
  readonly loggedPercent: number | null;
}

export interface OutcomesView {
  readonly protocols: readonly ProtocolOutcomes[];
}

/** Who stands behind the numbers of a protocol. */
export interface OutcomePerson {
  readonly personId: string;
  readonly episodeId: string;
  readonly name: string;
  readonly stageName: string | null;
  readonly status: 'open' | 'closed';
}
