import type { Comparison } from '../measure/definition.js';
import type { Tag } from '../exercise/definition.js';
import type { PainSchool } from '../progress/painRule.js';
import type { Evidence } from '../why/evidence.js';
import type { FootRiskFactor } from './footRisk.js';

export type SafetyLevel = 'emergency' | 'urgent' | 'refer' | 'caution';

/** Something told elsewhere that a no does not go with. */
interface SafetyClash {
  readonly when: Trigger;
  /** How it goes on after "No, yet". */
  readonly words: string;
  /** What is told of how it began is held against the answers of a first visit only. */
  readonly ofOnset?: true;
}

export interface SafetyQuestion {
  readonly key: string;
  readonly text: string;
  /** Lasting facts come pre-filled and are confirmed; acute signs start blank every time. */
  readonly kind: 'acute' | 'lasting';
  readonly scope: 'person' | 'side';
  readonly group: string;
  /** What can be asked, or what must be felt, squeezed or measured; only the latter can be left not tested. */
  readonly how: 'ask' | 'test';
  /** Asked only when this holds; else it is not missing. A danger told all the same still counts. */
  readonly onlyIf?: Trigger;
  /** Where on the body a test is made; every test has one. */
  readonly part?: string;
  /**
   * What makes a test needed where no complaint concerns its part. Without it, it is needed by everyone; nothing is spared
   * while it is not known which parts are concerned.
   */
  readonly neededIf?: Trigger;
  /** What was told elsewhere that a no here does not go with, and how it is said. */
  readonly clashes?: readonly SafetyClash[];
  /** Asked within the story too, where the person tells of it. */
  readonly inStory?: boolean;
  /** What a yes means beside its rules: a foot that cannot take weight starts in the first stage. */
  readonly means?: 'cannot-take-weight';
  /** What of the foot risk class it answers. */
  readonly risk?: FootRiskFactor;
  /** Not asked any more; where an earlier visit answered it, the answer still counts. */
  readonly retired?: boolean;
}

/** A part of the body that is felt, squeezed and measured as one. */
export interface ExaminedPart {
  readonly key: string;
  readonly name: string;
  /** Areas of the drawings that lie on it: pain marked there concerns it. */
  readonly areas: readonly string[];
}

/** `yes` for the person, a side or both for a side question; not tested is neither a yes nor a no. */
export const SAFETY_ANSWERS = ['no', 'yes', 'left', 'right', 'both', 'not-tested'] as const;
export type SafetyAnswer = (typeof SAFETY_ANSWERS)[number];

export type Trigger =
  /** A question answered yes. */
  | string
  | { readonly any: readonly Trigger[] }
  | { readonly all: readonly Trigger[] }
  | { readonly atLeast: number; readonly of: readonly Trigger[] }
  | { readonly ageUnder: number }
  /** At least this old; an unknown age counts as old enough, so that no adult rule is lost. */
  | { readonly ageFrom: number }
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
  | { readonly seen: string }
  /** A clinical finding that is present, however it came to be known. */
  | { readonly finding: string }
  /** A test that has not been answered no: missing, not tested, or positive. */
  | { readonly notCleared: string }
  /** A question answered no, not merely left open. */
  | { readonly answeredNo: string }
  /** What would take the danger away has not been shown. */
  | { readonly without: Trigger };

/** How a sign can be assessed, and whether that is enough to close it. */
export interface ClosingWay {
  readonly key: string;
  readonly label: string;
  readonly clears: boolean;
  /** It closes only where what the surgeon or clinic allows of this side is entered. */
  readonly needsLimits?: true;
}

export interface SafetyRule {
  readonly key: string;
  readonly title: string;
  readonly level: SafetyLevel;
  readonly scope: 'person' | 'side';
  readonly trigger: Trigger;
  /** Tags switched off; `everything` means no plan can be given. */
  readonly off: 'everything' | readonly Tag[];
  /** What to do now, as one plain sentence. */
  readonly action: string;
  /** Blocks the person although it is found on one side. Every emergency does. */
  readonly blocks?: 'person';
  /** The strictest way of judging pain that it allows. */
  readonly school?: PainSchool;
  /** Load goes up by no more than this in a step, and half as often. */
  readonly loadStepPercent?: number;
  /** Tags that are done only with someone beside; not given for home by itself. */
  readonly supervised?: readonly Tag[];
  /** `limits`: off until date, weight-bearing and what is allowed are entered; then exactly what they allow is on. */
  readonly until?: 'limits';
  /** Findings that bear on this sign: all that is asked and tested while it is open. */
  readonly checks?: readonly string[];
  /** Ways to close it; without any, a date, who and the result will do. */
  readonly closes?: readonly ClosingWay[];
  /** What its score is called, and what it says; shown while this question is asked. */
  readonly score?: { readonly name: string; readonly note: string; readonly with: string };
  /** A foot that is active now: while it is open the foot risk class stands above every class. */
  readonly activeFoot?: true;
  readonly evidence: Evidence;
}

/** Something measured, drawn or found that makes a factor of the foot risk class present. */
export interface FootRiskSign {
  readonly factor: FootRiskFactor;
  readonly when: Trigger;
}
