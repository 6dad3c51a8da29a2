import fc from 'fast-check';
import type { ExerciseDefinition } from './definition.js';
import { circular, risesOf, rungsOf, unreachable } from './ladder.js';

type Rung = Pick<ExerciseDefinition, 'key' | 'ladder' | 'rung' | 'after'>;

const exercises = (rungs: readonly Rung[]): ExerciseDefinition[] =>
  rungs.map((r) => ({ change: 'more', changes: ['load'], ...r }) as unknown as ExerciseDefinition);
const on = (ladder: string, rung: number, after: string[] = []): Rung => ({
  key: `${ladder}${rung}`,
  ladder,
  rung,
  after,
});
const ordered = (): boolean => true;

describe('ladders as a graph', () => {
  const all = exercises([on('a', 2), on('a', 1), on('b', 1, ['a2']), on('b', 2)]);
  const rises = risesOf(all, ordered);

  it('leads from rung to rung and from one ladder onto another', () => {
    expect(rungsOf(all, 'a').map((e) => e.key)).toEqual(['a1', 'a2']);
    expect(rises.map((r) => `${r.from}>${r.to}${r.across ? ' across' : ''}`)).toEqual([
      'a1>a2',
      'a2>b1 across',
      'b1>b2',
    ]);
    expect(rises.every((r) => r.changes.length > 0)).toBe(true);
  });

  it('reaches everything from the first rungs, and nothing of a ladder whose way in is not there', () => {
    expect(unreachable(all, rises, ordered)).toEqual([]);
    const cut = exercises([on('a', 1), on('b', 1, ['c1']), on('b', 2)]);
    expect(unreachable(cut, risesOf(cut, ordered), ordered)).toEqual(['b1', 'b2']);
  });

  it('finds a circle across ladders, wherever it is entered', () => {
    const round = exercises([on('a', 1, ['b1']), on('b', 1, ['a1']), on('c', 1)]);
    expect(circular(round, risesOf(round, ordered)).sort()).toEqual(['a1', 'b1']);
    expect(circular(all, rises)).toEqual([]);
  });

  it('does not order what stands side by side', () => {
    const side = exercises([on('s', 1), on('s', 2)]);
    expect(risesOf(side, () => false)).toEqual([]);
    expect(unreachable(side, [], () => false)).toEqual([]);
  });

  it('has no circle as long as every way onto a ladder comes from an earlier one', () => {
    const ladders = fc.array(fc.record({ rungs: fc.integer({ min: 1, max: 5 }), from: fc.nat(20) }), {
      minLength: 1,
      maxLength: 8,
    });
    fc.assert(
      fc.property(ladders, (list) => {
        const rungs = list.flatMap(({ rungs: n, from }, i) => {
          const earlier = list[from % (i + 1)];
          const way =
            i === 0 || from % (i + 1) === i || earlier === undefined ? [] : [`l${from % (i + 1)}-1`];
          return Array.from({ length: n }, (_, r): Rung => ({
            key: `l${i}-${r + 1}`,
            ladder: `l${i}`,
            rung: r + 1,
            after: r === 0 ? way : [],
          }));
        });
        const made = exercises(rungs);
        const steps = risesOf(made, ordered);
        expect(circular(made, steps)).toEqual([]);
        expect(unreachable(made, steps, ordered)).toEqual([]);
      }),
    );
  });
});
