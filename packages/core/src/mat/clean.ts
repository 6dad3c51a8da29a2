import { newtonPerUnit } from '../recording/collect.js';
import { type MatHeader, type MatRecording, PER_KPA } from '../recording/recording.js';

/** Pressure from which a cell counts as touched, tenths of a kPa; convention. */
export const TOUCHED = 5 * PER_KPA;

/** What was wrong with single cells, and was set right. */
interface CellFaults {
  /** Read nothing though those around them are loaded. */
  readonly dead: readonly number[];
  /** Read the same whatever happens. */
  readonly stuck: readonly number[];
  /** Were at the most the mat can read. */
  readonly saturated: readonly number[];
  /** How far unloaded cells had drifted at the end, kPa. */
  readonly driftKpa: number;
}

/** Readings of a mat with drift taken off and broken cells filled from those around them. */
export interface CleanMat {
  readonly header: MatHeader;
  readonly times: Float64Array;
  /** Tenths of a kPa, frame by frame. */
  readonly cells: Uint16Array;
  /** The most each cell reads at any time. */
  readonly most: Uint16Array;
  /** Cells that read anything at any time; all others are nought throughout. */
  readonly active: Int32Array;
  /** The whole load of each frame, newton, as the mat tells it. */
  readonly totals: Float64Array;
  readonly faults: CellFaults;
}

const around = (h: MatHeader, cell: number): number[] => {
  const [c, r] = [cell % h.columns, Math.floor(cell / h.columns)];
  const out: number[] = [];
  for (let dr = -1; dr <= 1; dr += 1)
    for (let dc = -1; dc <= 1; dc += 1) {
      const [x, y] = [c + dc, r + dr];
      if ((dr !== 0 || dc !== 0) && x >= 0 && x < h.columns && y >= 0 && y < h.rows)
        out.push(y * h.columns + x);
    }
  return out;
};

interface Bounds {
  readonly least: Uint16Array;
  readonly most: Uint16Array;
  /** Share of the cells that read anything, of the fullest frame. */
  readonly fullest: number;
}

function bounds(cells: Uint16Array, size: number): Bounds {
  const least = new Uint16Array(size).fill(65_535);
  const most = new Uint16Array(size);
  let fullest = 0;
  for (let from = 0; from < cells.length; from += size) {
    let full = 0;
    for (let c = 0; c < size; c += 1) {
      const v = cells[from + c] as number;
      if (v > 0) full += 1;
      if (v > (most[c] as number)) most[c] = v;
      if (v < (least[c] as number)) least[c] = v;
    }
    fullest = Math.max(fullest, full / size);
  }
  return { least, most, fullest };
}

/** Share of the cells that two feet can cover at the most; a frame with more than that touched has drifted. */
const COVERED = 0.6;
/** Of all cells, ordered, the one that is taken for an unloaded one. */
const UNLOADED = 0.3;

/** Takes off what unloaded cells read; the most that was taken off, in tenths of a kPa. */
function undrifted(cells: Uint16Array, size: number): number {
  const counts = new Uint32Array(2048);
  let most = 0;
  for (let from = 0; from < cells.length; from += size) {
    counts.fill(0);
    for (let c = 0; c < size; c += 1) {
      const v = cells[from + c] as number;
      const at = v > 2047 ? 2047 : v;
      counts[at] = (counts[at] as number) + 1;
    }
    let seen = 0;
    let offset = 0;
    while (offset < 2047 && seen + (counts[offset] as number) < size * UNLOADED) {
      seen += counts[offset] as number;
      offset += 1;
    }
    if (offset === 0) continue;
    most = Math.max(most, offset);
    // Twice, as the noise of an unloaded cell lies on both sides of it.
    for (let c = 0; c < size; c += 1) {
      const v = (cells[from + c] as number) - offset;
      cells[from + c] = v < offset * 0.5 + 10 ? 0 : v;
    }
  }
  return most;
}

