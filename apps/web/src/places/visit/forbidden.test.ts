import { type HeldTags } from '@heathstep/core';
import { forbiddenOn } from './forbidden.js';

const off = (left: string[], right: string[], held: HeldTags[] = []) =>
  ({ safety: { left, right }, held, early: { left: null, right: null } }) as Parameters<
    typeof forbiddenOn
  >[0];

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
    expect(forbiddenOn(off(['heat'], []), { needs: ['impact'] })).toBeNull();
    expect(forbiddenOn(off(['heat'], ['impact']), { needs: [] })).toBeNull();
  });

  it('names the side, also one without a complaint', () => {
    expect(forbiddenOn(off([], ['impact']), { needs: ['impact'] })).toBe(
      'Right: do not test now, safety switches off hops, jumps and running',
    );
    expect(forbiddenOn(off(['impact'], []), { needs: ['impact'] })).toMatch(/^Left: do not test now/);
  });

  it('says it once where it holds for both sides, and of each where they differ', () => {
    expect(forbiddenOn(off(['impact'], ['impact']), { needs: ['impact'] })).toBe(
      'Do not test now, safety switches off hops, jumps and running',
    );
    expect(
      forbiddenOn(off(['weight-bearing'], ['eyes-closed']), { needs: ['weight-bearing', 'eyes-closed'] }),
    ).toBe(
      'Left: do not test now, safety switches off standing and walking. Right: do not test now, safety switches off eyes closed',
    );
  });

  it('follows a danger that is thought of before it is answered, and says which', () => {
    expect(forbiddenOn(off([], [], [idea()]), { needs: ['impact'] })).toBe(
      'Left: do not test now, Stress of a bone is likely and keeps off hops, jumps and running',
    );
    expect(forbiddenOn(off([], [], [idea({ side: 'none', by: 'concluded' })]), { needs: ['impact'] })).toBe(
      'Do not test now, Stress of a bone is concluded and keeps off hops, jumps and running',
    );
  });

  it('lets what is ours to treat be measured, though it holds back exercises', () => {
    expect(forbiddenOn(off([], [], [idea({ dangerous: false })]), { needs: ['impact'] })).toBeNull();
  });

  it('waits for another day on the treated side while it is fresh, and lets the other side be tested', () => {
    const fresh = { ...off([], []), early: { left: 'it is fresh', right: null } };
    expect(forbiddenOn(fresh, { needs: ['impact'] })).toBe('Left: too early today, it is fresh');
    expect(forbiddenOn(fresh, { needs: ['weight-bearing'] })).toBeNull();
    expect(forbiddenOn(fresh, { needs: ['weight-bearing'], strenuous: true })).toMatch(/^Left: too early/);
  });

  it('says that safety switches it off before that it is too early', () => {
    const fresh = { ...off(['impact'], []), early: { left: 'it is fresh', right: null } };
    expect(forbiddenOn(fresh, { needs: ['impact'] })).toMatch(/^Left: do not test now, safety/);
  });
});
