import { collector } from '../recording/collect.js';
import { liveReader } from '../recording/live.js';
import { MOTION_TASKS } from '../motion/analyse.js';
import {
  beginCapture,
  breakCapture,
  CAPTURE_PLANS,
  captureLoad,
  type CaptureSession,
  COUNTDOWN_SECONDS,
  endCapture,
  secondsLeft,
} from './session.js';

const start = (task: 'stance' | 'walk', kind: 'pressure-mat' | 'motion-pair' = 'pressure-mat') => {
  const s = beginCapture(kind, task);
  if (s === null) throw new Error('no plan');
  return s;
};
/** Plays a load over time, 100 a second, until the capture is over. */
function play(s: CaptureSession, newton: (t: number) => number, seconds: number): CaptureSession {
  let at = s;
  for (let n = 0; n <= seconds * 100 && at.phase !== 'done' && at.phase !== 'broken'; n += 1)
    at = captureLoad(at, n / 100, newton(n / 100));
  return at;
}

describe('a capture', () => {
  it('counts down, waits for somebody to stand, and ends by itself', () => {
    const standing = (t: number) => (t > 5 ? 700 : 0);
    expect(play(start('stance'), standing, 2).phase).toBe('countdown');
    expect(secondsLeft(play(start('stance'), standing, 2))).toBeCloseTo(COUNTDOWN_SECONDS - 2, 6);
    expect(play(start('stance'), standing, 4).phase).toBe('waiting');
    expect(play(start('stance'), standing, 6).phase).toBe('recording');
    expect(play(start('stance'), standing, 40)).toMatchObject({ phase: 'done', why: 'time' });
    // Loaded from 5 s, settled after 0.4, and then for 10.
    expect(play(start('stance'), standing, 40).last).toBeCloseTo(15.4, 1);
  });

  it('ends when the person steps off, not when the load dips for a moment', () => {
    const dip = (t: number) => (t > 8 && t < 8.5 ? 0 : 700);
    expect(play(start('stance'), dip, 40).why).toBe('time');
    expect(play(start('stance'), (t) => (t > 8 ? 0 : 700), 40)).toMatchObject({
      phase: 'done',
      why: 'stepped-off',
    });
  });

  it('in walking ends after the crossings that are wanted, each counted once', () => {
    const steps = (t: number) => (t % 2 > 1.2 && t % 2 < 1.9 ? 800 : 0);
    const done = play(start('walk'), steps, 60);
    expect(done).toMatchObject({ phase: 'done', why: 'crossings', crossings: 8 });
    // One on the mat at the start counts as well; the eighth is over at 18 s or after.
    expect(done.last).toBeGreaterThan(17);
  });

  it('stopped by hand it keeps what was recorded, and nothing before that', () => {
    expect(endCapture(play(start('walk'), () => 0, 2))).toMatchObject({ phase: 'broken', why: 'stopped' });
    expect(endCapture(play(start('walk'), () => 0, 6))).toMatchObject({ phase: 'done', why: 'stopped' });
  });

  it.each(['bad-frame', 'silent', 'lost'] as const)('%s breaks it off, and nothing revives it', (why) => {
    const broken = breakCapture(
      play(start('stance'), () => 700, 6),
      why,
    );
    expect(broken).toMatchObject({ phase: 'broken', why });
    expect(captureLoad(broken, 9, 700)).toBe(broken);
    expect(endCapture(broken)).toBe(broken);
  });

  it('is only of a task the instrument can tell something of', () => {
    expect(beginCapture('motion-pair', 'balance')).toBeNull();
    expect(Object.keys(CAPTURE_PLANS['motion-pair']).sort()).toEqual([...MOTION_TASKS].sort());
  });
});

describe('what an instrument says', () => {
  const hello = {
    type: 'hello',
    version: 1,
    kind: 'pressure-mat',
    unit: 'kPa',
    rateHz: 100,
    columns: 4,
    rows: 4,
    cellMm: 10,
  };
  const said = (...lines: unknown[]) => {
    const kept = collector();
    const read = liveReader(kept);
    return { kept, read: lines.map((l) => read(typeof l === 'string' ? l : JSON.stringify(l))) };
  };

  it('is a hello, frames and an end', () => {
    const { kept, read } = said(
      hello,
      { type: 'frame', t: 0, runs: [[2, 10, 20.5]] },
      { type: 'end', reason: 'off' },
    );
    expect(read.map((r) => r.type)).toEqual(['hello', 'frame', 'end']);
    expect([...(kept.newest() ?? [])].slice(0, 5)).toEqual([0, 0, 100, 205, 0]);
  });

  it.each([
    ['not json', 'a line that is not JSON'],
    ['[1]', 'a line that is not an object'],
    [{ type: 'frame', t: 0, runs: [] }, 'a frame before the hello'],
    [{ ...hello, unit: 'psi' }, 'the unit is psi, kPa is wanted'],
    [{ ...hello, columns: 0 }, 'columns and rows must be whole numbers, at most 4096 cells together'],
    [{ type: 'dance' }, 'a frame of no known type'],
    ['x'.repeat(80_000), 'a line that is too long'],
  ])('tells what %p is not', (line, reason) => {
    expect(said(line).read[0]).toEqual({ type: 'bad', reason });
  });

  it('a clock that goes back and cells that are none are bad frames', () => {
    const frame = (t: number, runs: unknown) => ({ type: 'frame', t, runs });
    const { read } = said(
      hello,
      frame(0.5, []),
      frame(0.4, []),
      frame(0.6, [[1, 'a']]),
      frame(0.7, [[16, 1]]),
    );
    expect(read.slice(2).map((r) => (r.type === 'bad' ? r.reason : r.type))).toEqual([
      'the time does not grow',
      'cell 1: not a number',
      'a run of cells that begins outside the mat',
    ]);
  });
});
