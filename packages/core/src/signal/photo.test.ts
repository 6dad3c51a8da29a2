import fc from 'fast-check';
import { PHOTO_CONSTRUCTIONS, photoValue, raterError, type Landmarks } from './photo.js';

const rad = (deg: number) => (deg * Math.PI) / 180;

/** Heel from behind with its line turned outward by an angle, the shin straight down. */
const heel = (deg: number, side: 'left' | 'right'): Landmarks => {
  const out = side === 'left' ? -1 : 1;
  return {
    'shin-upper': { x: 300, y: 100 },
    'shin-lower': { x: 300, y: 500 },
    'heel-upper': { x: 300, y: 560 },
    'heel-lower': { x: 300 + out * 200 * Math.sin(rad(deg)), y: 560 + 200 * Math.cos(rad(deg)) },
  };
};
const hallux = (deg: number, side: 'left' | 'right'): Landmarks => {
  const lateral = side === 'left' ? -1 : 1;
  return {
    base: { x: 300, y: 700 },
    head: { x: 300, y: 400 },
    toe: { x: 300 + lateral * 180 * Math.sin(rad(deg)), y: 400 - 180 * Math.cos(rad(deg)) },
  };
};
const value = (key: string, landmarks: Landmarks, side: 'left' | 'right', ruler: number | null = null) => {
  const result = photoValue(key, landmarks, side, ruler);
  if (result.value === null) throw new Error(result.missing.join());
  return result;
};

describe('constructions on a picture', () => {
  it.each([
    [8, 'left'],
    [8, 'right'],
    [-5, 'left'],
    [0, 'right'],
  ] as const)('a heel %d degrees outward on the %s', (deg, side) => {
    expect(value('heel-to-shin', heel(deg, side), side).value).toBeCloseTo(deg, 6);
  });

  it.each([
    [27, 'left'],
    [27, 'right'],
    [-4, 'right'],
  ] as const)('a big toe leaning %d degrees on the %s', (deg, side) => {
    expect(value('hallux-angle', hallux(deg, side), side).value).toBeCloseTo(deg, 6);
  });

  it('toe-out against the line of walking, outward positive on both sides', () => {
    const marks = (out: number): Landmarks => ({
      'line-back': { x: 300, y: 900 },
      'line-front': { x: 300, y: 100 },
      heel: { x: 280, y: 700 },
      'second-toe': { x: 280 + out * 400 * Math.sin(rad(19)), y: 700 - 400 * Math.cos(rad(19)) },
    });
    expect(value('toe-out', marks(-1), 'left').value).toBeCloseTo(19, 6);
    expect(value('toe-out', marks(1), 'right').value).toBeCloseTo(19, 6);
  });

  it('height of the navicular by the ruler in the picture, with the floor at any slope', () => {
    const marks: Landmarks = {
      'ruler-a': { x: 700, y: 800 },
      'ruler-b': { x: 700, y: 300 },
      navicular: { x: 400, y: 630 },
      'floor-a': { x: 100, y: 800 },
      'floor-b': { x: 600, y: 800 },
    };
    expect(value('navicular-height', marks, 'left', 100).value).toBeCloseTo(34, 6);
    expect(photoValue('navicular-height', marks, 'left', null)).toEqual({
      value: null,
      missing: ['length of the ruler'],
    });
  });

  it('arch height index: height half way over the length to the metatarsal head', () => {
    const marks: Landmarks = {
      heel: { x: 100, y: 500 },
      head: { x: 500, y: 500 },
      dorsum: { x: 300, y: 368 },
    };
    expect(value('arch-height', marks, 'left').value).toBeCloseTo(0.33, 9);
  });

  it.each([
    [80, -1],
    [100, 0],
    [150, 0],
    [190, 0],
    [191, 1],
  ])('a shin line that lands at %d is level %d', (x, level) => {
    const marks: Landmarks = {
      'shin-upper': { x, y: 0 },
      'shin-lower': { x, y: 400 },
      'inner-border': { x: 100, y: 600 },
      'second-third': { x: 190, y: 600 },
    };
    expect(value('shin-line', marks, 'left').value).toBe(level);
  });

  it('a level near its border says that a pointing error could change it', () => {
    const marks = (x: number): Landmarks => ({
      'shin-upper': { x, y: 0 },
      'shin-lower': { x, y: 400 },
      'inner-border': { x: 100, y: 600 },
      'second-third': { x: 190, y: 600 },
    });
    expect(value('shin-line', marks(101), 'left').plusMinus).toBe(1);
    expect(value('shin-line', marks(145), 'left').plusMinus).toBe(0);
  });

  it('the uncertainty is the root sum of squares of 2 px in every coordinate', () => {
    // Two lines of 200 and 400 px meeting straight: each end moves its line by 2 px across.
    const expected = Math.hypot(...[400, 400, 200, 200].map((l) => (Math.atan2(2, l) * 180) / Math.PI));
    expect(value('heel-to-shin', heel(0, 'left'), 'left').plusMinus).toBeCloseTo(expected, 3);
  });

  it('is finer on a larger picture of the same thing, and does not change with where it lies', () => {
    fc.assert(
      fc.property(fc.integer({ min: -30, max: 30 }), fc.integer({ min: 1, max: 5 }), (deg, by) => {
        const small = heel(deg, 'right');
        const moved = Object.fromEntries(
          Object.entries(small).map(([k, p]) => [k, { x: p.x * by + 40, y: p.y * by + 9 }]),
        );
        const [a, b] = [value('heel-to-shin', small, 'right'), value('heel-to-shin', moved, 'right')];
        expect(b.value).toBeCloseTo(a.value, 6);
        expect(b.plusMinus).toBeLessThanOrEqual(a.plusMinus + 1e-9);
      }),
    );
  });

  it('names every landmark that is still missing', () => {
    for (const c of PHOTO_CONSTRUCTIONS) {
      const result = photoValue(c.key, {}, 'left', null);
      expect(result.value).toBeNull();
      if (result.value === null) expect(result.missing.length).toBeGreaterThanOrEqual(c.landmarks.length);
    }
    expect(photoValue('magic', {}, 'left', null)).toEqual({
      value: null,
      missing: ['a construction called magic'],
    });
  });
});

describe('the rater’s own error', () => {
  it('is the standard deviation of repeated placements, not known for one', () => {
    expect(raterError([10, 12, 14])).toBeCloseTo(2, 9);
    expect(raterError([10])).toBeNull();
  });
});
