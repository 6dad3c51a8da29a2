import type { DoseSides } from '../dose/dose.js';
import { drawFigure, drawnFor } from './draw.js';
import type { FigureDefinition } from './pose.js';
import type { Drawing, Tone } from './shapes.js';

/** Colours of a figure on light paper; the screen has its own for the dark. */
export const PAPER_COLOURS: Readonly<Record<Tone, string>> = {
  skin: '#dba887',
  'skin-far': '#c08e6f',
  pad: '#e8bfa4',
  hair: '#4a3a30',
  ghost: '#d9cbb9',
  cloth: '#3d5a48',
  'cloth-far': '#2f4638',
  shirt: '#8a7f9c',
  prop: '#d8cfbd',
  'prop-dark': '#9c9180',
  floor: '#a79c89',
  strap: '#7f9bb5',
  tendon: '#a5402f',
  press: '#55386a',
  arrow: '#55386a',
};

/** The shapes of a drawing as SVG markup: only numbers, and colours of our own. */
export const drawingMarkup = (drawing: Drawing, colourOf: (tone: Tone) => string): string =>
  drawing.shapes
    .map((s) =>
      s.line === undefined
        ? `<path d="${s.d}" fill="${colourOf(s.tone)}"${s.tone === 'ghost' ? ' opacity="0.6"' : ''}/>`
        : `<path d="${s.d}" fill="none" stroke="${colourOf(s.tone)}" stroke-width="${s.line}" stroke-linecap="round" stroke-linejoin="round"/>`,
    )
    .join('');

/** The foot an exercise is shown on: the treated one, else the one it is drawn for. */
export const shownSide = (sides: DoseSides): 'left' | 'right' | null =>
  sides === 'left' || sides === 'right' ? sides : null;

/** A figure at the end of its movement with the start behind, as a picture for paper; mirrored for the other foot. */
export function figureSvg(figure: FigureDefinition, sides: DoseSides): string {
  const drawing = drawFigure(figure, 1, true);
  const [left = 0, , width = 0] = drawing.box.split(' ').map(Number);
  const side = shownSide(sides);
  const shapes = drawingMarkup(drawing, (tone) => PAPER_COLOURS[tone]);
  const mirrored = side !== null && side !== drawnFor(figure);
  const body = mirrored ? `<g transform="matrix(-1 0 0 1 ${2 * left + width} 0)">${shapes}</g>` : shapes;
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${drawing.box}">${body}</svg>`;
}
