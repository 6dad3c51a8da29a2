import fc from 'fast-check';
import { metresBetween, outingOf, type TrackPoint } from './outing.js';
import { countedRuns, impactDaysWith, impactWith, ranOn, riseOfRun } from './ran.js';

const START = Date.UTC(2026, 10, 20, 7);
/** Metres of one degree along a meridian, on the sphere that is reckoned with. */
const DEGREE = (6_371_008.8 * Math.PI) / 180;

/** A way to the north: so many seconds at so many metres a second, a point every second, one after the other. */
function way(parts: readonly (readonly [seconds: number, speed: number])[], from = START): TrackPoint[] {
  const points: TrackPoint[] = [{ at: from, lat: 54, lon: -2, altitude: 100 }];
  for (const [seconds, speed] of parts)
    for (let s = 0; s < seconds; s++) {
      const last = points.at(-1);
      if (last === undefined) break;
      points.push({ ...last, at: last.at + 1000, lat: last.lat + speed / DEGREE });
    }
  return points;
}

const figures = (points: readonly TrackPoint[]) => {
  const read = outingOf(points);
  if (!read.ok) throw new Error(JSON.stringify(read.issues));
  return read.value;
};

describe('a recorded way', () => {
  it('is as long as the earth is round: a degree of latitude is 111.2 km, a degree of longitude at 60° half of it', () => {
    const at = (lat: number, lon: number): TrackPoint => ({ at: 0, lat, lon, altitude: null });
    expect(metresBetween(at(0, 0), at(1, 0))).toBeCloseTo(111_195, 0);
    expect(metresBetween(at(60, 0), at(60, 1)) / metresBetween(at(0, 0), at(0, 1))).toBeCloseTo(0.5, 3);
  });

  it('of ten minutes at 3 m/s is 1.8 km, all of it run', () => {
    expect(figures(way([[600, 3]]))).toMatchObject({
      startedAt: START,
      seconds: 600,
      runSeconds: 600,
      climbMetres: 0,
    });
    expect(figures(way([[600, 3]])).metres).toBeCloseTo(1800, 3);
  });

  it('of running and walking in turn counts the fast parts as run, to within the window at each change', () => {
    const turns = Array.from(
      { length: 6 },
      () =>
        [
          [60, 3.2],
          [240, 1.4],
        ] as const,
    ).flat();
    const { runSeconds, seconds } = figures(way(turns));
    expect(seconds).toBe(1800);
    expect(runSeconds).toBeGreaterThan(6 * 50);
    expect(runSeconds).toBeLessThan(6 * 75);
  });

  it('that was walked has no running in it, and who stands goes nowhere', () => {
    expect(figures(way([[900, 1.6]])).runSeconds).toBe(0);
    const stood = figures(
      way([
        [300, 3],
        [600, 0.2],
        [300, 3],
      ]),
    );
    expect(stood.metres).toBeLessThan(1820);
    expect(stood.seconds).toBe(1200);
  });

  it('that paused counts the pause for time alone', () => {
    const [one, two] = [way([[300, 3]]), way([[300, 3]])];
    const paused = [...one, ...two.map((p) => ({ ...p, at: p.at + 1_200_000 }))];
    expect(figures(paused)).toMatchObject({ seconds: 1500 });
    expect(figures(paused).runSeconds).toBeLessThanOrEqual(600);
  });

  it('climbs by what is more than the altitude is off by', () => {
    const with_ = (heights: readonly number[]) =>
      figures(way([[heights.length, 3]]).map((p, i) => ({ ...p, altitude: heights[i] ?? 100 }))).climbMetres;
    expect(with_([100, 101, 100, 102, 100, 101])).toBe(0);
    expect(with_([100, 105, 110, 104, 100, 110])).toBe(20);
    const hill = Array.from({ length: 200 }, (_, i) => 100 + i / 4);
    expect(with_(hill)).toBeGreaterThan(46);
    expect(with_(hill)).toBeLessThanOrEqual(49.75);
    expect(figures(way([[60, 3]]).map((p) => ({ ...p, altitude: null }))).climbMetres).toBeNull();
  });

  it('is refused with one point, without time, and where it was ridden', () => {
    expect(outingOf([]).ok).toBe(false);
    expect(outingOf(way([])).ok).toBe(false);
    expect(outingOf(way([[600, 14]])).ok).toBe(false);
    // A single jump of the fix is none.
    const jump = way([[300, 3]]);
    const far = jump.map((p, i) => (i === 150 ? { ...p, lon: p.lon + 0.01 } : p));
    expect(figures(far).metres).toBeLessThan(920);
  });

  it('runs no longer than it lasts and goes no further than from point to point, whenever it was', () => {
    const parts = fc.array(
      fc.tuple(fc.integer({ min: 1, max: 60 }), fc.double({ min: 0, max: 6, noNaN: true })),
      {
        minLength: 1,
        maxLength: 8,
      },
    );
    fc.assert(
      fc.property(parts, fc.integer({ min: 0, max: 1e9 }), (p, later) => {
        const points = way(p);
        const one = figures(points);
        expect(one.runSeconds).toBeLessThanOrEqual(one.seconds + 1e-9);
        const whole = p.reduce((sum, [s, v]) => sum + s * v, 0);
        expect(one.metres).toBeLessThanOrEqual(whole + 1e-3);
        expect(figures(points.map((t) => ({ ...t, at: t.at + later }))).metres).toBeCloseTo(one.metres, 6);
      }),
    );
  });
});

