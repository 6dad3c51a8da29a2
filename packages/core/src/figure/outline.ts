import { add, leaning, lengthOf, minus } from './skeleton.js';
import type { Point } from './pose.js';

/** One decimal of a millimetre keeps a picture small and is finer than its pixels. */
const n = (v: number): string => String(Math.round(v * 10) / 10 + 0);

/** Picture coordinates grow downward. */
export const at = (p: Point): string => `${n(p[0])} ${n(-p[1])}`;

const tenth = (v: number): number => Math.round(v * 10);

/** A curve told from where it begins, which takes fewer digits; rounded so that no error adds up. */
function curve(from: Point, ...points: readonly Point[]): string {
  const numbers = points.flatMap(([x, y]) => [tenth(x) - tenth(from[0]), tenth(from[1]) - tenth(y)]);
  return `c${numbers
    .map((v) => String(v / 10).replace(/^(-?)0\./, '$1.'))
    .join(' ')
    .replaceAll(' -', '-')}`;
}

/** A soft closed outline through points. */
export function softOutline(points: readonly Point[]): string {
  const count = points.length;
  const p = (i: number): Point => points[(i + count) % count] ?? [0, 0];
  const parts = points.map((_, i) => {
    const [before, from, to, after] = [p(i - 1), p(i), p(i + 1), p(i + 2)];
    const c1 = add(from, minus(to, before), 1 / 6);
    const c2 = add(to, minus(after, from), -1 / 6);
    return curve(from, c1, c2, to);
  });
  return `M${at(p(0))}${parts.join('')}Z`;
}

/** A rounded limb from one thickness to another. */
export function limb(a: Point, b: Point, ra: number, rb: number): string {
  const line = minus(b, a);
  const long = lengthOf(line);
  const side: Point = long === 0 ? leaning(90) : [-line[1] / long, line[0] / long];
  const [a1, a2, b1, b2] = [add(a, side, ra), add(a, side, -ra), add(b, side, rb), add(b, side, -rb)];
  return `M${at(a1)}L${at(b1)}A${n(rb)} ${n(rb)} 0 0 1 ${at(b2)}L${at(a2)}A${n(ra)} ${n(ra)} 0 0 1 ${at(a1)}Z`;
}

export const polyline = (points: readonly Point[]): string => `M${points.map(at).join('L')}`;

/** A soft open line through points. */
export function softLine(points: readonly Point[]): string {
  const p = (i: number): Point => points[Math.max(0, Math.min(points.length - 1, i))] ?? [0, 0];
  const parts = points.slice(1).map((to, i) => {
    const c1 = add(p(i), minus(to, p(i - 1)), 1 / 6);
    const c2 = add(to, minus(p(i + 2), p(i)), -1 / 6);
    return curve(p(i), c1, c2, to);
  });
  return `M${at(p(0))}${parts.join('')}`;
}

/** A rectangle by its corners, left bottom and right top. */
export const box = (left: number, bottom: number, right: number, top: number): string =>
  `${polyline([
    [left, bottom],
    [right, bottom],
    [right, top],
    [left, top],
  ])}Z`;

/** A bent line with a head of a size at its end. */
export function bentArrow(
  from: Point,
  to: Point,
  bend: number,
  size: number,
): { line: string; head: string } {
  const across = minus(to, from);
  const middle: Point = [(from[0] + to[0]) / 2 - across[1] * bend, (from[1] + to[1]) / 2 + across[0] * bend];
  const last = minus(to, middle);
  const long = lengthOf(last) || 1;
  const unit: Point = [last[0] / long, last[1] / long];
  const side: Point = [-unit[1], unit[0]];
  const back = add(to, unit, -size);
  return {
    line: `M${at(from)}Q${at(middle)} ${at(to)}`,
    head: polyline([add(back, side, size * 0.65), to, add(back, side, size * -0.65)]),
  };
}
