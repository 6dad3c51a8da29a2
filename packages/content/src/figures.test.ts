import {
  betweenFront,
  betweenSide,
  drawFigure,
  type FigureDefinition,
  figureProblems,
  solveFront,
  solvePose,
} from '@heathstep/core';
import { loadContent } from './index.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const { figures } = loaded.content;
const FRAMES = Array.from({ length: 21 }, (_, i) => i / 20);
const all = figures.map((f) => [f.exercise, f] as const);
const bodies = all.filter(([, f]) => f.view !== 'top' && f.view !== 'sole');

interface Resting {
  /** The point that carries, and the lowest of foot and ankle, in cm above the floor. */
  readonly at: number;
  readonly lowest: number;
}

/** Feet that rest on something at a moment. */
function resting(f: FigureDefinition, t: number): Resting[] {
  if (f.view === 'side') {
    const pose = betweenSide(f.start, f.end, t);
    const s = solvePose(pose);
    return [[s.near, pose.near] as const, [s.far, pose.far] as const].flatMap(([leg, given]) => {
      if (leg === null || given === undefined || !leg.placed) return [];
      const carries =
        given.ball === undefined || (given.rock === true && given.pitch < 0) ? leg.heel : leg.ball;
      return [{ at: carries[1], lowest: Math.min(leg.ball[1], leg.heel[1]) }];
    });
  }
  if (f.view !== 'front' && f.view !== 'back') return [];
  const s = solveFront(betweenFront(f.start, f.end, t), f.view);
  return [s.right, s.left].flatMap((leg) => (leg.free ? [] : [{ at: leg.foot[1], lowest: leg.foot[1] }]));
}

/** The lowest point of any foot from the side, resting or free. */
function lowest(f: FigureDefinition, t: number): number {
  if (f.view !== 'side') return 0;
  const s = solvePose(betweenSide(f.start, f.end, t));
  return Math.min(
    ...[s.near, s.far].flatMap((leg) =>
      leg === null ? [] : [leg.heel[1], leg.ball[1], leg.toeTip[1], leg.knee[1] - 6],
    ),
  );
}

/** Heights of what can carry a foot. */
const supports = (f: FigureDefinition): number[] => [
  0,
  ...f.props.flatMap((p) => {
    if (p.kind === 'step' || p.kind === 'cushion') return [p.height];
    // Pedals, down and up.
    if (p.kind === 'bike') return [p.crank[1] - 14, p.crank[1] + 16];
    return p.kind === 'ball' ? [p.radius * 2] : [];
  }),
];

const numbersOf = (d: string): number[] => (d.match(/-?(\d+(\.\d+)?|\.\d+)/g) ?? []).map(Number);

/** The picture as it stands in a page, without its colours. */
const asSvg = (f: FigureDefinition): string =>
  drawFigure(f, 1, true)
    .shapes.map((s) =>
      s.line === undefined
        ? `<path class="${s.tone}" d="${s.d}"/>`
        : `<path class="${s.tone}" stroke-width="${s.line}" d="${s.d}"/>`,
    )
    .join('');

describe('figures of the exercises', () => {
  it.each(all)('%s: every joint within what it can do, at each moment', (_key, f) => {
    const wrong = FRAMES.flatMap((t) => figureProblems(f, t).map((p) => [t, p]));
    expect(wrong).toEqual([]);
  });

  it.each(bodies)(
    '%s: feet that rest stand on the floor or on what is drawn below them, at each moment',
    (_key, f) => {
      const [first, last] = [resting(f, 0), resting(f, 1)];
      // A foot that steps from one height to another is in the air between.
      const steps = first.map((foot, i) => Math.abs(foot.at - (last[i]?.at ?? foot.at)) > 1);
      const astray = FRAMES.flatMap((t) =>
        resting(f, t).flatMap(({ at }, i) => {
          if (steps[i] === true && t > 0 && t < 1) return [];
          return Math.min(...supports(f).map((h) => Math.abs(h - at))) < 1 ? [] : [[t, i, at]];
        }),
      );
      expect(astray).toEqual([]);
    },
  );

  it.each(bodies)('%s: no part of a resting foot sinks into the floor', (_key, f) => {
    const depths = FRAMES.flatMap((t) => resting(f, t).map((r) => r.lowest));
    expect(Math.min(0, ...depths)).toBeGreaterThan(-0.6);
  });

  it.each(bodies)('%s: no foot, toe or knee goes through the floor', (_key, f) => {
    expect(Math.min(0, ...FRAMES.map((t) => lowest(f, t)))).toBeGreaterThan(-1.6);
  });

  it.each(all)('%s: moves without a jump, and starts and ends apart', (_key, f) => {
    const frames = FRAMES.map((t) => drawFigure(f, t).shapes.map((s) => numbersOf(s.d)));
    const jumps = frames.flatMap((frame, i) => {
      const before = frames[i - 1] ?? frame;
      if (frame.length !== before.length)
        return [`moment ${i}: ${before.length} shapes, then ${frame.length}`];
      return frame.flatMap((now, n) => {
        const then = before[n] ?? [];
        if (now.length !== then.length) return [`moment ${i}, shape ${n}: another outline`];
        const most = Math.max(0, ...now.map((v, k) => Math.abs(v - (then[k] ?? 0))));
        return most < 10 ? [] : [`moment ${i}, shape ${n}: jumps by ${most}`];
      });
    });
    expect(jumps).toEqual([]);
    expect(frames[0]).not.toEqual(frames.at(-1));
  });

  it('are no two the same picture', () => {
    const drawn = figures.map((f) => JSON.stringify(drawFigure(f, 1, true).shapes));
    expect(new Set(drawn).size).toBe(drawn.length);
  });

  it.each(all)('%s: under 6 KB as a picture in a page', (_key, f) => {
    expect(asSvg(f).length).toBeLessThan(6144);
  });
});
