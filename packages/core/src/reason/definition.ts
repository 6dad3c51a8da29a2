import type { Tag } from '../exercise/definition.js';
import type { Comparison } from '../measure/definition.js';
import type { Evidence } from '../why/evidence.js';

/** Where in a visit a finding is told, seen or tested. */
export type FindingFrom = 'story' | 'look' | 'measure' | 'load' | 'feel' | 'test';

/** The part of the leg or the person a finding or condition belongs to, in the order they are shown. */
export const BODY_PARTS = [
  'heel',
  'achilles',
  'ankle',
  'midfoot',
  'forefoot',
  'big-toe',
  'toes',
  'shin',
  'calf',
  'whole-foot',
  'leg',
  'person',
] as const;
export type BodyPart = (typeof BODY_PARTS)[number];

/** What a visit's record says about one thing, in one side's terms. Three-valued: present, absent, or not known. */
export type Sign =
  /** The side's own value; a single measure counts for both sides. */
  | { readonly measure: string; readonly op: Comparison; readonly value: number }
  /** The side reads less than the other by more than this. */
  | { readonly less: string; readonly by: number }
  /** The side reads more than the other by more than this. */
  | { readonly more: string; readonly by: number }
  /** The side reads under this percentage of the other. */
  | { readonly shareOf: string; readonly under: number }
  /** The side reads worse than this share of what is published for age and sex; the lower of both while the sex is not known. */
  | { readonly underUsual: string; readonly share: number }
  /** One measure of the side exceeds another by at least this. */
  | { readonly gain: string; readonly over: string; readonly atLeast: number }
  /** An answer of the story, one of these words. */
  | { readonly told: string; readonly has: readonly string[] }
  /** Pain was marked on one of these regions of the side. */
  | { readonly marked: readonly string[] }
  | { readonly safety: string }
  | { readonly seen: string }
  /** A support point in one of these tasks is in one of these states. */
  | { readonly point: string; readonly in: readonly string[]; readonly is: readonly string[] }
  | { readonly ageFrom: number }
  | { readonly finding: string }
  /** Absent when the other is present; says nothing else. */
  | { readonly ruledOutBy: Sign }
  | { readonly all: readonly Sign[] }
  | { readonly any: readonly Sign[] }
  /** Different ways to know the same thing: what is known of them decides, present before absent. */
  | { readonly either: readonly Sign[] }
  | { readonly not: Sign };

export type Grade = 'strong' | 'moderate' | 'weak' | 'place' | 'published';

/** How a finding moves one condition. Likelihood ratios above 1 speak for it, below 1 against it. */
export interface Ratio {
  readonly present: number;
  readonly absent: number;
  readonly grade: Grade;
  readonly source: string;
}

/** A drawn foot with where to press, and how to move it; coordinates are those of the named view. */
export interface TestPicture {
  readonly view: 'sole' | 'top' | 'inner' | 'outer' | 'front' | 'back';
  readonly press: readonly (readonly [x: number, y: number])[];
  readonly move: readonly (readonly [x1: number, y1: number, x2: number, y2: number])[];
}

export interface FindingDefinition {
  readonly key: string;
  /** What clinicians call it beside its plain name: terms, abbreviations, eponyms. */
  readonly also?: readonly string[] | undefined;
  readonly name: string;
  /** The question as it is asked, or what to look for. */
  readonly ask: string;
  readonly from: FindingFrom;
  readonly part: BodyPart;
  readonly sides: 'each' | 'person';
  readonly minutes: number;
  /** Findings that say the same thing; of a group only the strongest counts. */
  readonly group: string;
  readonly how: readonly string[];
  readonly picture: TestPicture | null;
  /** What doing it puts on the foot; a safety answer that switches one of these off forbids it. */
  readonly needs: readonly Tag[];
  /** What else in the record sets it; null when it is only ever answered by hand. */
  readonly sign: Sign | null;
  /** Asked only where this is present: no injury, no question about its mechanism. */
  readonly onlyIf: Sign | null;
  /** Pictures in which it is worth more than its minute: nerve, both feet, falls. */
  readonly rises: Sign | null;
  /** Findings that tell of the same thing in another way: only the strongest counts in full, and all together are capped. */
  readonly cluster: string | null;
  /** The safety question that is the same thing; one record for both. */
  readonly safety: string | null;
  /** By key of the condition. */
  readonly ratios: Readonly<Record<string, Ratio>>;
  readonly evidence: Evidence;
}

interface ReferralCriterion {
  readonly when: Sign;
  readonly text: string;
  readonly source: string;
}

export interface ConditionDefinition {
  readonly key: string;
  /** What clinicians call it beside its plain name: terms, abbreviations, eponyms. */
  readonly also?: readonly string[] | undefined;
  readonly name: string;
  readonly gloss: string;
  readonly part: BodyPart;
  readonly scope: 'side' | 'person';
  /** Overlapping conditions are shown once, the strongest of them. */
  readonly family: string | null;
  /** How many of a hundred new patients of a foot and ankle clinic; a starting weight by convention. */
  readonly per100: number;
  /** Multipliers of the starting weight from an age on, youngest first. */
  readonly byAge: readonly { readonly from: number; readonly times: number }[];
  /** Multipliers from so many days since it began. */
  readonly byDays: readonly { readonly from: number; readonly times: number }[];
  /** Not to be missed: with one of these findings it stays in view whatever else speaks against it. */
  readonly keep: readonly string[];
  /** Form or figures alone are no diagnosis: while this is not present it is at most possible. */
  readonly requires: Sign | null;
  /** Conditions it is easily taken for; the next best question looks at these too. */
  readonly likeness: readonly string[];
  readonly care: 'treat' | 'adapt' | 'refer' | 'medical';
  /** Tags that it switches off while it leads, before a safety answer does. */
  readonly holds: readonly Tag[];
  readonly refer: readonly ReferralCriterion[];
  /** The pathway that treats it; null while there is none. */
  readonly pathway: string | null;
  readonly evidence: Evidence;
}

/** What keeps it going. In the table the simpler to change comes first. */
export interface DriverDefinition {
  readonly key: string;
  /** What clinicians call it beside its plain name: terms, abbreviations, eponyms. */
  readonly also?: readonly string[] | undefined;
  readonly label: string;
  readonly gloss: string;
  readonly scope: 'side' | 'person';
  readonly when: Sign;
  /** Adds certainty; while it is not known the driver is possible only. Null when nothing more is needed. */
  readonly surer: Sign | null;
  /** Points to another driver instead, unless what makes it surer is present too. */
  readonly unless: Sign | null;
  /** What it adds to a plan, in words. */
  readonly adds: string;
  /** What the addition puts on the foot; switched off, the driver waits. */
  readonly tags: readonly Tag[];
  readonly evidence: Evidence;
}

/** Everything the reasoning reads. */
export interface ReasonContent {
  readonly findings: readonly FindingDefinition[];
  readonly conditions: readonly ConditionDefinition[];
  readonly drivers: readonly DriverDefinition[];
}
