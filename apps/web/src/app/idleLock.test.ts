import { isIdle } from './idleLock.js';

describe('a page that nobody touches', () => {
  const MINUTE = 60_000;
  it.each([
    [0, 29 * MINUTE, 30, false],
    [0, 30 * MINUTE, 30, true],
    [0, 600 * MINUTE, 0, false],
    [null, 600 * MINUTE, 5, false],
    [5 * MINUTE, 9 * MINUTE, 5, false],
  ])('seen at %p, at %i ms, with %i minutes: %s', (seen, now, minutes, idle) => {
    expect(isIdle(seen, now, minutes)).toBe(idle);
  });
});
