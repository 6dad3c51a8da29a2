import { daysBetween, type DayText } from '../quantity/day.js';

/** A value on a day. */
export interface ChartPoint {
  readonly day: DayText;
  readonly value: number;
}

export interface ChartLine {
  readonly points: readonly ChartPoint[];
  /** A colour of our own, `#rrggbb`. */
  readonly colour: string;
  /** Drawn broken, so that two lines can be told apart in grey. */
  readonly broken?: boolean;
  /** Every value is drawn as a dot; without, only the line. */
  readonly dots?: boolean;
}

export interface ChartOn {
  readonly lines: readonly ChartLine[];
  /** Outer size in points. */
  readonly width: number;
  readonly height: number;
  readonly from: DayText;
  readonly to: DayText;
  /** The range of values that is drawn at the least. */
  readonly least?: readonly [low: number, high: number];
}

/** Where a chart's scale begins and ends, in round numbers, with the marks between. */
export function roundScale(low: number, high: number): readonly number[] {
  const span = high - low || Math.abs(high) || 1;
  const rough = 10 ** Math.floor(Math.log10(span / 3));
  const step = [1, 2, 5, 10].map((n) => n * rough).find((s) => span / s <= 4) ?? 10 * rough;
  const first = Math.floor(low / step + 1e-9);
  const last = Math.max(first + 1, Math.ceil(high / step - 1e-9));
  return Array.from({ length: last - first + 1 }, (_, i) => Number(((first + i) * step).toPrecision(12)));
}

const PAD = { left: 30, right: 8, top: 8, bottom: 8 };
const n = (value: number): string => String(Math.round(value * 100) / 100);

/**
 * A small chart over days as SVG markup, for paper: lines only, numbers at the left, no other text. Null with nothing to
 * draw. The words beside it belong to the page.
 */
export function chartSvg({ lines, width, height, from, to, least }: ChartOn): string | null {
  const values = lines.flatMap((l) => l.points.map((p) => p.value));
  if (values.length === 0) return null;
  const scale = roundScale(Math.min(...values, ...(least ?? [])), Math.max(...values, ...(least ?? [])));
  const [low, high] = [scale[0] ?? 0, scale[scale.length - 1] ?? 1];
  const days = Math.max(1, daysBetween(from, to));
  const x = (day: DayText) => PAD.left + (daysBetween(from, day) / days) * (width - PAD.left - PAD.right);
  const y = (v: number) => height - PAD.bottom - ((v - low) / (high - low)) * (height - PAD.top - PAD.bottom);
  const marks = scale
    .map(
      (v) =>
        `<path d="M${n(PAD.left)} ${n(y(v))}H${n(width - PAD.right)}" stroke="#d9d2c4" stroke-width="0.6" fill="none"/>` +
        `<text x="${n(PAD.left - 4)}" y="${n(y(v) + 3)}" font-size="8" text-anchor="end" fill="#2a2420">${n(v)}</text>`,
    )
    .join('');
  const drawn = lines
    .map(({ points, colour, broken = false, dots = false }) => {
      const d = points.map((p, i) => `${i === 0 ? 'M' : 'L'}${n(x(p.day))} ${n(y(p.value))}`).join('');
      const line =
        points.length < 2
          ? ''
          : `<path d="${d}" fill="none" stroke="${colour}" stroke-width="1.6"${broken ? ' stroke-dasharray="4 3"' : ''}/>`;
      const each = dots || points.length === 1;
      return (
        line +
        (each
          ? points
              .map((p) => `<circle cx="${n(x(p.day))}" cy="${n(y(p.value))}" r="2.2" fill="${colour}"/>`)
              .join('')
          : '')
      );
    })
    .join('');
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${n(width)} ${n(height)}" width="${n(width)}" height="${n(height)}">${marks}${drawn}</svg>`;
}
