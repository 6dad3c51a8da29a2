import type { Side } from '../quantity/side.js';
import type { LabTask } from '../lab/task.js';

/** Instruments whose readings are kept whole. */
export type RecordingKind = 'pressure-mat' | 'motion-pair';

interface Spoken {
  readonly name: string;
  /** Samples a second. */
  readonly rateHz: number;
  readonly calibratedOn: string | null;
  readonly simulated: boolean;
  /** What was done, where the file says it. */
  readonly task: LabTask | null;
  readonly side: Side | 'both' | null;
}

export interface MatHeader extends Spoken {
  readonly kind: 'pressure-mat';
  readonly columns: number;
  readonly rows: number;
  /** Pitch of the cells, mm. */
  readonly cellMm: number;
  /** The most a cell can read, kPa. */
  readonly mostKpa: number;
}

export interface MotionHeader extends Spoken {
  readonly kind: 'motion-pair';
}

export type RecordingHeader = MatHeader | MotionHeader;

/** A cell's pressure is kept in tenths of a kPa. */
export const PER_KPA = 10;

/** Readings of a mat: one after another, each `rows` x `columns` cells, the first row nearest to where the patient steps on. */
export interface MatRecording {
  readonly header: MatHeader;
  /** Seconds, growing. */
  readonly times: Float64Array;
  /** Tenths of a kPa, frame by frame. */
  readonly cells: Uint16Array;
}

/** The three angles of one leg over time, deg; inward and toes up are positive. */
export interface LegAngles {
  /** Shin against upright, in the frontal plane. */
  readonly shin: Float32Array;
  /** Heel against upright, in the frontal plane. */
  readonly heel: Float32Array;
  /** Heel against the floor, in the line of walking. */
  readonly pitch: Float32Array;
}

export interface MotionRecording {
  readonly header: MotionHeader;
  readonly times: Float64Array;
  /** Null for a leg that wears none. */
  readonly left: LegAngles | null;
  readonly right: LegAngles | null;
}

export type Recording = MatRecording | MotionRecording;

export const isMat = (r: Recording): r is MatRecording => r.header.kind === 'pressure-mat';

/** Bounds of what is read at all; convention. */
export const RECORDING_LIMITS = {
  /** Kept of one recording, seconds. */
  seconds: 60,
  /** A line of a file or of a device, characters. */
  line: 70_000,
  /** A file, bytes. */
  file: 512 * 1024 * 1024,
  rateHz: 1000,
  cells: 4096,
  kpa: 6000,
  degrees: 180,
  /** Below nought an unloaded cell may drift this far; read as nought. kPa. */
  belowNought: 20,
} as const;

/** Angles of one leg in one sample. */
export type Angles = readonly [shin: number, heel: number, pitch: number];

/** Takes what a reader reads, in order. */
export interface FrameSink {
  readonly begin: (header: RecordingHeader) => void;
  /** The cells are lent: they hold the next frame after the call. */
  readonly mat: (t: number, cells: Uint16Array) => void;
  readonly motion: (t: number, left: Angles | null, right: Angles | null) => void;
}

/** A file or stream that is not taken: which line, and why. */
export interface LineProblem {
  readonly line: number;
  readonly reason: string;
}
