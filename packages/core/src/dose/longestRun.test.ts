import { runRise } from './longestRun.js';

const today = '2026-05-31';

describe('one run against the longest of the last 30 days', () => {
  it.each([
    // minutes, the longest done, over
    [22, 20, false],
    [22.1, 20, true],
    [11, 10, false],
    [12, 10, true],
    [0, 20, false],
    [5, 2, false],
    [5.1, 2, true],
  ])('%d min after %d min: over %p', (minutes, longest, over) =>
    expect(
      runRise(
        minutes,
        [
          { day: '2026-05-20', minutes: longest },
          { day: '2026-05-29', minutes: longest / 2 },
        ],
        today,
      ),
    ).toMatchObject({ longestMinutes: longest, over }),
  );

  it('counts 30 days with today, not the day before them and not what lies ahead', () => {
    const on = (day: string) => runRise(30, [{ day, minutes: 20 }], today).longestMinutes;
    expect(['2026-05-01', '2026-05-02', '2026-05-31', '2026-06-01'].map(on)).toEqual([null, 20, 20, null]);
  });

  it('compares with nothing where nothing was run: it says no limit, not a limit of none', () =>
    expect(runRise(30, [{ day: today, minutes: 0 }], today)).toEqual({
      longestMinutes: null,
      mostMinutes: null,
      over: false,
    }));
});
