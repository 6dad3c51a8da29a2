import { add, leaning, lengthOf, minus } from './skeleton.js';
import type { Point } from './pose.js';

const tenth = (v: number): number => Math.round(v * 10);

/** Coordinates seldom lie further out than this, in tenths. */
const FAR = 4000;
const WORDS: (string | undefined)[] = Array.from({ length: 2 * FAR + 1 }, () => undefined);

/** Tenths as they are written, without the nought before the point; each number is put into words once. */
function word(tenths: number): string {
  const known = WORDS[tenths + FAR];
  if (known !== undefined) return known;
  const made = String(tenths / 10 + 0).replace(/^(-?)0\./, '$1.');
  if (tenths >= -FAR && tenths <= FAR) WORDS[tenths + FAR] = made;
  return made;
}

/** One decimal of a millimetre keeps a picture small and is finer than its pixels. */
const n = (v: number): string => word(tenth(v));

/** Picture coordinates grow downward. */
export const at = (p: Point): string => `${word(tenth(p[0]))} ${word(-tenth(p[1]))}`;

/** The next number of a list, with a space before it where it has no sign. */
const next = (tenths: number): string => (tenths < 0 ? word(tenths) : ` ${word(tenths)}`);

/** A curve told from where it begins, which takes fewer digits; rounded so that no error adds up. */
function curve(from: Point, [c1x, c1y]: Point, [c2x, c2y]: Point, to: Point): string {
  const x = tenth(from[0]);
  const y = tenth(from[1]);
  return `c${word(tenth(c1x) - x)}${next(y - tenth(c1y))}${next(tenth(c2x) - x)}${next(y - tenth(c2y))}${next(tenth(to[0]) - x)}${next(y - tenth(to[1]))}`;
}

/** A soft curve between two points, by the one before and the one after. */
const soft = (before: Point, from: Point, to: Point, after: Point): string =>
  curve(
    from,
    [from[0] + (to[0] - before[0]) / 6, from[1] + (to[1] - before[1]) / 6],
    [to[0] - (after[0] - from[0]) / 6, to[1] - (after[1] - from[1]) / 6],
    to,
  );

/** A soft closed outline through points. */
export function softOutline(points: readonly Point[]): string {
  const count = points.length;
  const p = (i: number): Point => points[(i + count) % count] ?? [0, 0];
  let d = `M${at(p(0))}`;
  for (let i = 0; i < count; i += 1) d += soft(p(i - 1), p(i), p(i + 1), p(i + 2));
  return `${d}Z`;
}

/** A rounded limb from one thickness to another. */
export function limb(a: Point, b: Point, ra: number, rb: number): string {
  const line = minus(b, a);
  const long = lengthOf(line);
  const side: Point = long === 0 ? leaning(90) : [-line[1] / long, line[0] / long];
  const [a1, a2, b1, b2] = [add(a, side, ra), add(a, side, -ra), add(b, side, rb), add(b, side, -rb)];
  return `M${at(a1)}L${at(b1)}A${n(rb)} ${n(rb)} 0 0 1 ${at(b2)}L${at(a2)}A${n(ra)} ${n(ra)} 0 0 1 ${at(a1)}Z`;
}

/** An SVG path through points in cm. */
export const polyline = (points: readonly Point[]): string => `M${points.map(at).join('L')}`;

/** A soft open line through points. */
export function softLine(points: readonly Point[]): string {
  const p = (i: number): Point => points[Math.max(0, Math.min(points.length - 1, i))] ?? [0, 0];
  let d = `M${at(p(0))}`;
  for (let i = 0; i + 1 < points.length; i += 1) d += soft(p(i - 1), p(i), p(i + 1), p(i + 2));
  return d;
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
