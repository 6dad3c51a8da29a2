import { type MatHeader, PER_KPA } from '../recording/recording.js';
import type { FootOnMat } from './foot.js';

/** How a foot is seen: upright, toes up, as the patient looks down; a fine grid and where each place of it lies on the mat. */
export interface FootView {
  readonly columns: number;
  readonly rows: number;
  readonly stepMm: number;
  /** Four cells around each place, and the share of each; a cell off the mat or of another foot counts nothing. */
  readonly cells: Int32Array;
  readonly shares: Float32Array;
  /** Where a place on the mat lies in the view, in steps from its upper left. */
  readonly placeOf: (x: number, y: number) => readonly [column: number, row: number];
}

const STEP_MM = 4;
const MARGIN_MM = 12;

/** The view of a foot on a mat. */
export function footView(h: MatHeader, foot: FootOnMat): FootView {
  const right = foot.side === 'right' ? 1 : -1;
  const own = new Set(foot.cells);
  const [low, high] = right === 1 ? [foot.inner, foot.outer] : [-foot.outer, -foot.inner];
  const left = low - MARGIN_MM;
  const front = foot.lengthMm + MARGIN_MM;
  const columns = Math.ceil((high - low + 2 * MARGIN_MM) / STEP_MM);
  const rows = Math.ceil((foot.lengthMm + 2 * MARGIN_MM) / STEP_MM);
  const cells = new Int32Array(columns * rows * 4).fill(-1);
  const shares = new Float32Array(columns * rows * 4);
  // To the right as the patient looks down.
  const [rx, ry] = [foot.outward[0] * right, foot.outward[1] * right];
  const [fx, fy] = foot.forward;
  for (let r = 0; r < rows; r += 1)
    for (let c = 0; c < columns; c += 1) {
      const a = front - (r + 0.5) * STEP_MM;
      const b = left + (c + 0.5) * STEP_MM;
      const gx = (foot.heel[0] + fx * a + rx * b) / h.cellMm - 0.5;
      const gy = (foot.heel[1] + fy * a + ry * b) / h.cellMm - 0.5;
      const [cx, cy] = [Math.floor(gx), Math.floor(gy)];
      const [u, v] = [gx - cx, gy - cy];
      [
        [cx, cy, (1 - u) * (1 - v)],
        [cx + 1, cy, u * (1 - v)],
        [cx, cy + 1, (1 - u) * v],
        [cx + 1, cy + 1, u * v],
      ].forEach(([x = 0, y = 0, share = 0], k) => {
        const cell = y * h.columns + x;
        if (x < 0 || y < 0 || x >= h.columns || y >= h.rows || !own.has(cell)) return;
        const i = (r * columns + c) * 4 + k;
        cells[i] = cell;
        shares[i] = share;
      });
    }
  return {
    columns,
    rows,
    stepMm: STEP_MM,
    cells,
    shares,
    placeOf(x, y) {
      const [dx, dy] = [x - foot.heel[0], y - foot.heel[1]];
      const a = dx * fx + dy * fy;
      const b = dx * rx + dy * ry;
      return [(b - left) / STEP_MM, (front - a) / STEP_MM];
    },
  };
}

/** Pressures of a view, kPa, row by row from the toes, of cells in tenths of a kPa that begin at `from`. */
export function seen(
  view: FootView,
  cells: ArrayLike<number>,
  { from = 0, factor = 1 }: { readonly from?: number; readonly factor?: number } = {},
): Float32Array {
  const out = new Float32Array(view.columns * view.rows);
  const scale = factor / PER_KPA;
  for (let i = 0; i < out.length; i += 1) {
    let sum = 0;
    for (let k = i * 4; k < i * 4 + 4; k += 1) {
      const cell = view.cells[k] as number;
      if (cell >= 0) sum += (view.shares[k] as number) * (cells[from + cell] as number);
    }
    out[i] = sum * scale;
  }
  return out;
}
