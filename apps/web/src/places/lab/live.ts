import type { LanguageView } from '@heathstep/contracts/language';
import type { CaptureSession, LabTask, RecordingKind } from '@heathstep/core/lab';
import type { LabQuestion, LabReading } from './reading.js';

/** What the page asks of the worker that listens to an instrument. */
export type LiveAsked =
  | {
      readonly ask: 'start';
      readonly base: string;
      readonly kind: RecordingKind;
      readonly task: LabTask;
      readonly question: LabQuestion;
      /** Which made-up person stands on a simulated instrument; a real one takes no notice. */
      readonly who: number;
      readonly mistakes: readonly string[];
      readonly language: LanguageView | null;
    }
  | { readonly ask: 'stop' };

/** What is seen while it runs. */
export interface LiveSeen {
  readonly session: CaptureSession;
  readonly device: string;
  readonly simulated: boolean;
  /** The whole load, newton as the mat tells it. */
  readonly newton: number;
  /** The newest picture of a mat: columns, rows, 0 to 255 of the top. */
  readonly picture: {
    readonly columns: number;
    readonly rows: number;
    readonly cells: Uint8Array;
    readonly topKpa: number;
  } | null;
  /** Newest heel-under-shin angles, deg; null for a leg without. */
  readonly angles: { readonly left: number | null; readonly right: number | null } | null;
}

export type LiveTold =
  | { readonly seen: LiveSeen }
  | { readonly failed: 'connect' }
  /** Interrupted: nothing of it is kept. */
  | { readonly broken: CaptureSession; readonly reason: string }
  | { readonly working: true }
  | { readonly done: { readonly reading: LabReading; readonly packed: Blob } };
