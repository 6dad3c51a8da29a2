import type { Tag } from '../exercise/definition.js';
import type { LabTask } from '../lab/task.js';
import type { RecordingKind } from '../recording/recording.js';
import type { Evidence } from '../why/evidence.js';

export type Direction = 'more' | 'less' | 'target';
export type Combine = 'mean' | 'best' | 'last' | 'worst';

export interface Range {
  readonly min: number;
  readonly max: number;
}

/** When two sides are far enough apart to matter, each measure by its own rule. */
export type SideFlag =
  | { readonly kind: 'difference'; readonly op: '>' | '>='; readonly value: number; readonly source: string }
  | { readonly kind: 'symmetry'; readonly below: number; readonly source: string };

export interface Threshold {
  readonly key: string;
  readonly op: Comparison;
  readonly value: number;
  readonly meaning: string;
  readonly source: string;
  /** How schools that differ read it, each in a sentence; left out where they do not. */
  readonly readings?: readonly { readonly school: string; readonly text: string }[];
}

export type Comparison = '>=' | '>' | '<=' | '<';

/** Where in a visit a measure is taken. */
export type MeasureStep = 'story' | 'look' | 'measure' | 'load' | 'feel';

/** What helps to take it, built into the entry field. */
export type MeasureTool =
  | { readonly kind: 'stopwatch'; readonly capSeconds: number }
  | {
      readonly kind: 'metronome';
      readonly beatsPerMinute: number;
      /** Faults that are marked while counting, and how many end the count. */
      readonly faults: readonly string[];
      readonly stopAtFaults: number;
    }
  | { readonly kind: 'sit-to-stand'; readonly target: number }
  | { readonly kind: 'interval'; readonly workSeconds: number; readonly restSeconds: number }
  | { readonly kind: 'items'; readonly items: readonly ScoredItem[] };

/** One scored item of a measure that adds up. */
export interface ScoredItem {
  readonly key: string;
  readonly label: string;
  readonly low: string;
  readonly high: string;
  readonly min: number;
  readonly max: number;
}

export type DeviceKind = 'inclinometer' | 'dynamometer' | 'thermometer';

/** A quantity of a capture that is a measure. */
export interface LabSource {
  readonly instrument: RecordingKind;
  readonly task: LabTask;
  readonly quantity: string;
  /** One of the methods of the measure. */
  readonly method: string;
  /** Where a capture of both feet is another position than that of one: which. */
  readonly both?: string;
}

/** A measure worked out from others rather than taken. */
export type ComputedRule =
  | 'difference'
  | 'ratio'
  | 'change-percent'
  | 'reach-composite'
  | 'arch-stiffness'
  | 'torque-per-kg'
  | 'sites-felt'
  | 'ability-mean';

/** A clinical measure as data. Values are comparable only within one measure, method, position and taker. */
export interface MeasureDefinition {
  readonly key: string;
  /** What clinicians call it beside its plain name: terms, abbreviations, eponyms. */
  readonly also?: readonly string[] | undefined;
  readonly label: string;
  /** How it is taken, in a few words under the label. */
  readonly brief: string;
  readonly region: string;
  readonly step: MeasureStep;
  /** Short names the quick line understands besides the key; lower case. */
  readonly aliases: readonly string[];
  readonly sides: 'each' | 'single';
  readonly unit: string;
  /** Unit as written beside a figure; empty for a count or index. */
  readonly unitLabel: string;
  readonly decimals: number;
  /** Outside this a reading is impossible and refused. */
  readonly allowed: Range;
  /** Outside this a reading is asked about once. */
  readonly usual: Range;
  readonly trials: { readonly count: number; readonly combine: Combine };
  readonly direction: Direction;
  /** For `target`: the band in which no value is better than another. For others: what is wanted, drawn behind the bars. */
  readonly band: Range | null;
  /** Signed or target scales have no meaningful ratio between sides. */
  readonly scale: 'ratio' | 'signed';
  /** Minimal detectable change at 95 %, absolute or in % of the mean of the two values, by method where they differ; null when not known. */
  readonly error:
    | { readonly mdc: number; readonly byMethod?: Readonly<Record<string, number>>; readonly source: string }
    | {
        readonly mdcPercent: number;
        readonly byMethod?: Readonly<Record<string, number>>;
        readonly source: string;
      }
    | null;
  /** A change that matters to patients, where published: absolute or relative, whichever comes first. */
  readonly important: {
    readonly absolute: number;
    readonly percent: number | null;
    readonly source: string;
  } | null;
  readonly sideFlag: SideFlag | null;
  readonly thresholds: readonly Threshold[];
  readonly method: readonly string[];
  /** How it can be taken; the first is the usual one. Values of different methods are never compared. */
  readonly methods: readonly string[];
  /** Positions it can be taken in; the first is the usual one. Values of different positions are never compared. */
  readonly positions: readonly string[];
  /** Key of the drawn setup, where position matters. */
  readonly setup: string | null;
  readonly tool: MeasureTool | null;
  readonly device: DeviceKind | null;
  /** Construction of the photo tool that gives this measure. */
  readonly photo: string | null;
  /** Captures of the lab that give this measure, and as which of its methods. */
  readonly lab: readonly LabSource[];
  /** Named values, for measures that are chosen rather than read. */
  readonly levels: readonly { readonly value: number; readonly word: string }[] | null;
  readonly computed: { readonly rule: ComputedRule; readonly from: readonly string[] } | null;
  /** What is usual from an age on, youngest first; null when it does not fall with age. */
  readonly byAge: {
    readonly bands: readonly { readonly from: number; readonly value: number }[];
    readonly source: string;
  } | null;
  /** Published medians from an age on, by sex, youngest first; left out where none are known. */
  readonly norms?: {
    readonly bands: readonly { readonly from: number; readonly female: number; readonly male: number }[];
    readonly source: string;
  };
  /** Pain is not asked beside it: it is pain, or nothing that can hurt. */
  readonly painless: boolean;
  /** The answer of the story that is the same thing: told there, it is this measure's on the sides that hurt. */
  readonly told?: 'now';
  /** What taking it puts on the foot; not taken while safety switches that off. */
  readonly needs?: readonly Tag[];
  /** Whether it is a squat, a hop, or on one leg, where `needs` does not show it. */
  readonly strenuous?: boolean;
  readonly evidence: Evidence;
}

/** The one measure that arithmetic itself needs, for loads and torques. */
export const BODY_MASS = 'body-mass';
