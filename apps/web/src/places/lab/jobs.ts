import type { LanguageView } from '@heathstep/contracts/language';
import type { LineProblem, RecordingHeader } from '@heathstep/core/lab';
import type { LabQuestion, LabReading } from './reading.js';

/** What the reading worker is asked; one job a worker, ended with it. */
export type Job =
  /** A kept capture, worked out. */
  | { readonly do: 'capture'; readonly url: string; readonly frames: number; readonly question: LabQuestion }
  /** A file of any length, looked over. */
  | { readonly do: 'look-over'; readonly file: File }
  /** A stretch of a file, worked out and packed to be kept. */
  | {
      readonly do: 'stretch';
      readonly file: File;
      readonly from: number;
      readonly seconds: number;
      readonly question: LabQuestion;
    }
  /** A kept capture as the other format. */
  | { readonly do: 'csv'; readonly url: string; readonly frames: number };

export interface LookedOver {
  readonly header: RecordingHeader;
  readonly seconds: number;
  /** The most in each half second: newton on a mat, degrees of a pair. */
  readonly steps: readonly number[];
  readonly warnings: readonly LineProblem[];
}

export interface Worked {
  readonly reading: LabReading;
  /** Packed as it is kept; null of a capture that is kept already. */
  readonly packed: Blob | null;
}

/** Why a recording is not taken. */
export interface NotTaken {
  readonly problem: LineProblem;
}

export type Answer =
  | { readonly progress: number }
  | { readonly done: Worked | LookedOver | Blob | NotTaken }
  | { readonly failed: string };

export interface Asked {
  readonly job: Job;
  readonly language: LanguageView | null;
}
