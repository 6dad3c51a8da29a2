import type { MatHeader } from '../recording/recording.js';
import { type CleanMat, TOUCHED } from './clean.js';

const { floor } = Math;

/** One pressure for each cell of a mat, tenths of a kPa. */
export type Image = Float32Array;

/** The most each cell reads from one frame to another, both included. */
export function mostBetween(m: CleanMat, from: number, to: number): Image {
  const size = m.header.columns * m.header.rows;
  const out = new Float32Array(size);
  for (let n = from; n <= to; n += 1)
    for (const c of m.active) {
      const v = m.cells[n * size + c] as number;
      if (v > (out[c] as number)) out[c] = v;
    }
  return out;
}

/** The mean of each cell from one frame to another, both included. */
export function meanBetween(m: CleanMat, from: number, to: number): Image {
  const size = m.header.columns * m.header.rows;
  const out = new Float32Array(size);
  for (let n = from; n <= to; n += 1)
    for (const c of m.active) out[c] = (out[c] as number) + (m.cells[n * size + c] as number);
  const frames = to - from + 1;
  return out.map((v) => v / frames);
}

/** The middle of a cell, mm. */
export const middleOf = (h: MatHeader, cell: number): readonly [x: number, y: number] => [
  ((cell % h.columns) + 0.5) * h.cellMm,
  (Math.floor(cell / h.columns) + 0.5) * h.cellMm,
];

/** Cells that are touched in an image. */
export function touchedCells(image: Image): number[] {
  const out: number[] = [];
  for (let c = 0; c < image.length; c += 1) if ((image[c] as number) >= TOUCHED) out.push(c);
  return out;
}

/** Pressure between the middles of cells, by how near each of the four around is. */
export function pressureAt(h: MatHeader, image: Image, x: number, y: number): number {
  const gx = x / h.cellMm - 0.5;
  const gy = y / h.cellMm - 0.5;
  const c = floor(gx);
  const r = floor(gy);
  const u = gx - c;
  const v = gy - r;
  const at = (cc: number, rr: number): number =>
    cc < 0 || rr < 0 || cc >= h.columns || rr >= h.rows ? 0 : (image[rr * h.columns + cc] as number);
  return (
    at(c, r) * (1 - u) * (1 - v) +
    at(c + 1, r) * u * (1 - v) +
    at(c, r + 1) * (1 - u) * v +
    at(c + 1, r + 1) * u * v
  );
}

/** How many touched cells lie along an edge of the mat. */
export function onEdge(h: MatHeader, cells: readonly number[]): number {
  return cells.filter((cell) => {
    const [c, r] = [cell % h.columns, Math.floor(cell / h.columns)];
    return c === 0 || r === 0 || c === h.columns - 1 || r === h.rows - 1;
  }).length;
}
