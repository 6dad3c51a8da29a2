import { useEffect, useMemo, useRef, useState } from 'react';
import {
  drawFigure,
  drawingMarkup,
  drawnFor,
  type Drawing,
  type FigureDefinition,
  type Side,
  type Tone,
} from '@heathstep/core';
import { lookOf, useAppearance } from './appearance.js';
import { move } from './moving.js';

const toneOf = (tone: Tone): string => `var(--figure-${tone})`;

const isStill = (): boolean => window.matchMedia('(prefers-reduced-motion: reduce)').matches;

const markupOf = (drawing: Drawing): string => drawingMarkup(drawing, toneOf);

/** How far beyond the view a picture is drawn already, so that scrolling never meets an empty one. */
const AHEAD = '800px';

/** Whether something has come near the view; once it has, it stays so. */
function useNear(host: React.RefObject<SVGSVGElement | null>, lazy: boolean): boolean {
  const [near, setNear] = useState(!lazy);
  useEffect(() => {
    if (near || host.current === null) return undefined;
    const watch = new IntersectionObserver(
      ([entry]) => {
        if (entry?.isIntersecting === true) setNear(true);
      },
      { rootMargin: AHEAD },
    );
    watch.observe(host.current);
    return () => watch.disconnect();
  }, [near, host]);
  return near;
}

/**
 * An exercise drawn: the end with the start as a ghost behind; playing, it goes out and back while it is in view.
 * Mirrored for the foot it is not drawn for.
 */
export function Figure({
  figure,
  side,
  label,
  playing = false,
  lazy = false,
  moment,
  className,
}: {
  figure: FigureDefinition;
  side: Side;
  label: string;
  playing?: boolean;
  /** Drawn only when it comes near the view, for long lists. */
  lazy?: boolean;
  /** A moment of the movement, 0 the start and 1 the end, told from outside. */
  moment?: number;
  className: string;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const appearance = useAppearance();
  const near = useNear(svg, lazy);
  const { style, build } = useMemo(
    () => lookOf(appearance, 'exercise' in figure ? String(figure.exercise) : ''),
    [appearance, figure],
  );
  const moves = playing && near && !isStill();
  const markup = useMemo(() => {
    if (!near) return '';
    return markupOf(
      moment === undefined
        ? drawFigure(figure, moves ? 0 : 1, !moves, build)
        : drawFigure(figure, moment, false, build),
    );
  }, [figure, moves, moment, build, near]);
  useEffect(
    () => (moves && svg.current !== null ? move(svg.current, figure, build) : undefined),
    [figure, moves, build],
  );
  const [left, bottom, right, top] = figure.frame;
  return (
    <svg
      ref={svg}
      viewBox={`${left} ${-top} ${right - left} ${top - bottom}`}
      preserveAspectRatio="xMidYMax meet"
      role="img"
      aria-label={label}
      className={`drawn ${className}`}
      style={side === drawnFor(figure) ? style : { ...style, transform: 'scaleX(-1)' }}
      dangerouslySetInnerHTML={{ __html: markup }}
    />
  );
}

/** The side an exercise is drawn on: the one it is for, the left when it is for both. */
export const drawnSide = (sides: string): Side => (sides === 'right' ? 'right' : 'left');
