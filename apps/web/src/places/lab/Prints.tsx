import { say, shown, type Side, SIDES } from '@heathstep/core';
import { useCallback, useMemo, useRef } from 'react';
import { useShownTheme } from '../../parts/theme.js';
import { type Cursor, useCursor } from './cursor.js';
import { paletteOf, pixels } from './palette.js';
import type { FootPlay, LabReading } from './reading.js';

/** Screen points a millimetre of a foot takes. */
const SCALE = 1.55;

const colour = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(`--color-${name}`).trim();

/** Draws one foot: its pressures at a moment, or the most of all time, and the way its centre went until then. */
function drawFoot(
  { canvas, small }: { canvas: HTMLCanvasElement; small: HTMLCanvasElement },
  play: FootPlay,
  share: number | null,
  theme: 'light' | 'dark',
): void {
  const ctx = canvas.getContext('2d');
  const inner = small.getContext('2d');
  if (ctx === null || inner === null) return;
  const { columns, rows, count } = play;
  const at = share === null ? null : Math.round(share * (count - 1));
  const picture = inner.createImageData(columns, rows);
  inner.putImageData(
    pixels(
      picture,
      at === null ? play.most : play.frames,
      at === null ? 0 : at * columns * rows,
      paletteOf(theme),
    ),
    0,
    0,
  );
  ctx.imageSmoothingEnabled = true;
  ctx.clearRect(0, 0, canvas.width, canvas.height);
  ctx.drawImage(small, 0, 0, canvas.width, canvas.height);
  const [kx, ky] = [canvas.width / columns, canvas.height / rows];
  ctx.lineWidth = 2.5;
  ctx.lineJoin = 'round';
  ctx.strokeStyle = colour('go');
  ctx.beginPath();
  let drawing = false;
  const last = at ?? count - 1;
  for (let i = 0; i <= last; i += 1) {
    const [x, y] = [play.path[i * 2] ?? Number.NaN, play.path[i * 2 + 1] ?? Number.NaN];
    if (Number.isNaN(x)) drawing = false;
    else if (drawing) ctx.lineTo(x * kx, y * ky);
    else {
      ctx.moveTo(x * kx, y * ky);
      drawing = true;
    }
  }
  ctx.stroke();
  if (at === null) return;
  const [x, y] = [play.path[at * 2] ?? Number.NaN, play.path[at * 2 + 1] ?? Number.NaN];
  if (Number.isNaN(x)) return;
  ctx.fillStyle = colour('paper');
  ctx.strokeStyle = colour('ink');
  ctx.beginPath();
  ctx.arc(x * kx, y * ky, 5, 0, 2 * Math.PI);
  ctx.fill();
  ctx.stroke();
}

function Foot({
  play,
  side,
  cursor,
  label,
}: {
  play: FootPlay | null;
  side: Side;
  cursor: Cursor;
  label: string;
}) {
  const theme = useShownTheme();
  const canvas = useRef<HTMLCanvasElement>(null);
  const small = useMemo(() => {
    const c = document.createElement('canvas');
    c.width = play?.columns ?? 1;
    c.height = play?.rows ?? 1;
    return c;
  }, [play]);
  const draw = useCallback(() => {
    if (canvas.current !== null && play !== null)
      drawFoot({ canvas: canvas.current, small }, play, cursor.share, theme);
  }, [small, play, cursor, theme]);
  useCursor(cursor, draw);
  const width = (play?.columns ?? 28) * (play?.stepMm ?? 4) * SCALE;
  const height = (play?.rows ?? 70) * (play?.stepMm ?? 4) * SCALE;
  return (
    <figure className="min-w-0">
      {play === null ? (
        <p className="mt-1 text-sm text-ink-2">{say('not on the mat')}</p>
      ) : (
        <canvas
          ref={canvas}
          width={Math.round(width * 1.5)}
          height={Math.round(height * 1.5)}
          className="mt-1 h-auto max-w-full rounded-md"
          style={{ width }}
          role="img"
          aria-label={label}
        />
      )}
      <figcaption className="text-center text-sm font-semibold" style={{ color: `var(--color-${side})` }}>
        {side === 'left' ? say('L, left foot') : say('R, right foot')}
      </figcaption>
    </figure>
  );
}

/** What stands for pressure: a strip from none to the top, in kPa. */
function Scale({ topKpa }: { topKpa: number }) {
  const theme = useShownTheme();
  const colours = paletteOf(theme);
  const stops = Array.from({ length: 9 }, (_, i) => {
    const c = Math.round((i / 8) * 255) * 4;
    return `rgb(${colours[c]} ${colours[c + 1]} ${colours[c + 2]}) ${(i / 8) * 100}%`;
  });
  return (
    <div className="text-xs text-ink-2">
      <div
        className="h-3 w-44 rounded-sm border border-line"
        style={{ background: `linear-gradient(to right, ${stops.join(', ')})` }}
        aria-hidden
      />
      <div className="flex w-44 justify-between">
        <span>0</span>
        <span>{shown(topKpa / 2, 0)}</span>
        <span>{say('{{top}} kPa', { top: shown(topKpa, 0) })}</span>
      </div>
    </div>
  );
}

/** The print of both feet, left on the left as the patient looks down; plays along with the cursor. */
export function Prints({
  reading,
  step,
  cursor,
  title,
}: {
  reading: LabReading;
  /** Which step of each foot, in walking. */
  step: number;
  cursor: Cursor;
  title: string;
}) {
  const play = (side: Side): FootPlay | null => reading.plays[side][step] ?? reading.plays[side][0] ?? null;
  return (
    <section aria-label={title}>
      <div className="flex items-end gap-3">
        {SIDES.map((side) => (
          <Foot key={side} side={side} play={play(side)} cursor={cursor} label={printWords(reading, side)} />
        ))}
      </div>
      <div className="mt-2">
        <Scale topKpa={reading.topKpa} />
      </div>
    </section>
  );
}

/** What a print shows, for who does not see it. */
function printWords(reading: LabReading, side: Side): string {
  const q = reading.quantities[side];
  const parts = [
    ['heel', say('heel')],
    ['innerBall', say('inner ball')],
    ['outerBall', say('outer ball')],
  ].flatMap(([name = '', word = '']) => {
    const v = q[name]?.value;
    return v === undefined ? [] : [`${word} ${shown(v, 0)} %`];
  });
  const name = side === 'left' ? say('Print of the left foot') : say('Print of the right foot');
  return parts.length === 0 ? name : `${name}: ${parts.join(', ')}`;
}
