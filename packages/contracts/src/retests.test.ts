import type { MeasureDefinition } from '@heathstep/core';
import { asEntries } from './index.js';
import { retestsOf } from './retests.js';

const lunge = {
  key: 'lunge',
  sides: 'each',
  methods: ['phone'],
  positions: ['standing'],
  trials: { count: 3, combine: 'mean' },
  direction: 'more',
  band: null,
  error: { mdc: 4.5, source: 'test' },
} as unknown as MeasureDefinition;
const measures = [lunge];
const KEY = 'lunge';

const taken = (trials: readonly number[], more: object = {}) => ({
  trials,
  status: 'taken',
  pain: null,
  ...more,
});
const of = (entries: readonly (readonly [string, unknown])[]) => retestsOf(asEntries(entries), measures);

describe('what was taken again within a visit', () => {
  it('is told with its change against the error, on its side', () => {
    const [told, ...more] = of([
      [`measure.${KEY}.left`, taken([30, 30, 30], { again: { trials: [36], pain: null } })],
      [`measure.${KEY}.right`, taken([38, 38, 38])],
    ]);
    expect(more).toEqual([]);
    expect(told).toMatchObject({
      side: 'left',
      before: 30,
      after: 36,
      change: { change: 6, class: 'real', direction: 'better' },
    });
  });

  it('is the same within the error, and nothing without both values', () => {
    expect(
      of([[`measure.${KEY}.left`, taken([30], { again: { trials: [31], pain: null } })]])[0]?.change
        .direction,
    ).toBe('same');
    expect(of([[`measure.${KEY}.left`, taken([30], { again: { trials: [], pain: null } })]])).toEqual([]);
    expect(
      of([
        [
          `measure.${KEY}.left`,
          { trials: [], status: 'unable', pain: 5, again: { trials: [12], pain: null } },
        ],
      ]),
    ).toEqual([]);
    expect(
      of([['measure.no-such-measure.left', taken([1], { again: { trials: [2], pain: null } })]]),
    ).toEqual([]);
  });
});
