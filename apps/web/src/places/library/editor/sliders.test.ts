import fc from 'fast-check';
import { loadContent } from '@heathstep/content';
import { type FigureDefinition, figureProblems } from '@heathstep/core';
import { NEW_PROPS, slidersOf, slidersOfFrame, slidersOfProp, withinLimits, withValue } from './sliders.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error('content');
const { figures } = loaded.content;
const figureOf = (key: string): FigureDefinition => {
  const found = figures.find((f) => f.exercise === key);
  if (found === undefined) throw new Error(key);
  return found;
};
const problemsOf = (f: FigureDefinition) => [0, 0.25, 0.5, 0.75, 1].flatMap((t) => figureProblems(f, t));

describe('composing a figure', () => {
  it.each(figures.map((f) => [f.exercise, f] as const))(
    '%s: every number of its poses can be set',
    (_key, f) => {
      for (const pose of ['start', 'end'] as const) {
        const sliders = slidersOf(f, pose);
        expect(sliders.length).toBeGreaterThan(4);
        for (const s of sliders) {
          expect([s.path, s.value >= s.min && s.value <= s.max]).toEqual([s.path, true]);
          expect(s.label).not.toBe('');
        }
      }
    },
  );

  it('sets one number and leaves the others', () => {
    const f = figureOf('raise-two-legs');
    const changed = withValue(f, ['end', 'near', 'pitch'], 20);
    expect(changed).toMatchObject({ end: { near: { pitch: 20, ball: [0, 0] } }, start: f.start });
    expect(withValue(f, ['frame', 0], -10).frame).toEqual([-10, ...f.frame.slice(1)]);
    expect(f).toBe(figureOf('raise-two-legs'));
  });

  it('stops a joint at its limit and says which', () => {
    const f = figureOf('raise-two-legs');
    const heel = slidersOf(f, 'end').find((s) => s.path.join('.') === 'end.near.pitch');
    if (heel === undefined) throw new Error('no heel');
    const { figure, held } = withinLimits(f, heel, 120);
    expect(problemsOf(figure)).toEqual([]);
    expect(held).toMatch(/^(near|far) (ankle|toes|reach)$/);
    const pitch = (figure as { end: { near: { pitch: number } } }).end.near.pitch;
    expect(pitch).toBeGreaterThan(36);
    expect(pitch).toBeLessThan(90);
  });

  it('never lets a body do what it cannot, whatever is pulled wherever', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('raise-two-legs', 'hop-side', 'toe-spread', 'calf-belt', 'dance-releve'),
        fc.array(fc.tuple(fc.nat(60), fc.double({ min: 0, max: 1, noNaN: true })), {
          minLength: 1,
          maxLength: 6,
        }),
        (key, pulls) => {
          let figure = figureOf(key);
          for (const [which, share] of pulls) {
            const sliders = slidersOf(figure, which % 2 === 0 ? 'start' : 'end');
            const slider = sliders[which % sliders.length];
            if (slider !== undefined)
              ({ figure } = withinLimits(figure, slider, slider.min + share * (slider.max - slider.min)));
          }
          expect(problemsOf(figure)).toEqual([]);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('lets what stands beside the body be moved and sized', () => {
    expect(
      slidersOfProp({ kind: 'step', from: 0, to: 20, height: 10 }, 2).map((s) => s.path.join('.')),
    ).toEqual(['props.2.from', 'props.2.to', 'props.2.height']);
    expect(slidersOfProp({ kind: 'ball', at: [1, 2], radius: 3 }, 0)).toHaveLength(3);
    expect(slidersOfProp({ kind: 'weight', at: 'knee' }, 0)).toEqual([]);
    expect(slidersOfFrame(figureOf('pogo'))).toHaveLength(4);
    expect(Object.values(NEW_PROPS).every((p) => p.kind.length > 0)).toBe(true);
  });
});
