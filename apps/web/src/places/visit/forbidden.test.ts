import { type HeldTags } from '@heathstep/core';
import { forbiddenOn } from './forbidden.js';

const off = (left: string[], right: string[], held: HeldTags[] = []) =>
  ({ safety: { left, right }, held }) as Parameters<typeof forbiddenOn>[0];

const idea = (over: Partial<HeldTags> = {}): HeldTags => ({
  condition: 'bone',
  name: 'Stress of a bone',
  side: 'left',
  tags: ['impact', 'weight-bearing'],
  by: 'likely',
  dangerous: true,
  ...over,
});

describe('what is not tested now', () => {
  it('is nothing while what it needs is on', () => {
    expect(forbiddenOn(off(['heat'], []), ['impact'])).toBeNull();
    expect(forbiddenOn(off(['heat'], ['impact']), [])).toBeNull();
  });

  it('names the side, also one without a complaint', () => {
    expect(forbiddenOn(off([], ['impact']), ['impact'])).toBe(
      'Right: do not test now, safety switches off hops, jumps and running',
    );
    expect(forbiddenOn(off(['impact'], []), ['impact'])).toMatch(/^Left: do not test now/);
  });

  it('says it once where it holds for both sides, and of each where they differ', () => {
    expect(forbiddenOn(off(['impact'], ['impact']), ['impact'])).toBe(
      'Do not test now, safety switches off hops, jumps and running',
    );
    expect(forbiddenOn(off(['weight-bearing'], ['eyes-closed']), ['weight-bearing', 'eyes-closed'])).toBe(
      'Left: do not test now, safety switches off standing and walking. Right: do not test now, safety switches off eyes closed',
    );
  });

  it('follows a danger that is thought of before it is answered, and says which', () => {
    expect(forbiddenOn(off([], [], [idea()]), ['impact'])).toBe(
      'Left: do not test now, Stress of a bone is likely and keeps off hops, jumps and running',
    );
    expect(forbiddenOn(off([], [], [idea({ side: 'none', by: 'concluded' })]), ['impact'])).toBe(
      'Do not test now, Stress of a bone is concluded and keeps off hops, jumps and running',
    );
  });

  it('lets what is ours to treat be measured, though it holds back exercises', () => {
    expect(forbiddenOn(off([], [], [idea({ dangerous: false })]), ['impact'])).toBeNull();
  });
});
