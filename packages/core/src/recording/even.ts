import {
  isMat,
  type LegAngles,
  type MatRecording,
  type MotionRecording,
  type Recording,
} from './recording.js';

/** Where each moment of an even clock lies between two frames that came: the frame before, and the share of the next. */
interface Places {
  readonly times: Float64Array;
  readonly before: Int32Array;
  readonly next: Float32Array;
}

function placesOf(times: Float64Array, rateHz: number): Places | null {
  const n = times.length;
  if (n < 2) return null;
  const start = times[0] as number;
  const count = Math.round(((times[n - 1] as number) - start) * rateHz) + 1;
  if (count <= n) return null;
  const before = new Int32Array(count);
  const next = new Float32Array(count);
  let i = 0;
  for (let k = 0; k < count; k += 1) {
    const t = start + k / rateHz;
    while (i + 2 < n && (times[i + 1] as number) <= t + 1e-6) i += 1;
    const [a, b] = [times[i] as number, times[i + 1] as number];
    before[k] = i;
    next[k] = Math.min(1, Math.max(0, (t - a) / (b - a)));
  }
  return { times: Float64Array.from({ length: count }, (_, k) => start + k / rateHz), before, next };
}

function mat(r: MatRecording, p: Places): MatRecording {
  const size = r.header.columns * r.header.rows;
  const cells = new Uint16Array(p.times.length * size);
  for (let k = 0; k < p.times.length; k += 1) {
    const [from, share] = [(p.before[k] as number) * size, p.next[k] as number];
    if (share < 1e-3) cells.set(r.cells.subarray(from, from + size), k * size);
    else if (share > 1 - 1e-3) cells.set(r.cells.subarray(from + size, from + 2 * size), k * size);
    else
      for (let c = 0; c < size; c += 1) {
        const a = r.cells[from + c] as number;
        cells[k * size + c] = a + ((r.cells[from + size + c] as number) - a) * share;
      }
  }
  return { header: r.header, times: p.times, cells };
}

function leg(angles: LegAngles | null, p: Places): LegAngles | null {
  if (angles === null) return null;
  const of = (values: Float32Array): Float32Array =>
    Float32Array.from(p.times, (_, k) => {
      const i = p.before[k] as number;
      const a = values[i] as number;
      return a + ((values[i + 1] as number) - a) * (p.next[k] as number);
    });
  return { shin: of(angles.shin), heel: of(angles.heel), pitch: of(angles.pitch) };
}

/** The recording on an even clock: frames that never came are set in between those around them. Unchanged where none is missing. */
export function evened<R extends Recording>(r: R): R;
export function evened(r: Recording): Recording {
  const p = placesOf(r.times, r.header.rateHz);
  if (p === null) return r;
  if (isMat(r)) return mat(r, p);
  const motion: MotionRecording = {
    header: r.header,
    times: p.times,
    left: leg(r.left, p),
    right: leg(r.right, p),
  };
  return motion;
}
