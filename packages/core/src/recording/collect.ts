import {
  type Angles,
  type FrameSink,
  type LegAngles,
  type MatHeader,
  PER_KPA,
  RECORDING_LIMITS,
  type Recording,
  type RecordingHeader,
} from './recording.js';

/** A stretch of a recording, seconds from its first frame. */
export interface Stretch {
  readonly from: number;
  readonly seconds: number;
}

/** Collects frames of one stretch into a recording. */
export interface Collector extends FrameSink {
  readonly header: () => RecordingHeader | null;
  readonly count: () => number;
  /** Seconds from the first frame kept to the newest. */
  readonly seconds: () => number;
  /** The newest frame of a mat, lent. */
  readonly newest: () => Uint16Array | null;
  /** Null before the heading. */
  readonly recording: () => Recording | null;
  /** Empties it; the heading stays. */
  readonly again: () => void;
}

const FIRST_ROOM = 512;

class Leg {
  shin = new Float32Array(FIRST_ROOM);
  heel = new Float32Array(FIRST_ROOM);
  pitch = new Float32Array(FIRST_ROOM);
  worn = false;

  put(n: number, angles: Angles | null): void {
    if (n >= this.shin.length) {
      this.shin = grown(this.shin);
      this.heel = grown(this.heel);
      this.pitch = grown(this.pitch);
    }
    if (angles !== null) this.worn = true;
    this.shin[n] = angles?.[0] ?? Number.NaN;
    this.heel[n] = angles?.[1] ?? Number.NaN;
    this.pitch[n] = angles?.[2] ?? Number.NaN;
  }

  of(n: number): LegAngles | null {
    return this.worn
      ? { shin: this.shin.slice(0, n), heel: this.heel.slice(0, n), pitch: this.pitch.slice(0, n) }
      : null;
  }
}

function grown(old: Float32Array<ArrayBuffer>): Float32Array<ArrayBuffer> {
  const more = new Float32Array(old.length * 2);
  more.set(old);
  return more;
}

/** A collector for one stretch; by default the first minute. Frames outside it are passed over. */
export function collector(stretch: Stretch = { from: 0, seconds: RECORDING_LIMITS.seconds }): Collector {
  let header: RecordingHeader | null = null;
  let times = new Float64Array(FIRST_ROOM);
  let cells = new Uint16Array(0);
  let size = 0;
  let n = 0;
  let origin: number | null = null;
  let left = new Leg();
  let right = new Leg();
  const within = (t: number): boolean => {
    origin ??= t;
    const at = t - origin - stretch.from;
    return at >= -1e-9 && at <= Math.min(stretch.seconds, RECORDING_LIMITS.seconds) + 1e-9;
  };
  const stamp = (t: number): void => {
    if (n >= times.length) {
      const more = new Float64Array(times.length * 2);
      more.set(times);
      times = more;
    }
    times[n] = t;
  };
  return {
    begin(h) {
      header = h;
      size = h.kind === 'pressure-mat' ? h.columns * h.rows : 0;
      cells = new Uint16Array(size * FIRST_ROOM);
    },
    mat(t, frame) {
      if (!within(t)) return;
      stamp(t);
      if ((n + 1) * size > cells.length) {
        const more = new Uint16Array(cells.length * 2);
        more.set(cells);
        cells = more;
      }
      cells.set(frame, n * size);
      n += 1;
    },
    motion(t, l, r) {
      if (!within(t)) return;
      stamp(t);
      left.put(n, l);
      right.put(n, r);
      n += 1;
    },
    header: () => header,
    count: () => n,
    seconds: () => (n === 0 ? 0 : (times[n - 1] ?? 0) - (times[0] ?? 0)),
    newest: () => (n === 0 || size === 0 ? null : cells.subarray((n - 1) * size, n * size)),
    recording() {
      if (header === null) return null;
      const kept = times.slice(0, n);
      return header.kind === 'pressure-mat'
        ? { header, times: kept, cells: cells.slice(0, n * size) }
        : { header, times: kept, left: left.of(n), right: right.of(n) };
    },
    again() {
      n = 0;
      origin = null;
      left = new Leg();
      right = new Leg();
    },
  };
}

/** How much happens in each stretch of a long recording: newton on a mat, degrees of turning of a pair. */
export interface Overview extends FrameSink {
  readonly header: () => RecordingHeader | null;
  /** The most in each step, from the first frame on. */
  readonly steps: () => readonly number[];
}

export const OVERVIEW_STEP_SECONDS = 0.5;

/** Newton a cell carries for each tenth of a kPa. */
export const newtonPerUnit = (h: MatHeader): number => ((h.cellMm / 1000) ** 2 * 1000) / PER_KPA;

const turning = (a: Angles | null): number => (a === null ? 0 : Math.abs(a[1] - a[0]));

/** Looks over a recording of any length without keeping it. */
export function overview(): Overview {
  let header: RecordingHeader | null = null;
  let origin: number | null = null;
  const steps: number[] = [];
  const note = (t: number, amount: number): void => {
    origin ??= t;
    const step = Math.floor((t - origin) / OVERVIEW_STEP_SECONDS);
    while (steps.length <= step) steps.push(0);
    steps[step] = Math.max(steps[step] ?? 0, amount);
  };
  return {
    begin: (h) => {
      header = h;
    },
    mat: (t, cells) => {
      let sum = 0;
      for (const cell of cells) sum += cell;
      note(t, header?.kind === 'pressure-mat' ? sum * newtonPerUnit(header) : 0);
    },
    motion: (t, left, right) => note(t, Math.max(turning(left), turning(right))),
    header: () => header,
    steps: () => steps,
  };
}

/** Hands each frame to several takers. */
export const tee = (...sinks: readonly FrameSink[]): FrameSink => ({
  begin: (h) => sinks.forEach((s) => s.begin(h)),
  mat: (t, cells) => sinks.forEach((s) => s.mat(t, cells)),
  motion: (t, l, r) => sinks.forEach((s) => s.motion(t, l, r)),
});
