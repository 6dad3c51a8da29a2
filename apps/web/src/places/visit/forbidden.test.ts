import { forbiddenOn } from './forbidden.js';

describe('what is not tested now', () => {
  it('is nothing while what it needs is on', () => {
    expect(forbiddenOn({ left: ['heat'], right: [] }, ['impact'])).toBeNull();
    expect(forbiddenOn({ left: ['heat'], right: ['impact'] }, [])).toBeNull();
  });

  it('names the side, also one without a complaint', () => {
    expect(forbiddenOn({ left: [], right: ['impact'] }, ['impact'])).toBe(
      'Right: do not test now, safety switches off hops, jumps and running',
    );
    expect(forbiddenOn({ left: ['impact'], right: [] }, ['impact'])).toMatch(/^Left: do not test now/);
  });

  it('names all that is off where both sides are', () => {
    expect(
      forbiddenOn({ left: ['weight-bearing'], right: ['eyes-closed'] }, ['weight-bearing', 'eyes-closed']),
    ).toBe('Do not test now, safety switches off standing and walking, eyes closed');
  });
});
