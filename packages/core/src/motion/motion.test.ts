import type { MotionHeader, MotionRecording } from '../recording/recording.js';
import { recordMotion, simulateMotion, waveTruth } from '../simulate/motion.js';
import { MOTION_MISTAKES, type MotionMistake } from '../simulate/mistakes.js';
import { type FootFault, walkerOf, type Walker } from '../simulate/walker.js';
import { analyseMotion, type MotionReport } from './analyse.js';
import { ensembleOf } from './wave.js';

const HEADER: MotionHeader = {
  kind: 'motion-pair',
  name: 'Pair',
  rateHz: 200,
  calibratedOn: null,
  simulated: true,
  task: null,
  side: null,
};

/** A leg whose angles are known at every moment. */
function known(
  seconds: number,
  of: (t: number) => readonly [shin: number, heel: number, pitch: number],
): MotionRecording {
  const times = Float64Array.from({ length: seconds * 200 }, (_, i) => i / 200);
  const angle = (k: 0 | 1 | 2) => Float32Array.from(times, (t) => of(t)[k]);
  return { header: HEADER, times, left: { shin: angle(0), heel: angle(1), pitch: angle(2) }, right: null };
}

const walking = (walker: Walker, mistakes: MotionMistake[] = [], perfect = false): MotionReport => {
  const key = `${walker.seed} ${mistakes.join()} ${String(perfect)}`;
  const known = walked.get(key) ?? walk(walker, mistakes, perfect);
  walked.set(key, known);
  return known;
};
const walked = new Map<string, MotionReport>();
const walk = (walker: Walker, mistakes: MotionMistake[], perfect: boolean) =>
  analyseMotion(
    recordMotion(simulateMotion({ walker, task: 'walk', side: 'both', seed: 3, mistakes, perfect }), 16),
    { task: 'walk', side: 'both' },
  );
const keys = (r: MotionReport, level: 'refuse' | 'warn') =>
  r.notes.filter((n) => n.level === level).map((n) => n.key);

describe('angles of known course', () => {
  it('a pure sine of 8 degrees over a step of 1 s has its amplitude, its rate and its time of peak', () => {
    // Contact at the lowest point: amplitude 16, fastest 16 pi / 1 s a second at a quarter, peak at half.
    const angle = Float64Array.from({ length: 1200 }, (_, i) => -8 * Math.cos((2 * Math.PI * i) / 200));
    const e = ensembleOf(
      angle,
      [200, 400, 600, 800].map((contact) => ({ contact, heelOff: contact + 150, toeOff: contact + 200 })),
      { rateHz: 200, rest: 0 },
    );
    const q = e.steps[0]?.quantities ?? {};
    expect(q['amplitude']).toBeCloseTo(16, 1);
    expect(q['rate']).toBeCloseTo(16 * Math.PI, 0);
    expect(q['peakTime']).toBeCloseTo(50, 0);
    expect(q['duration']).toBeCloseTo(50, -1);
    expect(q['heelOff']).toBe(75);
    expect(Math.max(...e.spread)).toBeCloseTo(0, 6);
    expect(e.outliers).toBe(0);
  });

  it('a rigid block that tips turns heel and shin alike, and nothing under the shin', () => {
    const tip = (t: number) => (t < 1.2 ? 0 : 10 * Math.sin((Math.PI * (t - 1.2)) / 4) ** 2);
    const report = analyseMotion(
      known(8, (t) => [tip(t), 2 + tip(t), 0]),
      { task: 'squat', side: 'left' },
    );
    const { heelTurn, shinTurn, underShin } = report.quantities.left;
    expect(heelTurn?.value).toBeGreaterThan(9);
    expect(shinTurn?.value).toBeCloseTo(heelTurn?.value ?? 0, 1);
    expect(underShin?.value).toBeCloseTo(0, 1);
  });

  it('without noise a wave gives its amplitude, its time of peak and its heel-off', () => {
    const w = walkerOf(12);
    const report = walking(w, [], true);
    for (const side of ['left', 'right'] as const) {
      const truth = waveTruth(w.feet[side]);
      const q = report.quantities[side];
      const off = (name: string) => Math.abs((q[name]?.value ?? Number.NaN) - (truth[name] ?? 0));
      expect(off('amplitude')).toBeLessThan(0.15);
      expect(off('peakTime')).toBeLessThan(2);
      expect(off('contactMs')).toBeLessThan(12);
      expect(off('heelOff')).toBeLessThan(2);
    }
  });
});

describe('what goes wrong with a pair', () => {
  it.each([
    ['slipped', 'refuse', 'slipped'],
    ['drift', 'warn', 'drift'],
    ['missed-contact', 'warn', 'missed'],
    ['lost-frames', 'warn', 'missing'],
    ['one-leg', 'warn', 'bare'],
  ] as const)('%s: %s by %s', (mistake, level, key) => {
    expect(MOTION_MISTAKES).toContain(mistake);
    expect(keys(walking(walkerOf(4), [mistake]), level)).toContain(key);
  });

  it('a walk without a mistake is told without one', () => {
    expect(keys(walking(walkerOf(4)), 'refuse')).toEqual([]);
    expect(keys(walking(walkerOf(4)), 'warn').filter((k) => k !== 'outliers')).toEqual([]);
  });

  it('drift taken off leaves the wave, and lost frames leave the times', () => {
    const plain = walking(walkerOf(4)).quantities.left;
    for (const mistake of ['drift', 'lost-frames'] as const) {
      const found = walking(walkerOf(4), [mistake]).quantities.left;
      expect(Math.abs((found['amplitude']?.value ?? 0) - (plain['amplitude']?.value ?? 0))).toBeLessThan(0.7);
      expect(Math.abs((found['contactMs']?.value ?? 0) - (plain['contactMs']?.value ?? 0))).toBeLessThan(8);
    }
  });

  it('no leg, nobody who walks and nobody who stands still first are told', () => {
    const bare = { ...known(4, () => [0, 0, 0]), left: null };
    expect(keys(analyseMotion(bare, { task: 'walk', side: 'both' }), 'refuse')).toContain('bare');
    expect(
      keys(
        analyseMotion(
          known(6, () => [0, 2, 0]),
          { task: 'walk', side: 'left' },
        ),
        'refuse',
      ),
    ).toContain('few-steps');
    const restless = known(6, (t) => [0, 8 * Math.sin(t * 6), 0]);
    expect(keys(analyseMotion(restless, { task: 'squat', side: 'left' }), 'refuse')).toContain('restless');
  });
});

describe('faults of the wave are told on the side that has them', () => {
  const personWith = (kind: FootFault): Walker =>
    Array.from({ length: 500 }, (_, i) => walkerOf(i + 1)).find((w) => w.fault?.kind === kind) as Walker;
  it.each([
    ['late-pronation', 'peakTime', 52, 1],
    ['fast-pronation', 'rate', 100, 1],
    ['far-pronation', 'amplitude', 12, 1],
    ['early-heel-off', 'heelOff', 50, -1],
  ] as const)('%s', (fault, name, limit, direction) => {
    const w = personWith(fault);
    const report = walking(w);
    const ill = w.fault?.side ?? 'left';
    const well = ill === 'left' ? 'right' : 'left';
    const value = (side: 'left' | 'right') => report.quantities[side][name]?.value ?? Number.NaN;
    expect(direction * (value(ill) - limit)).toBeGreaterThan(0);
    expect(direction * (value(well) - limit)).toBeLessThan(0);
  });
});
