import type { Affected, Column, FindingState, Limits, SafetyAnswer, Side, SkillLevel } from '@heathstep/core';
import type {
  CallusArea,
  NumbEntry,
  PointsEntry,
  Pose,
  TenderEntry,
  Toe,
  ToeEntry,
  WearArea,
} from '../look.js';

export interface MeasureEntry {
  /** Values in the measure's unit; null for a trial not taken. */
  readonly trials: readonly (number | null)[];
  readonly status: 'taken' | 'not-done' | 'unable' | 'stopped-by-pain';
  readonly pain: number | null;
  /** An unusual reading that was asked about and confirmed. */
  readonly confirmed?: boolean;
  /** Some of it came from a simulated device: it is no measurement. */
  readonly simulated?: boolean;
  /** How it was taken, where not the measure's usual way. */
  readonly method?: string;
  readonly position?: string;
  readonly by?: 'another' | 'self';
  /** Named parts: the scores of its items, or the lever arm in cm. */
  readonly parts?: Readonly<Record<string, number>>;
  /** Taken again within the visit, after an exercise was tried. */
  readonly again?: { readonly trials: readonly (number | null)[]; readonly pain: number | null };
  /** Why it was not done. */
  readonly reason?: string;
  /** The capture of the lab it was worked out from, by its id. */
  readonly capture?: string;
}

/** One idea of what it is, as the clinician judged it; the record of a visit's conclusion. */
export interface ConcludedIdea {
  readonly condition: string;
  readonly side: Column;
  readonly verdict: 'agreed' | 'added' | 'rejected';
  /** The one that is treated first. */
  readonly leads: boolean;
  /** Required for a rejected one. */
  readonly reason: string | null;
}

/** Something the person cannot do well, 0 cannot at all to 10 as before; null while it is not scored. */
export interface Activity {
  readonly text: string;
  readonly ability: number | null;
}

/** Entries with a key of their own. */
export interface NamedEntries {
  'story.side': Exclude<Affected, 'none'>;
  /** `left:REGION` or `right:REGION`. */
  'story.regions': readonly string[];
  'story.onset': 'gradual' | 'sudden' | 'injury';
  'story.since':
    | 'under-2-weeks'
    | '2-to-6-weeks'
    | '6-weeks-to-3-months'
    | '3-to-6-months'
    | '6-to-12-months'
    | 'over-a-year';
  'story.days': number;
  'story.worst': number;
  'story.now': number;
  'story.provoked': boolean;
  /** Minutes. */
  'story.settles': number;
  'story.night': boolean;
  'story.load-change': readonly string[];
  'story.character': readonly string[];
  'story.worse-when': readonly string[];
  'story.activities': readonly Activity[];
  'story.goal': string;
  /** Measures added to what this visit wants. */
  'visit.measures': readonly string[];
  'conclude.condition': 'agree' | 'other' | 'open';
  'conclude.ideas': readonly ConcludedIdea[];
  'conclude.other': string;
  'conclude.stage': string;
  'conclude.stage-reason': string;
  /** Letters as the clinician left them; none while they are as prepared. */
  'letter.safety': string;
  'letter.conclude': string;
}

/** Steps that may be left out with a reason. */
export type SkippableStep = 'story' | 'safety' | 'look' | 'measure' | 'load' | 'feel';

/** Entries whose keys name something of the content, a side or a step: what each kind holds. */
export interface EntryKindValues {
  safety: SafetyAnswer;
  measure: MeasureEntry;
  finding: FindingState;
  skill: SkillLevel;
  limits: Limits;
  numb: NumbEntry;
  tender: readonly TenderEntry[];
  toes: Readonly<Partial<Record<Toe, ToeEntry>>>;
  wear: readonly WearArea[];
  callus: readonly CallusArea[];
  points: PointsEntry;
  skip: string;
  untested: string;
  note: string;
}

/** The keys of each kind. */
interface KindKeys {
  safety: `safety.${string}`;
  measure: `measure.${string}.${Column}`;
  finding: `finding.${string}.${Column}`;
  skill: `skill.${string}.${Side}`;
  limits: `limits.${Side}`;
  numb: `look.numb.${Side}`;
  tender: `look.tender.${Side}`;
  toes: `look.toes.${Side}`;
  wear: `look.wear.${Side}`;
  callus: `look.callus.${Side}`;
  points: `look.points.${Pose}.${Side}`;
  skip: `skip.${SkippableStep}`;
  untested: `untested.${string}`;
  note: `note.${string}`;
}

export type EntryKind = keyof EntryKindValues;
export type NamedKey = keyof NamedEntries;
export type EntryKey = NamedKey | KindKeys[EntryKind];

type KindOf<K extends string> = { [N in EntryKind]: K extends KindKeys[N] ? N : never }[EntryKind];

/** What an entry holds, by its key. */
export type EntryValue<K extends EntryKey> = K extends NamedKey
  ? NamedEntries[K]
  : KindOf<K> extends infer N extends EntryKind
    ? EntryKindValues[N]
    : never;

/** Current values of a visit's entries; nothing cleared is among them. */
export interface Entries extends Iterable<readonly [key: string, value: unknown]> {
  get: <K extends EntryKey>(key: K) => EntryValue<K> | undefined;
  has: (key: EntryKey) => boolean;
}

/** Entries from keys and values that were checked when they were taken. */
export const asEntries = (values: Iterable<readonly [key: string, value: unknown]>): Entries =>
  new Map(values) as unknown as Entries;
