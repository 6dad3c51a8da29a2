import fc from 'fast-check';
import { drawFigure, drawnFor, figureProblems } from './draw.js';
import { FRONT_LIMITS, frontProblems, HALF, solveFront } from './front.js';
import type { FrontFigure, FrontPose, TopFigure } from './pose.js';
import { BODY, lengthOf, minus } from './skeleton.js';

const standing = (more: Partial<FrontPose> = {}): FrontPose => ({
  pelvis: [0, 90],
  trunk: 0,
  right: { foot: [-8, 0] },
  left: { foot: [8, 0] },
  ...more,
});

describe('a body from in front or behind', () => {
  it('has the right leg on the left of the drawing from in front, on the right from behind', () => {
    expect(solveFront(standing(), 'front').right.hip[0]).toBeCloseTo(-HALF.hips, 9);
    expect(solveFront(standing(), 'back').right.hip[0]).toBeCloseTo(HALF.hips, 9);
  });

  it('stands with its ankles over its feet, and higher on a rise', () => {
    const s = solveFront(standing({ right: { foot: [-8, 0], rise: 1 } }), 'front');
    expect(s.left.ankle).toEqual([8, BODY.ankleHeight]);
    expect(s.right.ankle[1]).toBe(BODY.ankleHeight + 11);
  });

  it('lies on its side with hips and shoulders above each other', () => {
    const s = solveFront(standing({ pelvis: [0, 12], trunk: 90 }), 'front');
    expect(s.right.hip[1] - s.left.hip[1]).toBeCloseTo(2 * HALF.hips, 6);
    expect(s.neck[1]).toBeCloseTo(12, 6);
  });

  it('finds a knee on the line from hip to ankle where none is given, so that no bone is too long', () => {
    const x = fc.double({ min: -20, max: 20, noNaN: true });
    fc.assert(
      fc.property(x, x, fc.double({ min: 40, max: 84, noNaN: true }), (foot, hip, height) => {
        const s = solveFront(standing({ pelvis: [hip, height], right: { foot: [foot, 0] } }), 'front');
        const whole = lengthOf(minus(s.right.hip, s.right.ankle));
        if (whole <= BODY.shin + BODY.thigh)
          expect(frontProblems(s).filter((p) => p.leg === 'right')).toEqual([]);
        expect(
          lengthOf(minus(s.right.knee, s.right.ankle)) + lengthOf(minus(s.right.hip, s.right.knee)),
        ).toBeCloseTo(whole, 6);
      }),
    );
  });

  it.each([
    ['a pelvis too high for its legs', standing({ pelvis: [0, 120] }), ['thigh', 'shin']],
    ['a sole tipped too far', standing({ right: { foot: [-8, 0], tilt: 40 } }), ['tilt']],
    ['toes turned too far in', standing({ left: { foot: [8, 0], turn: -60 } }), ['turn']],
    ['a heel lifted too far', standing({ left: { foot: [8, 0], rise: 1.2 } }), ['rise']],
  ])('refuses %s', (_what, pose, joints) => {
    const found = new Set<string>(frontProblems(solveFront(pose, 'front')).map((p) => p.joint));
    expect([...found].sort()).toEqual([...joints].sort());
  });

  it('takes what lies on the limits', () => {
    for (const joint of ['tilt', 'turn', 'rise'] as const)
      for (const value of FRONT_LIMITS[joint])
        expect(
          frontProblems(solveFront(standing({ right: { foot: [-8, 0], [joint]: value } }), 'back')),
        ).toEqual([]);
  });
});

describe('a figure from any side', () => {
  const front: FrontFigure = {
    view: 'front',
    frame: [-50, 0, 50, 170],
    props: [],
    start: standing(),
    end: standing({ right: { foot: [-8, 0], rise: 1 } }),
  };
  const top: TopFigure = {
    view: 'top',
    frame: [-10, 0, 10, 28],
    props: [],
    start: { spread: [0, 0, 0, 0, 0], lift: [0, 0, 0, 0, 0] },
    end: { spread: [-30, 0, 0, 0, 0], lift: [0, 0, 0, 0, 0] },
  };

  it('knows the foot it is drawn for', () => {
    expect([drawnFor(front), drawnFor(top), drawnFor({ ...top, view: 'sole' })]).toEqual([
      'right',
      'left',
      'right',
    ]);
  });

  it('tells a toe spread too far at the end only', () => {
    expect(figureProblems(top, 0)).toEqual([]);
    expect(figureProblems(top, 1)).toEqual([{ leg: 'foot', joint: 'toe 1', angle: -30 }]);
  });

  it('is drawn thicker or thinner by build, with as many shapes', () => {
    const [slight, broad] = [drawFigure(front, 0.5, false, 'slight'), drawFigure(front, 0.5, false, 'broad')];
    expect(slight.shapes).toHaveLength(broad.shapes.length);
    expect(slight.shapes).not.toEqual(broad.shapes);
  });

  it('draws the other foot beside it as its mirror', () => {
    const alone = drawFigure(top, 0).shapes.length;
    expect(drawFigure({ ...top, beside: 16 }, 0).shapes).toHaveLength(alone * 2);
  });

  it('shows pads only from below', () => {
    const tones = (view: 'top' | 'sole') => drawFigure({ ...top, view }, 0).shapes.map((s) => s.tone);
    expect(tones('sole')).toContain('pad');
    expect(tones('top')).not.toContain('pad');
  });
});
