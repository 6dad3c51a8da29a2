import { type PointerEvent, type ReactNode, useCallback, useRef } from 'react';
import { type Cursor, useCursor } from './cursor.js';
import { type Axis, PLOT, shareAt, ticksOf, xAt, yAt } from './plotting.js';

/** A plot over the time of a capture, with the cursor that all plots share; dragging over it moves the cursor. */
export function Plot({
  label,
  axis,
  unit,
  cursor,
  under,
  children,
}: {
  label: string;
  axis: Axis;
  unit: string;
  cursor: Cursor | null;
  /** What stands below the line of time: its begin and end. */
  under: readonly [from: string, to: string];
  children: ReactNode;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const line = useRef<SVGLineElement>(null);
  const draw = useCallback(() => {
    const share = cursor?.share ?? null;
    line.current?.setAttribute('visibility', share === null ? 'hidden' : 'visible');
    if (share === null) return;
    line.current?.setAttribute('x1', String(xAt(share)));
    line.current?.setAttribute('x2', String(xAt(share)));
  }, [cursor]);
  const drag = (event: PointerEvent<SVGSVGElement>): void => {
    if (cursor === null || svg.current === null || (event.type === 'pointermove' && event.buttons === 0))
      return;
    cursor.pause();
    cursor.go(shareAt(svg.current, event.clientX));
  };
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${PLOT.width} ${PLOT.height}`}
      className="w-full touch-pan-y select-none"
      role="img"
      aria-label={label}
      onPointerDown={drag}
      onPointerMove={drag}
    >
      {ticksOf(axis).map((t) => (
        <g key={t}>
          <line
            x1={PLOT.left}
            x2={PLOT.width - PLOT.right}
            y1={yAt(axis, t)}
            y2={yAt(axis, t)}
            stroke="var(--color-line-2)"
          />
          <text
            x={PLOT.left - 4}
            y={yAt(axis, t) + 4}
            textAnchor="end"
            fontSize="11"
            fill="var(--color-ink-2)"
          >
            {t}
          </text>
        </g>
      ))}
      <text x={2} y={11} fontSize="11" fill="var(--color-ink-2)">
        {unit}
      </text>
      {children}
      <text x={PLOT.left} y={PLOT.height - 4} fontSize="11" fill="var(--color-ink-2)">
        {under[0]}
      </text>
      <text
        x={PLOT.width - PLOT.right}
        y={PLOT.height - 4}
        textAnchor="end"
        fontSize="11"
        fill="var(--color-ink-2)"
      >
        {under[1]}
      </text>
      {cursor !== null && <CursorLine line={line} draw={draw} cursor={cursor} />}
    </svg>
  );
}

function CursorLine({
  line,
  draw,
  cursor,
}: {
  line: React.RefObject<SVGLineElement | null>;
  draw: () => void;
  cursor: Cursor;
}) {
  useCursor(cursor, draw);
  return (
    <line
      ref={line}
      y1={PLOT.top}
      y2={PLOT.height - PLOT.bottom}
      stroke="var(--color-ink)"
      strokeWidth="1.5"
      visibility="hidden"
    />
  );
}