describe('what was recorded beside what was logged', () => {
  const run = (day: string, minutes: number) => ({ day, minutes });

  it('is not run twice: of one day the more counts', () => {
    expect(ranOn('2026-11-20', 12, [run('2026-11-20', 20)])).toBe(20);
    expect(ranOn('2026-11-20', 30, [run('2026-11-20', 20)])).toBe(30);
    expect(
      ranOn('2026-11-20', 30, [run('2026-11-20', 20), run('2026-11-20', 15), run('2026-11-21', 60)]),
    ).toBe(35);
  });

  it('adds days that nothing was logged on, in their order, with the pain told of them', () => {
    const logged = [{ day: '2026-11-20', contacts: 40, runMinutes: 0, pain: 2 }];
    const days = impactDaysWith(
      logged,
      [run('2026-11-22', 25), run('2026-11-19', 5), run('2026-11-21', 0)],
      (day) => (day === '2026-11-22' ? 4 : null),
    );
    expect(days).toEqual([
      { day: '2026-11-19', contacts: 0, runMinutes: 5, pain: null },
      { day: '2026-11-20', contacts: 40, runMinutes: 0, pain: 2 },
      { day: '2026-11-22', contacts: 0, runMinutes: 25, pain: 4 },
    ]);
    expect(impactWith([], [run('2026-11-22', 25), run('2026-11-19', 5)])).toEqual({
      contacts: 0,
      runMinutes: 30,
    });
  });

  it('does not let who ran too far run further still: a run too long counts as long as it may have been', () => {
    const logged = [run('2026-11-01', 20)];
    expect(countedRuns(logged, [run('2026-11-10', 60), run('2026-11-05', 22)])).toEqual([
      run('2026-11-05', 22),
      { day: '2026-11-10', minutes: expect.closeTo(24.2, 6) },
    ]);
  });

  it('does not let one long run, with none known before it, stand for a habit of running: it counts as a first week', () => {
    expect(countedRuns([], [run('2026-11-10', 18)])).toEqual([run('2026-11-10', 18)]);
    expect(countedRuns([], [run('2026-11-10', 95)])).toEqual([run('2026-11-10', 20)]);
    expect(countedRuns([run('2026-10-01', 60)], [run('2026-11-10', 95)])).toEqual([run('2026-11-10', 20)]);
    expect(riseOfRun(run('2026-11-10', 95), [])).toEqual({
      longestMinutes: null,
      mostMinutes: 20,
      over: true,
    });
  });

  it('counts no run longer than it was, and lets each run grow by a tenth at most, whatever was run', () => {
    const runs = fc.array(fc.record({ day: fc.integer({ min: 1, max: 28 }), minutes: fc.nat(180) }));
    const dayed = (r: { day: number; minutes: number }) =>
      run(`2026-11-${String(r.day).padStart(2, '0')}`, r.minutes);
    fc.assert(
      fc.property(runs, (recorded) => {
        const told = recorded.map((r, id) => ({ ...dayed(r), id }));
        const counted = countedRuns([], told);
        expect(counted.map((r) => r.id).toSorted((a, b) => a - b)).toEqual(told.map((r) => r.id));
        for (const r of counted) {
          expect(r.minutes).toBeLessThanOrEqual(told[r.id]?.minutes ?? 0);
          const before = counted.filter((b) => b.day < r.day).map((b) => b.minutes);
          const longest = Math.max(0, ...before);
          expect(r.minutes).toBeLessThanOrEqual(Math.max(longest === 0 ? 20 : 5, longest * 1.1) + 1e-9);
        }
      }),
    );
  });

  it('is held against the runs of the 30 days before it, not against itself', () => {
    const before = [run('2026-11-01', 20), run('2026-11-20', 44)];
    expect(riseOfRun(run('2026-11-20', 44), before)).toEqual({
      longestMinutes: 20,
      mostMinutes: 22,
      over: true,
    });
    expect(riseOfRun(run('2026-11-20', 22), before).over).toBe(false);
    expect(riseOfRun(run('2026-11-01', 60), before).longestMinutes).toBeNull();
  });
});
