import { bentArrow, limb } from './outline.js';
import type { FigureDefinition, Point } from './pose.js';
import { add } from './skeleton.js';

/** What a shape is; the screen and the paper give it its colour. */
export type Tone =
  | 'skin'
  | 'skin-far'
  /** Pads of the sole. */
  | 'pad'
  | 'hair'
  | 'ghost'
  | 'cloth'
  | 'cloth-far'
  | 'shirt'
  | 'prop'
  | 'prop-dark'
  | 'floor'
  | 'strap'
  | 'tendon'
  | 'press'
  | 'arrow';

export interface Shape {
  readonly tone: Tone;
  readonly d: string;
  /** Thickness in cm of a line; left out for a filled shape. */
  readonly line?: number;
}

export interface Drawing {
  /** `viewBox` of an SVG, in cm. */
  readonly box: string;
  readonly shapes: readonly Shape[];
}

/** A filled shape. */
export const fill = (tone: Tone, d: string): Shape => ({ tone, d });
/** A line of a thickness in cm. */
export const stroke = (tone: Tone, d: string, line: number): Shape => ({ tone, d, line });

/** Cues are as large on a close picture as on a whole body. */
export const cueSize = (figure: FigureDefinition): number => (figure.frame[2] - figure.frame[0]) / 100;

/** The arrows of a figure, which way it moves. */
export function arrowShapes(figure: FigureDefinition): Shape[] {
  const size = cueSize(figure);
  const arrows = [...(figure.arrow === undefined ? [] : [figure.arrow]), ...(figure.arrows ?? [])];
  return arrows.flatMap(({ from, to, bend }) => {
    const { line, head } = bentArrow(from, to, bend, size * 3.2);
    return [stroke('arrow', line, size), stroke('arrow', head, size)];
  });
}

/** A round spot of radius `r` in cm, as an SVG path. */
export const dot = (p: Point, r: number): string => limb(add(p, [-0.05, 0]), add(p, [0.05, 0]), r, r);
