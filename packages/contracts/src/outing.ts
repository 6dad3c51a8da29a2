import type { RecordedRise, RecordedRun } from '@heathstep/core';

/** The largest recording that is taken, in bytes. [convention] */
export const TRACK_BYTES = 6_000_000;

/** A run or a walk that was recorded. */
export interface OutingView {
  readonly id: string;
  readonly day: string;
  readonly startedAt: string;
  readonly minutes: number;
  readonly runMinutes: number;
  readonly metres: number;
  readonly climbMetres: number | null;
  readonly file: string;
  readonly by: string;
  /** Against the runs of the 30 days before it, logged and recorded. */
  readonly rise: RecordedRise;
}

/** A recorded run as a complaint counts it. */
export interface CountedRun extends RecordedRun {
  readonly id: string;
  /** Of the minutes run, those that a coming week for this complaint may be built on. */
  readonly countedMinutes: number;
}

/** What a file brought, and all that stands now. */
export interface OutingsView {
  /** How many of the last file were new; null where none was sent. */
  readonly taken: number | null;
  /** How many of it were here already. */
  readonly here: number;
  readonly outings: readonly OutingView[];
}
