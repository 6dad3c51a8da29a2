import { betweenSide, drawFigure, limitProblems, solvePose } from '@heathstep/core';
import { loadContent } from './index.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const { figures } = loaded.content;
const FRAMES = [0, 0.1, 0.3, 0.5, 0.7, 0.9, 1];
const sides = figures.flatMap((f) => (f.view === 'side' ? [[f.exercise, f] as const] : []));

describe('figures of the exercises', () => {
  it.each(sides)('%s: every joint within what it can do, at each moment', (_key, f) => {
    for (const t of FRAMES) expect(limitProblems(solvePose(betweenSide(f.start, f.end, t)))).toEqual([]);
  });

  it.each(sides)(
    '%s: feet that rest stand on the floor or on what is drawn below them, never in it',
    (_key, f) => {
      const heights = [
        0,
        ...f.props.flatMap((p) => (p.kind === 'step' ? [p.height] : p.kind === 'ball' ? [p.radius * 2] : [])),
      ];
      for (const t of [0, 1]) {
        const s = solvePose(t === 0 ? f.start : f.end);
        for (const leg of [s.near, s.far]) {
          if (leg === null || !leg.placed) continue;
          const lowest = Math.min(leg.ball[1], leg.heel[1]);
          expect(Math.min(...heights.map((h) => Math.abs(h - lowest)))).toBeLessThan(0.6);
        }
      }
      for (const t of FRAMES) {
        const s = solvePose(betweenSide(f.start, f.end, t));
        for (const leg of [s.near, s.far])
          if (leg !== null) expect(Math.min(leg.ball[1], leg.heel[1], leg.ankle[1])).toBeGreaterThan(-1);
      }
    },
  );

  it('are no two the same picture', () => {
    const drawn = figures.map((f) => JSON.stringify(drawFigure(f, 1, true).shapes));
    expect(new Set(drawn).size).toBe(drawn.length);
  });

  it('are each under 6 KB', () => {
    for (const f of figures)
      expect([f.exercise, JSON.stringify(drawFigure(f, 1, true)).length < 6144]).toEqual([f.exercise, true]);
  });
});
