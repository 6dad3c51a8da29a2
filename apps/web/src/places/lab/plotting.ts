/** A place for a plot, in its own units. */
export const PLOT = { width: 420, height: 150, left: 34, bottom: 20, top: 8, right: 8 } as const;

export interface Axis {
  readonly low: number;
  readonly high: number;
}

export const xAt = (share: number): number =>
  PLOT.left + Math.min(1, Math.max(0, share)) * (PLOT.width - PLOT.left - PLOT.right);

export const yAt = (axis: Axis, v: number): number =>
  PLOT.top + (1 - (v - axis.low) / (axis.high - axis.low || 1)) * (PLOT.height - PLOT.top - PLOT.bottom);

/** The share of the time that lies under a place of a drawn plot. */
export function shareAt(svg: SVGSVGElement, clientX: number): number {
  const box = svg.getBoundingClientRect();
  const x = ((clientX - box.left) / box.width) * PLOT.width;
  return (x - PLOT.left) / (PLOT.width - PLOT.left - PLOT.right);
}

/** A line through values that lie evenly over the time; broken where there is none. */
export function lineOf(values: ArrayLike<number>, axis: Axis): string {
  let path = '';
  let drawing = false;
  // As many places as can be told apart.
  const every = Math.max(1, Math.floor(values.length / 400));
  for (let i = 0; i < values.length; i += every) {
    const v = values[i] ?? Number.NaN;
    if (Number.isNaN(v)) {
      drawing = false;
      continue;
    }
    path += `${drawing ? 'L' : 'M'}${xAt(i / Math.max(1, values.length - 1)).toFixed(1)} ${yAt(axis, v).toFixed(1)}`;
    drawing = true;
  }
  return path;
}

/** An area between two lines. */
export function bandOf(low: ArrayLike<number>, high: ArrayLike<number>, axis: Axis): string {
  const n = Math.min(low.length, high.length);
  const point = (i: number, v: number): string =>
    `${xAt(i / Math.max(1, n - 1)).toFixed(1)} ${yAt(axis, v).toFixed(1)}`;
  const over = Array.from({ length: n }, (_, i) => point(i, high[i] ?? 0));
  const back = Array.from({ length: n }, (_, i) => point(n - 1 - i, low[n - 1 - i] ?? 0));
  return `M${[...over, ...back].join('L')}Z`;
}

/** Round marks of an axis, some five of them. */
export function ticksOf({ low, high }: Axis): readonly number[] {
  const span = high - low;
  const step = [1, 2, 5, 10, 20, 25, 50, 100, 200, 500, 1000].find((s) => span / s <= 5) ?? span / 4;
  const first = Math.ceil(low / step) * step;
  return Array.from({ length: Math.floor((high - first) / step) + 1 }, (_, i) => first + i * step);
}
