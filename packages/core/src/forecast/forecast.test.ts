import fc from 'fast-check';
import { addDays, daysBetween } from '../quantity/day.js';
import { orThrow } from '../result/result.js';
import { type Forecast, forecast, type ForecastInput, type NoForecast } from './forecast.js';

const START = '2026-01-05';
const at = (day: number) => `${addDays(START, day)}T10:00:00`;

/** Values by day since the start. */
const series = (...points: readonly (readonly [day: number, value: number])[]) =>
  points.map(([day, value]) => ({ at: at(day), value }));

const given: ForecastInput = {
  series: series([0, 20], [14, 24], [28, 28], [42, 31.5]),
  threshold: 35,
  direction: 'more',
  sem: 0.5,
  now: at(42),
  seed: 7,
};

const made = (change: Partial<ForecastInput> = {}): Forecast => {
  const result: Forecast | NoForecast = orThrow(forecast({ ...given, ...change }));
  if ('why' in result) throw new Error(result.why);
  return result;
};

const daysAhead = (f: Forecast, from = 42) =>
  [f.lowDate, f.medianDate, f.highDate].map((d) => (d === null ? null : daysBetween(START, d) - from));

describe('when a threshold is first met', () => {
  it('is where the trend leads, with an interval about it', () => {
    const f = made();
    const [low, middle, high] = daysAhead(f);
    expect(low).toBeGreaterThan(4);
    expect(middle).toBeGreaterThan(10);
    expect(middle).toBeLessThan(35);
    expect(high).toBeGreaterThan(middle ?? 0);
    expect(f.share).toBeGreaterThan(0.85);
  });

  it('is today where the trend is there already, whichever way is better', () => {
    expect(daysAhead(made({ threshold: 25 }))).toEqual([0, 0, 0]);
    const less = { direction: 'less', series: series([0, 8], [14, 6], [28, 4], [42, 2]) } as const;
    expect(daysAhead(made({ ...less, threshold: 4 }))).toEqual([0, 0, 0]);
  });

  it.each<[string, Partial<ForecastInput>]>([
    ['goes the other way', { series: series([0, 30], [14, 27], [28, 24], [42, 21]) }],
    ['stands still', { series: series([0, 20], [14, 20], [28, 20], [42, 20]), sem: 0.2 }],
    [
      'levels off below it',
      { series: series([0, 10], [14, 18], [28, 20], [42, 20.4], [56, 20.5]), now: at(56) },
    ],
  ])('is not within a year where it %s', (_, change) => {
    const f = made(change);
    expect(f.medianDate).toBeNull();
    expect(f.highDate).toBeNull();
    expect(f.share).toBeLessThan(0.5);
  });

  it.each<[string, ForecastInput['series'], string]>([
    ['two values', series([0, 20], [14, 24]), '2 comparable values, 3 are needed'],
    ['none', [], '0 comparable values, 3 are needed'],
    ['values of one day', series([0, 20], [0, 21], [0, 22]), 'all values are of one day'],
    [
      'values that are still to come',
      series([0, 20], [50, 24], [60, 26]),
      '1 comparable values, 3 are needed',
    ],
  ])('is not said of %s', (_, values, why) => {
    expect(orThrow(forecast({ ...given, series: values }))).toEqual({ why });
  });

  it.each<[string, Partial<ForecastInput>, string]>([
    ['no error of measurement', { sem: 0 }, 'sem'],
    ['a threshold that is none', { threshold: Number.NaN }, 'threshold'],
    ['a day that is none', { now: 'soon' }, 'now'],
    ['half a seed', { seed: 1.5 }, 'seed'],
    ['a value that is none', { series: [{ at: at(0), value: Number.POSITIVE_INFINITY }] }, 'series.0.value'],
    ['a time that is none', { series: [{ at: 'x', value: 1 }] }, 'series.0.at'],
  ])('is refused by its field with %s', (_, change, path) => {
    const result = forecast({ ...given, ...change });
    expect(result.ok ? [] : result.issues.map((i) => i.path)).toEqual([path]);
  });

  it('is the same again with the same seed, and much the same with another', () => {
    expect(made()).toEqual(made());
    const [a, b] = [daysAhead(made())[1] ?? 0, daysAhead(made({ seed: 8 }))[1] ?? 0];
    expect(Math.abs(a - b)).toBeLessThanOrEqual(3);
  });

  it('asks for no order of the values', () => {
    expect(made({ series: given.series.toReversed() })).toEqual(made());
  });

  it('has a band that begins near the last value and grows wider', () => {
    const { band } = made();
    const width = band.map((b) => b.high - b.low);
    expect(band[0]?.middle).toBeCloseTo(31.5, 0);
    expect(width.at(-1)).toBeGreaterThan(width[0] ?? 0);
    expect(band.every((b) => b.low <= b.middle && b.middle <= b.high)).toBe(true);
  });

  it('holds its median within its interval, and never says a day that is past', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 90 }), fc.integer({ min: 0, max: 100 })), {
          minLength: 3,
          maxLength: 9,
        }),
        fc.integer({ min: -50, max: 150 }),
        fc.constantFrom('more' as const, 'less' as const),
        fc.integer({ min: 1, max: 20 }),
        (points, threshold, direction, sem) => {
          const now = at(90);
          const result = orThrow(
            forecast({
              series: series(...points),
              threshold,
              direction,
              sem,
              now,
              seed: 1,
              withoutBand: true,
            }),
          );
          if ('why' in result) return;
          const dates = [result.lowDate, result.medianDate, result.highDate].map((d) => d ?? '9999');
          expect(dates).toEqual(dates.toSorted());
          expect((dates[0] ?? '') >= now.slice(0, 10)).toBe(true);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('is less sure with a larger error', () => {
    const width = (sem: number) => {
      const [low, , high] = daysAhead(made({ sem }));
      return (high ?? 365) - (low ?? 365);
    };
    expect(width(2)).toBeGreaterThan(width(0.5));
  });
});
