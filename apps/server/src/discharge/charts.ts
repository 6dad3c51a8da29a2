import type { LetterChart } from '@heathstep/contracts';
import {
  areLike,
  type ChartLine,
  type ChartPoint,
  chartSvg,
  type FirstToLast,
  instantOf,
  type MeasuredFact,
  say,
  shown,
  weeklyMeans,
} from '@heathstep/core';

const WIDTH = 246;
const HEIGHT = 96;
const COLOURS = { left: '#2a6a8c', right: '#9c511f', none: '#55386a', pain: '#55386a' } as const;

/** So many takes make a line worth drawing. [convention] */
const FEWEST = 2;

/** What a line says to who does not see it. */
const lineWords = (points: readonly ChartPoint[]): string =>
  points.map((p) => `${shown(p.value)} (${p.day})`).join(', ');

/** Of a measure on a side the takes that are compared: those of the row, and no other kind. */
function pointsOf(facts: readonly MeasuredFact[], row: FirstToLast, side: string): ChartPoint[] {
  const from = row.first?.day ?? row.last.day;
  const newest = facts
    .filter((f) => f.measure === row.measure.key && f.side === row.side)
    .toSorted((a, b) => instantOf(a.at) - instantOf(b.at))
    .at(-1);
  return facts
    .filter((f) => f.measure === row.measure.key && f.side === side && f.value !== null)
    .filter((f) => newest === undefined || areLike(row.measure, f, newest))
    .map((f) => ({ day: f.at.slice(0, 10), value: f.value ?? 0 }))
    .filter((p) => p.day >= from)
    .toSorted((a, b) => (a.day < b.day ? -1 : 1));
}

export interface ChartsOn {
  readonly facts: readonly MeasuredFact[];
  readonly rows: readonly FirstToLast[];
  readonly mornings: readonly { readonly day: string; readonly pain: number }[];
  readonly from: string;
  readonly to: string;
}

/** The measure the course is led by, left and right, and the pain of the mornings by week; as far as there is something to draw. */
export function letterCharts({ facts, rows, mornings, from, to }: ChartsOn): LetterChart[] {
  const frame = { width: WIDTH, height: HEIGHT, from, to };
  const leading = rows.find((r) => r.first !== null && pointsOf(facts, r, r.side).length >= FEWEST);
  const charts: LetterChart[] = [];
  if (leading !== undefined) {
    const { measure } = leading;
    const sides = measure.sides === 'single' ? (['none'] as const) : (['left', 'right'] as const);
    const lines = sides.map((side): ChartLine & { readonly side: string } => ({
      side,
      points: pointsOf(facts, leading, side),
      colour: COLOURS[side],
      broken: side === 'right',
      dots: true,
    }));
    const svg = chartSvg({ ...frame, lines });
    const unit = measure.unitLabel === '' ? '' : `, ${say(measure.unitLabel)}`;
    const title =
      measure.sides === 'single'
        ? `${say(measure.label)}${unit}`
        : say('{{measure}}: left in full, right broken', { measure: `${say(measure.label)}${unit}` });
    const alt = lines
      .filter((l) => l.points.length > 0)
      .map((l) => (l.side === 'none' ? lineWords(l.points) : `${say(l.side)}: ${lineWords(l.points)}`))
      .join('; ');
    if (svg !== null) charts.push({ title, alt, svg });
  }
  const pain = weeklyMeans(mornings.map((m) => ({ day: m.day, value: m.pain })));
  const svg =
    pain.length < FEWEST
      ? null
      : chartSvg({ ...frame, lines: [{ points: pain, colour: COLOURS.pain }], least: [0, 10] });
  if (svg !== null)
    charts.push({ title: say('Pain in the morning, 0 to 10, by week'), alt: lineWords(pain), svg });
  return charts;
}
