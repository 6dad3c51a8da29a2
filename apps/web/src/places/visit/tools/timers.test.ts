import {
  addCount,
  addFault,
  beatAt,
  elapsed,
  endCount,
  intervalAt,
  lapWatch,
  READY,
  startCount,
  startWatch,
  STOPPED,
  stopWatch,
  takeBackFault,
  tenths,
} from './timers.js';

describe('the stop-watch', () => {
  const cap = 45_000;

  it('runs from its start, laps on the way, and stands still once stopped', () => {
    const running = lapWatch(startWatch(1000), 4250, cap);
    expect(elapsed(running, 9000, cap)).toBe(8000);
    const stopped = stopWatch(running, 9540, cap);
    expect(stopped.laps.map(tenths)).toEqual([3.3]);
    expect(elapsed(stopped, 99_000, cap)).toBe(8540);
    expect(tenths(stopped.elapsedMs)).toBe(8.5);
  });

  it('never passes its cap, however late it is stopped', () => {
    expect(elapsed(startWatch(0), 60_000, cap)).toBe(cap);
    expect(stopWatch(startWatch(0), 60_000, cap).elapsedMs).toBe(cap);
  });

  it('a clock that goes back gives nothing, not less', () => {
    expect(elapsed(startWatch(5000), 4000, cap)).toBe(0);
  });

  it('does nothing while it is not running', () => {
    expect(stopWatch(STOPPED, 1, cap)).toBe(STOPPED);
    expect(lapWatch(STOPPED, 1, cap)).toBe(STOPPED);
  });
});

describe('the counter', () => {
  it('counts only between start and end', () => {
    expect(addCount(READY).count).toBe(0);
    const two = addCount(addCount(startCount(0)));
    expect(two.count).toBe(2);
    expect(addCount(endCount(two, 'stopped')).count).toBe(2);
  });

  it('ends by itself at the second fault, and says so', () => {
    const one = addFault(addCount(startCount(0)), 'knee bent', 2);
    expect(one.phase).toBe('counting');
    const two = addFault(one, 'less than half height', 2);
    expect(two).toMatchObject({ phase: 'done', count: 1, endedBecause: '2 faults' });
    expect(addFault(two, 'knee bent', 2)).toBe(two);
  });

  it('a fault marked by mistake is taken back', () => {
    const marked = addFault(startCount(0), 'knee bent', 2);
    expect(takeBackFault(marked).faults).toEqual([]);
  });
});

describe('the beat', () => {
  it.each([
    [0, 0, 'up'],
    [999, 0, 'up'],
    [1000, 1, 'down'],
    [2000, 2, 'up'],
  ])('at %d ms and 60 beats a minute it is beat %d, %s', (ms, beat, way) => {
    expect(beatAt(0, ms, 60)).toMatchObject({ beat, way });
  });
});

describe('the interval timer', () => {
  it.each([
    [0, 'work', 1, 0],
    [9.99, 'work', 1, 0],
    [10, 'rest', 1, 1],
    [14.9, 'rest', 1, 1],
    [15, 'work', 2, 1],
    [25, 'rest', 2, 2],
  ])('at %d s it is %s of round %d with %d holds finished', (s, phase, round, finished) => {
    expect(intervalAt(0, s * 1000, 10, 5)).toMatchObject({ phase, round, finished });
  });
});
