import { say } from '@heathstep/core';
import { useRef, useState } from 'react';
import type { Landmarks, PhotoConstruction, Point } from '@heathstep/core';
import type { PhotoView } from '@heathstep/contracts';
import { alignment } from './align.js';

const LENS_PX = 150;
const ZOOM = 4;

interface PictureProps {
  readonly photo: PhotoView;
  readonly construction: PhotoConstruction;
  readonly landmarks: Landmarks;
  readonly at: number;
  readonly setAt: (at: number) => void;
  readonly put: (key: string, x: number, y: number) => void;
  readonly placed: () => void;
  readonly before: PhotoView | null;
}

/** The picture with its landmarks; a magnifier follows the pointer or stands over the point that keys move. */
export function Picture(props: PictureProps) {
  const { photo, construction, landmarks, at, setAt, put, placed, before } = props;
  const [lens, setLens] = useState<Point | null>(null);
  const box = useRef<SVGSVGElement>(null);
  const current = construction.landmarks[at];
  const { width, height } = photo;
  const toPicture = (event: React.PointerEvent): Point => {
    const matrix = box.current?.getScreenCTM()?.inverse();
    const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix ?? new DOMMatrix());
    return { x: p.x, y: p.y };
  };
  const onKeyDown = (event: React.KeyboardEvent) => {
    if (current === undefined) return;
    const step = event.shiftKey ? 10 : 1;
    const moves: Record<string, readonly [number, number]> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, -step],
      ArrowDown: [0, step],
    };
    const now = landmarks[current.key];
    const by = Object.hasOwn(moves, event.key) ? moves[event.key] : undefined;
    if (by !== undefined) {
      const from = now ?? { x: width / 2, y: height / 2 };
      const to = { x: from.x + by[0], y: from.y + by[1] };
      put(current.key, to.x, to.y);
      setLens(to);
    } else if (event.key === ' ') {
      put(current.key, width / 2, height / 2);
      setLens({ x: width / 2, y: height / 2 });
    } else if (event.key === 'PageDown') setAt(Math.min(construction.landmarks.length - 1, at + 1));
    else if (event.key === 'PageUp') setAt(Math.max(0, at - 1));
    else return;
    event.preventDefault();
  };
  const dot = Math.max(width, height) / 160;
  const lensSize = (LENS_PX * Math.max(width / 900, height / 650)) / ZOOM;
  return (
    <div className="relative flex min-h-0 items-center justify-center bg-line-2 p-2">
      <svg
        ref={box}
        viewBox={`0 0 ${width} ${height}`}
        className="max-h-full max-w-full cursor-crosshair touch-none outline-none focus-visible:outline-2 focus-visible:outline-heather"
        tabIndex={0}
        role="application"
        aria-label={say('Picture. Point to place: {{label}}', { label: say(current?.label ?? '') })}
        onKeyDown={onKeyDown}
        onPointerMove={(event) => {
          const p = toPicture(event);
          setLens(p);
          if (event.buttons === 1 && current !== undefined) put(current.key, p.x, p.y);
        }}
        onPointerDown={(event) => {
          const p = toPicture(event);
          setLens(p);
          if (current !== undefined) put(current.key, p.x, p.y);
        }}
        onPointerUp={placed}
        onPointerLeave={() => setLens(null)}
      >
        <image href={`/api/photos/${photo.id}`} width={width} height={height} />
        {before?.placements[0] !== undefined && (
          <Earlier before={before} landmarks={landmarks} construction={construction} dot={dot} />
        )}
        <Marks
          construction={construction}
          landmarks={landmarks}
          at={at}
          dot={dot}
          colour="var(--color-heather)"
        />
      </svg>
      {lens !== null && (
        <Magnifier lens={lens} lensSize={lensSize} width={width} photo={photo} height={height} />
      )}
    </div>
  );
}

/** What lies under the point, three times as large. */
function Magnifier({
  lens,
  lensSize,
  width,
  photo,
  height,
}: {
  lens: Point;
  lensSize: number;
  width: number;
  photo: PhotoView;
  height: number;
}) {
  return (
    <svg
      aria-hidden
      viewBox={`${lens.x - lensSize / 2} ${lens.y - lensSize / 2} ${lensSize} ${lensSize}`}
      className={`pointer-events-none absolute top-3 rounded-full border-2 border-ink bg-paper ${lens.x > width / 2 ? 'left-3' : 'right-3'}`}
      style={{ width: LENS_PX, height: LENS_PX }}
    >
      <image href={`/api/photos/${photo.id}`} width={width} height={height} />
      <path
        d={`M${lens.x - lensSize / 2} ${lens.y} h${lensSize} M${lens.x} ${lens.y - lensSize / 2} v${lensSize}`}
        stroke="var(--color-ease)"
        strokeWidth={lensSize / 200}
      />
    </svg>
  );
}

function Marks({
  construction,
  landmarks,
  at,
  dot,
  colour,
}: {
  construction: PhotoConstruction;
  landmarks: Landmarks;
  at: number;
  dot: number;
  colour: string;
}) {
  return (
    <g>
      {construction.lines.map(([a, b]) => {
        const [p, q] = [landmarks[a], landmarks[b]];
        return p === undefined || q === undefined ? null : (
          <line
            key={`${a}-${b}`}
            x1={p.x}
            y1={p.y}
            x2={q.x}
            y2={q.y}
            stroke={colour}
            strokeWidth={dot / 2.5}
          />
        );
      })}
      {construction.landmarks.map((l, i) => {
        const p = landmarks[l.key];
        if (p === undefined) return null;
        return (
          <g key={l.key}>
            <circle
              cx={p.x}
              cy={p.y}
              r={dot}
              fill={i === at ? 'var(--color-ease)' : colour}
              fillOpacity={0.9}
            />
            <text x={p.x + dot * 1.4} y={p.y - dot} fontSize={dot * 3} fontWeight="700" fill={colour}>
              {i + 1}
            </text>
          </g>
        );
      })}
    </g>
  );
}

/** An earlier picture laid over this one, turned and scaled so that its first line lies on this one's. */
function Earlier({
  before,
  landmarks,
  construction,
  dot,
}: {
  before: PhotoView;
  landmarks: Landmarks;
  construction: PhotoConstruction;
  dot: number;
}) {
  const then = before.placements[0]?.landmarks ?? {};
  const [line] = construction.lines;
  const matrix = line === undefined ? null : alignment(then, landmarks, line);
  if (matrix === null) return null;
  return (
    <g transform={`matrix(${matrix.join(' ')})`} opacity={0.5}>
      <image href={`/api/photos/${before.id}`} width={before.width} height={before.height} opacity={0.6} />
      <Marks construction={construction} landmarks={then} at={-1} dot={dot} colour="var(--color-ink)" />
    </g>
  );
}
