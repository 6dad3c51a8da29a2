import { lightness, pressureColour, scaleTop } from './colour.js';

describe('the scale of pressure', () => {
  const shares = Array.from({ length: 101 }, (_, i) => i / 100);

  it.each([
    ['light', -1],
    ['dark', 1],
  ] as const)('on %s ground goes one way in lightness all along, so that it reads in grey', (ground, way) => {
    const grey = shares.map((s) => lightness(pressureColour(s, ground)));
    for (let i = 1; i < grey.length; i += 1)
      expect(way * ((grey[i] as number) - (grey[i - 1] as number))).toBeGreaterThanOrEqual(0);
    expect(Math.abs((grey[100] as number) - (grey[0] as number))).toBeGreaterThan(0.7);
    // A fifth of the way is told from nothing.
    expect(Math.abs((grey[20] as number) - (grey[0] as number))).toBeGreaterThan(0.05);
  });

  it('keeps to its ends outside, and ends on a round number', () => {
    expect(pressureColour(-1, 'light')).toEqual(pressureColour(0, 'light'));
    expect(pressureColour(3, 'dark')).toEqual(pressureColour(1, 'dark'));
    expect([40, 51, 200, 777, 1300].map(scaleTop)).toEqual([50, 100, 200, 800, 1500]);
  });
});