/** A cell is dead that reads nothing while all around it are touched, and loaded by so much together, in so many frames. */
const DEAD = { meanAround: 20 * PER_KPA, frames: 5 } as const;
const STUCK_RANGE = 2;
const STUCK_FROM = 5 * PER_KPA;
const NEIGHBOUR_MOVES = 5 * PER_KPA;

function isDead(cells: Uint16Array, size: number, near: readonly number[]): boolean {
  let frames = 0;
  for (let from = 0; from < cells.length && frames < DEAD.frames; from += size) {
    let [sum, touched] = [0, 0];
    for (const n of near) {
      const v = cells[from + n] as number;
      sum += v;
      if (v >= TOUCHED) touched += 1;
    }
    if (touched >= 7 && sum >= DEAD.meanAround * 8) frames += 1;
  }
  return frames >= DEAD.frames;
}

function faultsOf(h: MatHeader, cells: Uint16Array, b: Bounds): Omit<CellFaults, 'driftKpa'> {
  const dead: number[] = [];
  const stuck: number[] = [];
  const saturated: number[] = [];
  const ceiling = h.mostKpa * PER_KPA - 1;
  for (let c = 0; c < b.most.length; c += 1) {
    const most = b.most[c] as number;
    if (most >= ceiling) saturated.push(c);
    const near = around(h, c);
    if (most === 0) {
      const touched = near.filter((n) => (b.most[n] as number) >= TOUCHED).length;
      if (touched >= 7 && near.length === 8 && isDead(cells, b.most.length, near)) dead.push(c);
      continue;
    }
    if (most < STUCK_FROM || most - (b.least[c] as number) > STUCK_RANGE) continue;
    const alone = near.every((n) => b.most[n] === 0);
    const amidMoving = near.some((n) => (b.most[n] as number) - (b.least[n] as number) > NEIGHBOUR_MOVES);
    if (alone || amidMoving) stuck.push(c);
  }
  return { dead, stuck, saturated: saturated.filter((c) => !stuck.includes(c)) };
}

function filled(cells: Uint16Array, h: MatHeader, broken: readonly number[]): void {
  const size = h.columns * h.rows;
  const bad = new Set(broken);
  for (const c of broken) {
    const near = around(h, c).filter((n) => !bad.has(n));
    if (near.length === 0) continue;
    for (let from = 0; from < cells.length; from += size) {
      let sum = 0;
      for (const n of near) sum += cells[from + n] as number;
      cells[from + c] = Math.round(sum / near.length);
    }
  }
}

/** Sets a recording right as far as can be: drift off, broken cells filled. The recording itself is not changed. */
export function cleanMat(r: MatRecording): CleanMat {
  const { header } = r;
  const size = header.columns * header.rows;
  const before = bounds(r.cells, size);
  const drifted = before.fullest > COVERED;
  const broken = faultsOf(header, r.cells, before);
  const touch = drifted || broken.dead.length + broken.stuck.length > 0;
  const cells = touch ? r.cells.slice() : r.cells;
  const drift = drifted ? undrifted(cells, size) : 0;
  const again = drifted ? faultsOf(header, cells, bounds(cells, size)) : broken;
  const bad = [...new Set([...broken.stuck, ...again.stuck, ...again.dead])];
  if (bad.length > 0) filled(cells, header, bad);
  const most = touch ? bounds(cells, size).most : before.most;
  const active = Int32Array.from([...most.keys()].filter((c) => (most[c] as number) > 0));
  const per = newtonPerUnit(header);
  const totals = new Float64Array(r.times.length);
  for (let n = 0; n < totals.length; n += 1) {
    let sum = 0;
    for (const c of active) sum += cells[n * size + c] as number;
    totals[n] = sum * per;
  }
  return {
    header,
    times: r.times,
    cells,
    most,
    active,
    totals,
    faults: {
      dead: again.dead,
      stuck: [...new Set([...broken.stuck, ...again.stuck])],
      saturated: broken.saturated,
      driftKpa: drift / PER_KPA,
    },
  };
}
