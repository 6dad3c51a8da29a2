import { useEffect, useMemo, useRef } from 'react';
import {
  drawFigure,
  drawnFor,
  type FigureDefinition,
  outAndBack,
  type Side,
  type Tone,
} from '@heathstep/core';
import { lookOf, useAppearance } from './appearance.js';

/** Out and back, in seconds. */
const CYCLE_SECONDS = 4;

const fillOf = (tone: Tone): string => `var(--figure-${tone})`;

const isStill = (): boolean => window.matchMedia('(prefers-reduced-motion: reduce)').matches;

/**
 * An exercise drawn: the end with the start as a ghost behind; playing, it goes out and back while it is in view.
 * Mirrored for the foot it is not drawn for.
 */
export function Figure({
  figure,
  side,
  label,
  playing = false,
  moment,
  className,
}: {
  figure: FigureDefinition;
  side: Side;
  label: string;
  playing?: boolean;
  /** A moment of the movement, 0 the start and 1 the end, told from outside. */
  moment?: number;
  className: string;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const appearance = useAppearance();
  const { style, build } = useMemo(
    () => lookOf(appearance, 'exercise' in figure ? String(figure.exercise) : ''),
    [appearance, figure],
  );
  const moves = playing && !isStill();
  const still = useMemo(
    () =>
      moment === undefined
        ? drawFigure(figure, moves ? 0 : 1, !moves, build)
        : drawFigure(figure, moment, false, build),
    [figure, moves, moment, build],
  );
  useEffect(() => {
    const host = svg.current;
    if (!moves || host === null) return undefined;
    let frame = 0;
    let seen = true;
    const paths = [...host.querySelectorAll('path')];
    const draw = (now: number) => {
      const phase = (now / 1000 / CYCLE_SECONDS) % 1;
      drawFigure(figure, outAndBack(phase), false, build).shapes.forEach((s, i) => {
        if (paths[i]?.getAttribute('d') !== s.d) paths[i]?.setAttribute('d', s.d);
      });
      if (seen) frame = requestAnimationFrame(draw);
    };
    const watch = new IntersectionObserver(([entry]) => {
      seen = entry?.isIntersecting === true;
      cancelAnimationFrame(frame);
      if (seen) frame = requestAnimationFrame(draw);
    });
    watch.observe(host);
    return () => {
      watch.disconnect();
      cancelAnimationFrame(frame);
    };
  }, [figure, moves, build]);
  return (
    <svg
      ref={svg}
      viewBox={still.box}
      preserveAspectRatio="xMidYMax meet"
      role="img"
      aria-label={label}
      className={className}
      style={side === drawnFor(figure) ? style : { ...style, transform: 'scaleX(-1)' }}
    >
      {still.shapes.map((s, i) =>
        s.line === undefined ? (
          <path key={i} d={s.d} fill={fillOf(s.tone)} opacity={s.tone === 'ghost' ? 0.6 : undefined} />
        ) : (
          <path
            key={i}
            d={s.d}
            fill="none"
            stroke={fillOf(s.tone)}
            strokeWidth={s.line}
            strokeLinecap="round"
            strokeLinejoin="round"
          />
        ),
      )}
    </svg>
  );
}

/** The side an exercise is drawn on: the one it is for, the left when it is for both. */
export const drawnSide = (sides: string): Side => (sides === 'right' ? 'right' : 'left');
