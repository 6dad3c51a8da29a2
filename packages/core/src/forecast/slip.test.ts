import { addDays } from '../quantity/day.js';
import type { SeriesAhead } from './criteria.js';
import { slipOf } from './slip.js';

const START = '2026-01-05';
const EVERY = 14;

const input = (
  values: readonly number[],
  threshold: number,
  change: Partial<SeriesAhead> = {},
): SeriesAhead => ({
  measure: 'raises',
  side: 'left',
  as: 'measured',
  series: values.map((value, i) => ({ at: `${addDays(START, i * EVERY)}T10:00:00`, value })),
  threshold,
  direction: 'more',
  sem: 0.8,
  now: `${addDays(START, (values.length - 1) * EVERY)}T18:00:00`,
  seed: 3,
  ...change,
});

const slip = (...inputs: SeriesAhead[]) => slipOf({ text: 'raises', inputs });

describe('a forecast that slips', () => {
  it('is told when the newest value puts the criterion off beyond what was likely', () => {
    const told = slip(input([8, 12, 16, 8], 20));
    expect(told).toMatchObject({ text: 'raises' });
    // Four raises in each two weeks led to 20 within weeks.
    const was = told?.was ?? '';
    expect(was > addDays(START, 2 * EVERY) && was < addDays(START, 8 * EVERY)).toBe(true);
    const low = told?.now.lowDate ?? null;
    expect(low === null || low > addDays(was, 7)).toBe(true);
  });

  it('is none while it goes on as it went', () => {
    expect(slip(input([8, 11, 14, 17], 24))).toBeNull();
  });

  it('is none where nothing was told before: fewer than three values then, or not within a year', () => {
    expect(slip(input([8, 12, 4], 20))).toBeNull();
    expect(slip(input([12, 12, 12, 4], 40))).toBeNull();
    expect(slip()).toBeNull();
  });

  it('looks at days, not at tries: a second value of the newest day is not the one before', () => {
    const twice = input([8, 12, 16], 20);
    const at = `${addDays(START, 2 * EVERY)}T11:00:00`;
    expect(slip({ ...twice, series: [...twice.series, { at, value: 2 }] })).toBeNull();
  });

  it('is of all sides together: the last of them', () => {
    expect(slip(input([8, 11, 14, 17], 24), input([8, 12, 16, 8], 20))).not.toBeNull();
  });

  it('knows that less is better of some', () => {
    expect(slip(input([20, 16, 12, 20], 8, { direction: 'less' }))).not.toBeNull();
    expect(slip(input([20, 17, 14, 11], 8, { direction: 'less' }))).toBeNull();
  });
});
