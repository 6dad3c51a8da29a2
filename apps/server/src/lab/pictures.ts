import {
  footView,
  type MatReport,
  type MotionReport,
  mostBetween,
  pressureColour,
  scaleTop,
  seen,
  WAVE_POINTS,
} from '@heathstep/core/lab';
import { type Side, SIDES } from '@heathstep/core';
import sharp from 'sharp';

/** A print of both feet for paper: a PNG as a data address, its size in mm, and the top of its scale in kPa. */
export interface PrintPicture {
  readonly image: string;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly topKpa: number;
}

const GAP = 6;
const FINER = 6;

/** The most each place of each foot pressed, side by side, left on the left; null where no foot was found. */
export async function printPicture(report: MatReport): Promise<PrintPicture | null> {
  const feet = SIDES.flatMap((side) => {
    const loads = report.feet[side][0];
    if (loads === undefined) return [];
    const view = footView(report.clean.header, loads.foot);
    const most = mostBetween(report.clean, loads.from, loads.from + loads.count - 1);
    return [{ view, kpa: seen(view, most, { factor: report.factor }) }];
  });
  const [first] = feet;
  if (first === undefined) return null;
  const topKpa = scaleTop(Math.max(...feet.map((f) => Math.max(...f.kpa))));
  const rows = Math.max(...feet.map((f) => f.view.rows));
  const columns = feet.reduce((sum, f) => sum + f.view.columns, 0) + GAP * (feet.length - 1);
  const paper = pressureColour(0, 'light');
  const rgb = Buffer.alloc(columns * rows * 3);
  for (let i = 0; i < columns * rows; i += 1) rgb.set(paper, i * 3);
  let from = 0;
  for (const { view, kpa } of feet) {
    const down = rows - view.rows;
    for (let r = 0; r < view.rows; r += 1)
      for (let c = 0; c < view.columns; c += 1)
        rgb.set(
          pressureColour((kpa[r * view.columns + c] as number) / topKpa, 'light'),
          ((r + down) * columns + from + c) * 3,
        );
    from += view.columns + GAP;
  }
  const png = await sharp(rgb, { raw: { width: columns, height: rows, channels: 3 } })
    .resize(columns * FINER, rows * FINER, { kernel: 'cubic' })
    .png()
    .toBuffer();
  return {
    image: `data:image/png;base64,${png.toString('base64')}`,
    widthMm: columns * first.view.stepMm,
    heightMm: rows * first.view.stepMm,
    topKpa,
  };
}

const COLOURS: Readonly<Record<Side, string>> = { left: '#1f5f8b', right: '#a4461f' };
const WIDE = 460;
const HIGH = 170;
/** Room for the figures of the axis. */
const LEFT = 26;

/** The mean waves of both feet over each other, with what is around them; null where there is none. */
export function wavePicture(report: MotionReport): string | null {
  const waves = SIDES.flatMap((side) => {
    const e = report.waves[side];
    return e === null || e.steps.length === 0 ? [] : [{ side, e }];
  });
  if (waves.length === 0) return null;
  const all = waves.flatMap(({ e }) => [...e.mean]);
  const low = Math.floor(Math.min(...all, 0)) - 2;
  const high = Math.ceil(Math.max(...all, 0)) + 2;
  const x = (k: number): number => LEFT + (k / (WAVE_POINTS - 1)) * (WIDE - LEFT);
  const y = (v: number): number => HIGH - ((v - low) / (high - low)) * HIGH;
  const lines = waves.flatMap(({ side, e }) => {
    const at = (v: Float64Array, k: number): number => v[k] as number;
    const points = (shift: number): string =>
      [...e.mean.keys()]
        .map((k) => `${x(k).toFixed(1)},${y(at(e.mean, k) + shift * at(e.spread, k)).toFixed(1)}`)
        .join(' ');
    return [
      `<polyline points="${points(0)}" fill="none" stroke="${COLOURS[side]}" stroke-width="2"/>`,
      `<polyline points="${points(1)}" fill="none" stroke="${COLOURS[side]}" stroke-width="0.5"/>`,
      `<polyline points="${points(-1)}" fill="none" stroke="${COLOURS[side]}" stroke-width="0.5"/>`,
    ];
  });
  const marks = Array.from(
    { length: Math.floor((high - low) / 5) + 1 },
    (_, i) => Math.ceil(low / 5) * 5 + i * 5,
  )
    .filter((v) => v <= high)
    .map(
      (v) =>
        `<line x1="${LEFT}" x2="${WIDE}" y1="${y(v)}" y2="${y(v)}" stroke="#d9d2c4" stroke-width="${v === 0 ? 1.2 : 0.5}"/><text x="${LEFT - 5}" y="${y(v) + 3}" font-size="9" text-anchor="end" fill="#5d5348">${v}</text>`,
    );
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDE} ${HIGH}" width="${WIDE}" height="${HIGH}">${marks.join('')}${lines.join('')}</svg>`;
}
