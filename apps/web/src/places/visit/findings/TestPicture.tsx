import { useId } from 'react';
import type { Side, TestPicture as Picture } from '@heathstep/core';
import { Lines, Outline } from '../../../parts/Drawn.js';
import { VIEWS } from '../../../parts/footShapes.js';

const HEIGHT = 168;

/** Where to press, as rings with a point, and how to move, as arrows, on our drawn foot of that view. */
export function TestPicture({ picture, side, label }: { picture: Picture; side: Side; label: string }) {
  const id = useId();
  const view = VIEWS.find((v) => v.key === picture.view);
  if (view === undefined) return null;
  const [, , width = 130, height = 258] = view.box.split(' ').map(Number);
  return (
    <svg
      viewBox={view.box}
      role="img"
      aria-label={label}
      height={HEIGHT}
      width={(HEIGHT * width) / height}
      style={side === 'right' ? { transform: 'scaleX(-1)' } : undefined}
      className="shrink-0 overflow-visible"
    >
      <defs>
        <marker
          id={id}
          viewBox="0 0 10 10"
          refX="7"
          refY="5"
          markerWidth="3.6"
          markerHeight="3.6"
          orient="auto"
        >
          <path d="M0 0 L10 5 L0 10 Z" fill="var(--color-heather-deep)" />
        </marker>
      </defs>
      <Outline side={side} paths={view.outline} />
      <Lines side={side} paths={view.lines ?? []} />
      {picture.move.map(([x1, y1, x2, y2], i) => (
        <line
          key={i}
          x1={x1}
          y1={y1}
          x2={x2}
          y2={y2}
          stroke="var(--color-heather-deep)"
          strokeWidth="4"
          markerEnd={`url(#${id})`}
        />
      ))}
      {picture.press.map(([x, y], i) => (
        <g key={i}>
          <circle
            cx={x}
            cy={y}
            r="9"
            fill="var(--color-paper)"
            fillOpacity="0.7"
            stroke="var(--color-heather-deep)"
            strokeWidth="2.5"
          />
          <circle cx={x} cy={y} r="3" fill="var(--color-heather-deep)" />
        </g>
      ))}
    </svg>
  );
}
