import type { Affected, Side } from '../quantity/side.js';
import type { Comparison } from '../measure/definition.js';
import type { Sex } from '../measure/norms.js';
import type { Limits, WeightBearing } from '../screen/limits.js';
import type { HomeQuestion } from '../protocol/homeQuestions.js';
import type { DayText } from '../quantity/day.js';
import type { PainState } from './painRule.js';

/** `worst-of-day` and `day` are the same. */
export type PainWhen = 'first-step' | 'before' | 'during' | 'after' | 'next-morning' | 'day' | 'worst-of-day';

/** The plain limit that each side must meet when both are affected and there is no other side to compare with. */
export type AbsoluteTwin = number | { readonly op: Comparison; readonly value: number };

export type CriterionLeaf =
  | {
      readonly measure: string;
      readonly side: 'treated' | 'other' | Side;
      readonly op: Comparison;
      readonly value: number;
      readonly maxAgeDays?: number | undefined;
    }
  /** Treated over other at least `min` %, and treated at least `floor`; with both affected only the floor counts. */
  | {
      readonly symmetry: string;
      readonly min: number;
      readonly floor?: number | undefined;
      readonly maxAgeDays?: number | undefined;
    }
  /** Treated not more than `max` worse than the other; better than the other always passes. */
  | {
      readonly lessThanOther: string;
      readonly max: number;
      readonly bothSides?: AbsoluteTwin | undefined;
      readonly maxAgeDays?: number | undefined;
    }
  /** At least this share (1 is all) of the published median for age and sex. */
  | { readonly atLeastForAge: string; readonly share: number; readonly maxAgeDays?: number | undefined }
  | { readonly sideDifference: string; readonly max: number; readonly maxAgeDays?: number | undefined }
  | { readonly pain: PainWhen; readonly max: number; readonly days: number }
  /** Any question of the home log, on each of the last n days it was answered; yes counts 1 and no 0. */
  | { readonly answer: string; readonly op: Comparison; readonly value: number; readonly days: number }
  /** A number is that many days with at least 3 judged sessions a week. */
  | { readonly noRed: number | { readonly days: number; readonly atLeast: number } }
  | { readonly skill: string; readonly state: string }
  | { readonly adherence: { readonly min: number; readonly days: number } }
  | { readonly minDays: number }
  /** Days since something happened to a treated side. */
  | { readonly daysSince: SinceWhat; readonly min: number }
  /** A question of the home log counted over the last n days, with one that says whether the person exposed themselves. */
  | {
      readonly events: string;
      readonly max: number;
      readonly days: number;
      readonly exposure: { readonly what: string; readonly min: number };
    }
  /** A total has gained so much since it was first taken. */
  | { readonly outcome: string; readonly gain: number }
  | { readonly status: 'weight-bearing'; readonly atLeast: WeightBearing }
  | { readonly noLimp: true }
  /** Contacts, or minutes of running, really done in the last 7 days. */
  | { readonly impact: 'contacts' | 'run-minutes'; readonly min: number; readonly maxPain: number };

export const SINCE_WHAT = ['injury', 'surgery', 'cast', 'fracture'] as const;
export type SinceWhat = (typeof SINCE_WHAT)[number];

export type Criterion =
  | { readonly all: readonly Criterion[] }
  | { readonly any: readonly Criterion[] }
  | { readonly atLeast: number; readonly of: readonly Criterion[] }
  | CriterionLeaf;

/** One value of one measure on one side; `value` null when the person was unable: it counts as the worst value. */
export interface MeasuredFact {
  readonly measure: string;
  readonly side: Side | 'none';
  readonly value: number | null;
  /** ISO 8601. */
  readonly at: string;
  /** How it was taken, where not the measure's usual way; only like is compared with like. */
  readonly method?: string | undefined;
  readonly position?: string | undefined;
  readonly by?: 'another' | 'self' | undefined;
}

/** One logged day. Pain scores 0 to 10, the worse treated side's; left out or null when not answered. */
export interface SessionFact {
  /** ISO 8601 time or day. */
  readonly at: string;
  /** Whether exercises were done that day; a day with only a morning answer is false. True when left out. */
  readonly done?: boolean | undefined;
  readonly state?: PainState | undefined;
  readonly firstStep?: number | null | undefined;
  readonly before?: number | null | undefined;
  readonly during?: number | null | undefined;
  readonly after?: number | null | undefined;
  readonly nextMorning?: number | null | undefined;
  readonly day?: number | null | undefined;
  /** Answers by question of the home log. */
  readonly answers?: Readonly<Record<string, number | boolean | null>> | undefined;
}

export interface Facts {
  readonly measures: readonly MeasuredFact[];
  readonly sessions: readonly SessionFact[];
  /** State of each skill, for both sides at once or per side, e.g. `{ "foot-shortening": "learned" }`. */
  readonly skills: Readonly<Record<string, string | { readonly left?: string; readonly right?: string }>>;
  /** ISO 8601. */
  readonly stageSince: string;
  readonly affected: Affected;
  /** For what is judged against published norms; left out or null when not known. */
  readonly ageYears?: number | null | undefined;
  readonly sex?: Sex | null | undefined;
  /** Questions of the home log, by key. */
  readonly questions?: Readonly<Record<string, Pick<HomeQuestion, 'name' | 'kind'>>> | undefined;
  /** What a surgeon or clinic allows of a side; nothing where nobody has said. */
  readonly limits?: Readonly<Partial<Record<Side, Limits>>> | undefined;
  /** The day of the injury, where it began with one. */
  readonly injuredOn?: DayText | null | undefined;
  /** Impact done by day; pain while doing it, null when not told. */
  readonly impactDone?: readonly ImpactDay[] | undefined;
  /** Sessions planned a week, for adherence. */
  readonly plannedPerWeek?: number | undefined;
}

export interface ImpactDay {
  readonly day: DayText;
  readonly contacts: number;
  readonly runMinutes: number;
  readonly pain: number | null;
}

export type CriterionState = 'met' | 'met-within-error' | 'not-met' | 'not-known';

export interface CriterionPart {
  readonly text: string;
  /** `not-applicable` parts are left out of the whole. */
  readonly state: CriterionState | 'not-applicable';
  readonly because: string;
  /** Another way to the same end is met already, so nobody needs this one. */
  readonly spare?: true;
}

export interface CriteriaResult {
  readonly state: CriterionState;
  readonly parts: readonly CriterionPart[];
}
