import { drawFront } from './drawFront.js';
import { drawSide } from './drawSide.js';
import { drawTop } from './drawTop.js';
import { frontProblems, solveFront } from './front.js';
import { limitProblems, topProblems } from './limits.js';
import type { FigureDefinition } from './pose.js';
import type { Drawing } from './shapes.js';
import { solvePose } from './skeleton.js';
import { betweenFront, betweenSide, betweenTop } from './tween.js';

/** How thick limbs and trunk are drawn, as a share of the middle build. */
export const BUILDS = { slight: 0.88, middle: 1, broad: 1.16 } as const;

export type Build = keyof typeof BUILDS;

/** The foot a figure is drawn for; the other one is its mirror. One foot from above is a left one, all else a right one. */
export const drawnFor = (figure: FigureDefinition): 'left' | 'right' =>
  figure.view === 'top' ? 'left' : 'right';

/**
 * A figure at a moment of its movement, 0 the start and 1 the end, as shapes in cm. With a ghost the start stands behind.
 * The same shapes go to the screen and to paper.
 */
export function drawFigure(
  figure: FigureDefinition,
  t: number,
  ghost = false,
  build: Build = 'middle',
): Drawing {
  const [left, bottom, right, top] = figure.frame;
  const box = `${left} ${-top} ${right - left} ${top - bottom}`;
  const thick = BUILDS[build];
  switch (figure.view) {
    case 'side':
      return { box, shapes: drawSide(figure, t, ghost, thick) };
    case 'front':
    case 'back':
      return { box, shapes: drawFront(figure, t, ghost, thick) };
    case 'top':
    case 'sole':
      return { box, shapes: drawTop(figure, t, ghost) };
  }
}

/** A joint beyond what it can do at a moment of the movement, or a bone longer than it is. */
export interface FigureProblem {
  readonly leg: string;
  readonly joint: string;
  readonly angle: number;
}

/** What is not possible for a body at a moment of a figure, 0 the start and 1 the end. */
export function figureProblems(figure: FigureDefinition, t: number): FigureProblem[] {
  switch (figure.view) {
    case 'side':
      return limitProblems(solvePose(betweenSide(figure.start, figure.end, t)));
    case 'front':
    case 'back':
      return frontProblems(solveFront(betweenFront(figure.start, figure.end, t), figure.view));
    case 'top':
    case 'sole':
      return topProblems(betweenTop(figure.start, figure.end, t));
  }
}
