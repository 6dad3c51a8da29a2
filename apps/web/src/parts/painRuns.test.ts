import { painRuns } from './painRuns.js';

const DAYS = ['2026-03-01', '2026-03-02', '2026-03-03', '2026-03-04', '2026-03-05'];

describe('the line of morning pain', () => {
  it('is broken where a morning was not answered, and never drawn through what is not known', () => {
    const pain = new Map([
      ['2026-03-01', 4],
      ['2026-03-02', 3],
      ['2026-03-04', 0],
      ['2026-02-01', 9],
    ]);
    expect(painRuns(DAYS, pain)).toEqual([
      [
        { at: 0, pain: 4 },
        { at: 1, pain: 3 },
      ],
      [{ at: 3, pain: 0 }],
    ]);
  });

  it('is none where nothing was answered', () => {
    expect(painRuns(DAYS, new Map())).toEqual([]);
  });
});
