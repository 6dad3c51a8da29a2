import { type MeasuredFact, ownActivities } from '@heathstep/core';
import { measuredAt } from './twoVisits.js';

const fact = (at: string, value: number | null, side: MeasuredFact['side'] = 'left'): MeasuredFact => ({
  measure: 'raises',
  side,
  value,
  at,
});

describe('two visits side by side', () => {
  it('take what was measured on the day of each, on its side, the last of two', () => {
    const facts = [
      fact('2026-03-01T10:00:00', 8),
      fact('2026-03-15T10:00:00', 11),
      fact('2026-03-15T10:20:00', 12),
      fact('2026-03-15T10:00:00', 20, 'right'),
    ];
    expect(measuredAt(facts, '2026-03-15', 'raises', 'left')?.value).toBe(12);
    expect(measuredAt(facts, '2026-03-01', 'raises', 'left')?.value).toBe(8);
    expect(measuredAt(facts, '2026-03-01', 'raises', 'right')).toBeUndefined();
    expect(measuredAt(facts, '2026-03-15', 'lunge', 'left')).toBeUndefined();
  });

  it('know unable from not taken', () => {
    expect(measuredAt([fact('2026-03-01', null)], '2026-03-01', 'raises', 'left')).toMatchObject({
      value: null,
    });
  });

  it('hold the patient’s own activities together by their words, scored or not', () => {
    const then = [
      { text: 'Dancing', ability: 4 },
      { text: 'Stairs', ability: null },
    ];
    const now = [
      { text: 'Dancing', ability: 7 },
      { text: 'Running', ability: 2 },
    ];
    expect(ownActivities(then, now)).toEqual([
      { text: 'Dancing', then: 4, now: 7 },
      { text: 'Stairs', then: null, now: null },
      { text: 'Running', then: null, now: 2 },
    ]);
    expect(ownActivities([], [])).toEqual([]);
  });
});
