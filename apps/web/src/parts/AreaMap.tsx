import { say } from '@heathstep/core';
import { useId, useRef } from 'react';
import { Lines, Outline } from './Drawn.js';
import type { Side } from '@heathstep/core';

export interface Area {
  readonly key: string;
  readonly name: string;
  readonly shape: string;
}

/** A drawing with areas to tap, or to paint by moving on with the finger or the button held down. */
export function AreaMap({
  side,
  box,
  outline,
  areas,
  chosen,
  onChange,
  className,
  lines = [],
}: {
  side: Side;
  box: string;
  outline: readonly string[];
  areas: readonly Area[];
  chosen: readonly string[];
  onChange: (area: string, on: boolean) => void;
  className: string;
  lines?: readonly string[];
}) {
  const clip = useId();
  /** Whether moving on marks or clears; null while nothing is pressed. */
  const paints = useRef<boolean | null>(null);
  return (
    <svg
      viewBox={box}
      className={`${className} touch-none select-none`}
      style={side === 'right' ? { transform: 'scaleX(-1)' } : undefined}
      onPointerUp={() => (paints.current = null)}
      onPointerLeave={() => (paints.current = null)}
    >
      <defs>
        <clipPath id={clip}>
          {outline.map((d) => (
            <path key={d} d={d} />
          ))}
        </clipPath>
      </defs>
      <Outline side={side} paths={outline} />
      <Lines side={side} paths={lines} />
      <g clipPath={`url(#${clip})`}>
        {areas.map((area) => {
          const on = chosen.includes(area.key);
          return (
            <path
              key={area.key}
              d={area.shape}
              role="checkbox"
              aria-checked={on}
              aria-label={`${area.name}, ${say(side)}`}
              tabIndex={0}
              fill={on ? 'var(--color-ease)' : 'transparent'}
              fillOpacity={0.8}
              stroke={`var(--color-${side})`}
              strokeOpacity="0.35"
              strokeWidth="1"
              strokeDasharray="2 4"
              className="cursor-pointer outline-none hover:opacity-80 [&:focus-visible]:stroke-heather [&:focus-visible]:stroke-[4] [&:focus-visible]:[stroke-dasharray:none] [&:focus-visible]:[stroke-opacity:1]"
              onPointerDown={(event) => {
                // A finger holds on to what it pressed first unless it is let go here.
                event.currentTarget.releasePointerCapture(event.pointerId);
                paints.current = !on;
                onChange(area.key, !on);
              }}
              onPointerEnter={() => {
                if (paints.current !== null && paints.current !== on) onChange(area.key, paints.current);
              }}
              onClick={(event) => {
                // A press was told at its start; this is a screen reader's.
                if (event.detail === 0) onChange(area.key, !on);
              }}
              onKeyDown={(event) => {
                if (event.key !== 'Enter' && event.key !== ' ') return;
                event.preventDefault();
                onChange(area.key, !on);
              }}
            />
          );
        })}
      </g>
    </svg>
  );
}

/** The letter and word of a side under its drawing. */
export function SideCaption({ side }: { side: Side }) {
  return (
    <figcaption className="text-center font-semibold" style={{ color: `var(--color-${side})` }}>
      {side === 'left' ? 'L' : 'R'} <span className="font-normal">{say(side)}</span>
    </figcaption>
  );
}
