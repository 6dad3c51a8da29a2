import type { Landmarks } from '@heathstep/core';

/**
 * The turn, scale and shift (an SVG matrix a b c d e f) that lays one picture's line on another's; null while either
 * line is not there or has no length.
 */
export function alignment(
  from: Landmarks,
  to: Landmarks,
  [a, b]: readonly [string, string],
): readonly number[] | null {
  const [p, q, r, s] = [from[a], from[b], to[a], to[b]];
  if (p === undefined || q === undefined || r === undefined || s === undefined) return null;
  const [ux, uy, vx, vy] = [q.x - p.x, q.y - p.y, s.x - r.x, s.y - r.y];
  const square = ux * ux + uy * uy;
  if (square === 0) return null;
  const cos = (ux * vx + uy * vy) / square;
  const sin = (ux * vy - uy * vx) / square;
  return [cos, sin, -sin, cos, r.x - (cos * p.x - sin * p.y), r.y - (sin * p.x + cos * p.y)];
}
