import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { drawingMarkup, PAPER_COLOURS, shownSide } from './markup.js';

const TOKENS = join(__dirname, '..', '..', '..', '..', 'apps', 'web', 'src', 'app', 'tokens.css');

describe('figures on paper', () => {
  it('has the colours of the screen in the light', () => {
    const [light = ''] = readFileSync(TOKENS, 'utf8').split(/prefers-color-scheme|\[data-theme/);
    for (const [tone, colour] of Object.entries(PAPER_COLOURS))
      expect(`${tone} ${new RegExp(`--figure-${tone}: (#[0-9a-f]+)`).exec(light)?.[1] ?? ''}`).toBe(
        `${tone} ${colour}`,
      );
  });

  it('draws filled shapes and lines, the start paler', () => {
    const shapes = [
      { tone: 'skin', d: 'M0 0' },
      { tone: 'ghost', d: 'M1 1' },
      { tone: 'arrow', d: 'M2 2', line: 1.5 },
    ] as const;
    const text = drawingMarkup({ box: '0 0 1 1', shapes }, (tone) => `#${tone}`);
    expect(text).toBe(
      '<path d="M0 0" fill="#skin"/><path d="M1 1" fill="#ghost" opacity="0.6"/>' +
        '<path d="M2 2" fill="none" stroke="#arrow" stroke-width="1.5" stroke-linecap="round" stroke-linejoin="round"/>',
    );
  });

  it.each([
    ['left', 'left'],
    ['right', 'right'],
    ['together', null],
    ['one-after-other', null],
  ] as const)('%s is shown on %s', (sides, side) => expect(shownSide(sides)).toBe(side));
});
