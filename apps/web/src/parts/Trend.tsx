import { LineChart } from 'echarts/charts';
import { GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { useEffect, useRef } from 'react';
import { addDays, type Forecast, semAt, shown, type MeasureDefinition, say } from '@heathstep/core';
import { useShownTheme } from './theme.js';
import { shortDay } from './dates.js';

echarts.use([LineChart, GridComponent, TooltipComponent, MarkLineComponent, SVGRenderer]);

export interface TrendPoint {
  readonly day: string;
  readonly value: number;
}

interface TrendProps {
  readonly measure: MeasureDefinition;
  readonly left: readonly TrendPoint[];
  readonly right: readonly TrendPoint[];
  /** Where the trend leads, four in five draws of it; null where nothing is told. */
  readonly leftAhead: Forecast['band'] | null;
  readonly rightAhead: Forecast['band'] | null;
  readonly wanted: number | null;
  readonly to: string;
  /** What happened meanwhile; what lies before the first value is not drawn. */
  readonly marks: readonly TrendMark[];
}

export interface TrendMark {
  readonly day: string;
  /** A number or a sign, explained beside the chart. */
  readonly mark: string;
  readonly text: string;
}

/** How far ahead a trend is drawn: a review or two. */
const AHEAD_DAYS = 42;

const colour = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(`--color-${name}`).trim();

/** A line with its measurement error as a band, drawn as two stacked lines with the space between filled. */
function series(
  measure: MeasureDefinition,
  side: 'left' | 'right',
  points: readonly TrendPoint[],
  shift: number,
): object[] {
  if (points.length === 0) return [];
  // An error reaches no further than a value can lie.
  const { min, max } = measure.allowed;
  const low = (v: number) => Math.max(Math.min(min, v), v - (semAt(measure, v) ?? 0));
  const high = (v: number) => Math.min(Math.max(max, v), v + (semAt(measure, v) ?? 0));
  const plain = {
    type: 'line',
    symbol: 'none',
    lineStyle: { opacity: 0 },
    silent: true,
    tooltip: { show: false },
  };
  const last = points[points.length - 1];
  return [
    {
      ...plain,
      name: `${side} low`,
      stack: say('{{side}} band', { side: say(side) }),
      data: points.map((p) => [p.day, low(p.value)]),
    },
    {
      ...plain,
      name: `${side} error`,
      stack: say('{{side}} band', { side: say(side) }),
      areaStyle: { color: colour(side), opacity: 0.16 },
      data: points.map((p) => [p.day, high(p.value) - low(p.value)]),
    },
    {
      type: 'line',
      name: side,
      data: points.map((p) => [p.day, p.value]),
      symbol: 'circle',
      symbolSize: 8,
      lineStyle: { color: colour(side), width: 2.5 },
      itemStyle: { color: colour(side) },
      endLabel: {
        show: true,
        offset: [0, shift],
        formatter: `${side === 'left' ? 'L' : 'R'} ${shown(last?.value ?? 0)}`,
        color: colour(side),
        fontWeight: 650,
        fontSize: 13,
        fontFamily: 'Hanken Grotesk Variable',
      },
    },
  ];
}

/** Where a trend leads from today, as a band that fades: the farther, the fainter. */
function aheadSeries(
  side: 'left' | 'right',
  band: Forecast['band'] | null,
  { measure, to }: Pick<TrendProps, 'measure' | 'to'>,
): object[] {
  const shownBand = (band ?? []).filter((b) => b.day >= to && b.day <= addDays(to, AHEAD_DAYS));
  if (shownBand.length < 2) return [];
  const { min, max } = measure.allowed;
  const within = (v: number): number => Math.min(max, Math.max(min, v));
  const stack = say('{{side}} ahead', { side: say(side) });
  const plain = { type: 'line', symbol: 'none', silent: true, tooltip: { show: false } };
  const fade = (opacity: number) => ({
    type: 'linear',
    x: 0,
    y: 0,
    x2: 1,
    y2: 0,
    colorStops: [
      { offset: 0, color: colour(side) },
      { offset: 1, color: `${colour(side)}${opacity === 0 ? '00' : '33'}` },
    ],
  });
  return [
    {
      ...plain,
      name: `${side} ahead low`,
      stack,
      lineStyle: { opacity: 0 },
      data: shownBand.map((b) => [b.day, within(b.low)]),
    },
    {
      ...plain,
      name: `${side} ahead`,
      stack,
      lineStyle: { opacity: 0 },
      areaStyle: { color: fade(0), opacity: 0.2 },
      data: shownBand.map((b) => [b.day, within(b.high) - within(b.low)]),
    },
    {
      ...plain,
      name: `${side} ahead middle`,
      lineStyle: { color: fade(1), width: 1.5, type: 'dotted' },
      data: shownBand.map((b) => [b.day, within(b.middle)]),
    },
  ];
}

/** Values closer than this share of the scale would be written over each other. */
const TOO_CLOSE = 0.09;

/** How far the left's last number is written below its place, the right's as far above, so that both can be read. */
function shiftOf(left: readonly TrendPoint[], right: readonly TrendPoint[], fromNought: boolean): number {
  const [l, r] = [left.at(-1)?.value, right.at(-1)?.value];
  if (l === undefined || r === undefined) return 0;
  const values = [...left, ...right].map((p) => p.value).concat(fromNought ? [0] : []);
  const span = Math.max(...values) - Math.min(...values);
  if (span > 0 && Math.abs(l - r) / span > TOO_CLOSE) return 0;
  return l > r ? -7 : 7;
}

/** Lines at the days on which something happened. */
function markSeries(marks: readonly TrendMark[], from: string | undefined, to: string): object[] {
  const seen = marks.filter((m) => from !== undefined && m.day >= from && m.day <= to);
  if (seen.length === 0) return [];
  return [
    {
      type: 'line',
      name: 'marks',
      data: [],
      markLine: {
        silent: true,
        symbol: 'none',
        lineStyle: { color: colour('ink-3'), type: 'dotted', width: 1 },
        data: seen.map((m) => ({
          xAxis: m.day,
          label: {
            formatter: m.mark,
            position: 'end',
            distance: 2,
            color: colour(m.mark === '×' ? 'ease-deep' : 'heather'),
            fontFamily: 'Hanken Grotesk Variable',
            fontWeight: 650,
            fontSize: 12,
          },
        })),
      },
    },
  ];
}

/** How the chart is drawn: time along, both sides with their bands, and the line that is wanted. */
function optionsOf({ measure, left, right, leftAhead, rightAhead, wanted, to, marks }: TrendProps) {
  const text = { color: colour('ink-2'), fontFamily: 'Hanken Grotesk Variable', fontSize: 12 };
  const days = [...left, ...right].map((p) => p.day).sort();
  const ahead = [
    ...aheadSeries('left', leftAhead, { measure, to }),
    ...aheadSeries('right', rightAhead, { measure, to }),
  ];
  const leftShift = shiftOf(left, right, measure.unit !== 'deg');
  return {
    animation: false,
    grid: { left: 34, right: 52, top: marks.length === 0 ? 12 : 20, bottom: 26 },
    tooltip: {
      trigger: 'axis',
      valueFormatter: (v: unknown) => (typeof v === 'number' ? shown(v) : ''),
      textStyle: text,
    },
    xAxis: {
      type: 'time',
      min: days[0],
      max: ahead.length === 0 ? to : addDays(to, AHEAD_DAYS),
      axisLabel: {
        ...text,
        formatter: (v: number) => shortDay(new Date(v).toISOString()),
        hideOverlap: true,
      },
      axisLine: { lineStyle: { color: colour('line') } },
      axisTick: { show: false },
    },
    yAxis: {
      type: 'value',
      axisLabel: text,
      splitLine: { lineStyle: { color: colour('line-2') } },
      scale: measure.unit === 'deg',
    },
    series: [
      ...markSeries(marks, days[0], to),
      ...ahead,
      ...series(measure, 'left', left, leftShift),
      ...series(measure, 'right', right, -leftShift),
      ...(wanted === null
        ? []
        : [
            {
              type: 'line',
              name: 'wanted',
              data: [],
              markLine: {
                silent: true,
                symbol: 'none',
                lineStyle: { color: colour('go'), type: 'dashed', width: 1.5 },
                label: {
                  formatter: say('wanted {{wanted}}', { wanted: shown(wanted) }),
                  ...text,
                  color: colour('go-deep'),
                  position: 'insideEndTop',
                },
                data: [{ yAxis: wanted }],
              },
            },
          ]),
    ],
  };
}

/** One measure over the visits, both sides, with error bands and what is wanted; the same numbers stand in a table behind it. */
export function Trend(props: TrendProps) {
  const { measure, left, right, leftAhead, rightAhead, wanted, to, marks } = props;
  const theme = useShownTheme();
  const host = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (host.current === null) return undefined;
    const chart = echarts.init(host.current, null, { renderer: 'svg' });
    chart.setOption(optionsOf({ measure, left, right, leftAhead, rightAhead, wanted, to, marks }));
    const watch = new ResizeObserver(() => chart.resize());
    watch.observe(host.current);
    return () => {
      watch.disconnect();
      chart.dispose();
    };
    // The colours are read when it is drawn.
  }, [measure, left, right, leftAhead, rightAhead, wanted, to, marks, theme]);
  const days = [...new Set([...left, ...right].map((p) => p.day))].sort();
  const at = (points: readonly TrendPoint[], day: string) => points.find((p) => p.day === day)?.value;
  return (
    <figure>
      <div ref={host} className="h-56 w-full" aria-hidden />
      <details className="text-sm">
        <summary className="min-h-8 text-ink-2">{say('As a table')}</summary>
        <TrendTable measure={measure} days={days} at={at} left={left} right={right} />
      </details>
    </figure>
  );
}

/** The same numbers, to be read. */
function TrendTable({
  measure,
  days,
  at,
  left,
  right,
}: {
  measure: MeasureDefinition;
  days: string[];
  at: (points: readonly TrendPoint[], day: string) => number | undefined;
  left: readonly TrendPoint[];
  right: readonly TrendPoint[];
}) {
  return (
    <table className="mt-1 w-full text-left">
      <caption className="sr-only">{measure.label}</caption>
      <thead>
        <tr>
          <th scope="col">{say('Day')}</th>
          <th scope="col">{say('Left')}</th>
          <th scope="col">{say('Right')}</th>
        </tr>
      </thead>
      <tbody>
        {days.map((day) => (
          <tr key={day} className="border-t border-line-2">
            <td>{shortDay(day)}</td>
            <td>{at(left, day) === undefined ? '' : shown(at(left, day) ?? 0)}</td>
            <td>{at(right, day) === undefined ? '' : shown(at(right, day) ?? 0)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
