import fc from 'fast-check';
import { drawFigure } from './draw.js';
import { jointAngles, limitProblems } from './limits.js';
import type { LegPose, Point, SideFigure, SidePose } from './pose.js';
import { BODY, lengthOf, minus, solvePose } from './skeleton.js';
import { betweenSide, betweenTop, outAndBack } from './tween.js';

const standing = (near: Partial<LegPose> = {}, more: Partial<SidePose> = {}): SidePose => ({
  trunk: 0,
  near: { ball: [0, 0], pitch: 0, shin: 0, thigh: 0, ...near },
  ...more,
});
const far = (p: Point, q: Point): number => lengthOf(minus(p, q));

describe('a drawn body', () => {
  it('stands upright with every joint at rest', () => {
    const { near, trunk } = solvePose(standing());
    expect(jointAngles(near, trunk)).toEqual({ ankle: 0, knee: 0, hip: 0, toes: 0 });
    expect(near.hip[1]).toBeCloseTo(BODY.ankleHeight + BODY.shin + BODY.thigh, 6);
    expect(near.heel[1]).toBeCloseTo(0, 9);
  });

  it('rises on the ball of the foot, the toes flat', () => {
    const { near, trunk } = solvePose(standing({ pitch: 35 }));
    expect(near.ball).toEqual([0, 0]);
    expect(near.heel[1]).toBeCloseTo(15 * Math.sin((35 * Math.PI) / 180), 6);
    expect(jointAngles(near, trunk)).toMatchObject({ ankle: -35, toes: 35 });
  });

  it('lifts the forefoot about the heel', () => {
    const { near } = solvePose(standing({ ball: undefined, heel: [0, 0], pitch: -20 }));
    expect(near.heel[0]).toBeCloseTo(0, 9);
    expect(near.heel[1]).toBeCloseTo(0, 9);
    expect(near.ball[1]).toBeGreaterThan(4);
  });

  const feet = fc.record({
    x: fc.double({ min: -25, max: 25, noNaN: true }),
    pitch: fc.integer({ min: 0, max: 40 }),
  });
  it('keeps both feet exactly where they rest and every bone as long as it is, wherever the hip goes', () => {
    fc.assert(
      fc.property(
        feet,
        feet,
        fc.double({ min: -20, max: 20, noNaN: true }),
        fc.double({ min: 50, max: 80, noNaN: true }),
        (a, b, x, y) => {
          const s = solvePose({
            trunk: 0,
            hip: [x, y],
            near: { ball: [a.x, 0], pitch: a.pitch },
            far: { ball: [b.x, 0], pitch: b.pitch },
          });
          for (const [leg, foot] of [
            [s.near, a],
            [s.far, b],
          ] as const) {
            if (leg === null) throw new Error('no leg');
            expect(far(leg.ball, [foot.x, 0])).toBeLessThan(1e-9);
            expect(far(leg.knee, leg.ankle)).toBeCloseTo(BODY.shin, 6);
            if (leg.short === 0) expect(far(leg.hip, leg.knee)).toBeCloseTo(BODY.thigh, 3);
            expect(leg.heel[1]).toBeGreaterThanOrEqual(-1e-9);
          }
        },
      ),
    );
  });

  it('bends the knee forward, never back', () => {
    const { near, trunk } = solvePose({ trunk: 0, hip: [-12, 70], near: { ball: [0, 0], pitch: 0 } });
    expect(jointAngles(near, trunk).knee).toBeGreaterThan(20);
  });

  it('says which joint goes too far, and when a leg does not reach', () => {
    const joints = (pose: SidePose) => limitProblems(solvePose(pose)).map((p) => `${p.leg} ${p.joint}`);
    expect(joints(standing())).toEqual([]);
    expect(joints(standing({ shin: 50, thigh: 50 }))).toEqual(['near ankle', 'near hip']);
    expect(joints(standing({ thigh: 20 }))).toContain('near knee');
    expect(joints(standing({ toes: 90 }))).toEqual(['near toes']);
    expect(joints(standing({}, { far: { ball: [90, 0], pitch: 0 } }))).toContain('far reach');
  });

  it('puts the hand where it is wanted when the arm reaches', () => {
    const s = solvePose(standing({}, { hand: [20, 110] }));
    expect(far(s.hand, [20, 110])).toBeLessThan(0.01);
    expect(far(s.hand, s.elbow)).toBeCloseTo(BODY.forearm, 6);
  });
});

describe('the movement', () => {
  const figure: SideFigure = {
    view: 'side',
    frame: [-60, -4, 60, 110],
    props: [{ kind: 'floor', from: -60, to: 60 }],
    press: ['ball'],
    arrow: { from: [-30, 4], to: [-28, 20], bend: -0.3 },
    start: standing(),
    end: standing({ pitch: 36, shin: 3 }),
  };

  it('begins and ends at its poses, and keeps the ball of the foot down all the way', () => {
    expect(betweenSide(figure.start, figure.end, 0).near.pitch).toBe(0);
    expect(betweenSide(figure.start, figure.end, 1).near.pitch).toBe(36);
    for (let t = 0; t <= 1; t += 0.1)
      expect(solvePose(betweenSide(figure.start, figure.end, t)).near.ball).toEqual([0, 0]);
  });

  it('goes out and comes back', () => {
    expect([outAndBack(0), outAndBack(0.5), outAndBack(1)].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([
      0, 1, 0,
    ]);
  });

  it('is drawn small, with the start as a ghost behind when wanted', () => {
    const plain = drawFigure(figure, 1);
    const ghosted = drawFigure(figure, 1, true);
    expect(ghosted.shapes.length).toBeGreaterThan(plain.shapes.length);
    expect(plain.shapes.some((s) => s.tone === 'ghost')).toBe(false);
    expect(JSON.stringify(ghosted).length).toBeLessThan(6 * 1024);
    for (const s of ghosted.shapes) expect(s.d).not.toMatch(/NaN|Infinity/);
    expect(plain.box).toBe('-60 -110 120 114');
  });

  it('moves toes by themselves from above', () => {
    const pose = betweenTop(
      { spread: [0, 0, 0, 0, 0], lift: [0, 0, 0, 0, 0] },
      { spread: [-10, 0, 4, 8, 20], lift: [1, 0, 0, 0, 0] },
      0.5,
    );
    expect(pose).toEqual({ spread: [-5, 0, 2, 4, 10], lift: [0.5, 0, 0, 0, 0], arch: 0, turn: 0, curl: 0 });
  });
});
