import type { Evidence } from '../why/evidence.js';

export type Direction = 'more' | 'less' | 'target';
export type Combine = 'mean' | 'best' | 'last';

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
}

export type Comparison = '>=' | '>' | '<=' | '<';

/** A clinical measure as data. Values are comparable only within one measure, method and position. */
export interface MeasureDefinition {
  readonly key: string;
  readonly label: string;
  /** How it is taken, in a few words under the label. */
  readonly brief: string;
  readonly region: string;
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
  /** Minimal detectable change at 95 %, absolute or in % of the mean of the two values; null when not known. */
  readonly error:
    | { readonly mdc: number; readonly source: string }
    | { readonly mdcPercent: number; readonly source: string }
    | null;
  /** A change that matters to patients, where published: absolute or relative, whichever comes first. */
  readonly important: { readonly absolute: number; readonly percent: number; readonly source: string } | null;
  readonly sideFlag: SideFlag | null;
  readonly thresholds: readonly Threshold[];
  readonly method: readonly string[];
  readonly position: string;
  readonly evidence: Evidence;
}
