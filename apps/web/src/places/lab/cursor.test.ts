import { Cursor } from './cursor.js';

/** Frames of the window, called by hand: so many milliseconds apart. */
function frames() {
  const waiting: ((now: number) => void)[] = [];
  let now = performance.now();
  Object.assign(globalThis, {
    requestAnimationFrame: (f: (now: number) => void) => waiting.push(f),
    cancelAnimationFrame: () => waiting.splice(0),
  });
  return (ms: number) => {
    now = Math.max(now, performance.now()) + ms;
    for (const f of waiting.splice(0)) f(now);
  };
}

describe('the cursor that all plots share', () => {
  it('plays through once, tells everyone, and stops at the end', () => {
    const pass = frames();
    const cursor = new Cursor(2);
    const seen: (number | null)[] = [];
    cursor.subscribe(() => seen.push(cursor.share));
    expect(cursor.share).toBeNull();
    cursor.play();
    expect(cursor.playing).toBe(true);
    for (let i = 0; i < 12; i += 1) pass(500);
    expect(cursor.playing).toBe(false);
    expect(cursor.share).toBe(1);
    expect(seen.length).toBeGreaterThan(3);
  });

  it('stands where it is put, within the capture, and plays on from there', () => {
    const pass = frames();
    const cursor = new Cursor(10);
    cursor.go(0.4);
    cursor.play();
    pass(1000);
    cursor.pause();
    expect(cursor.share).toBeGreaterThan(0.45);
    expect(cursor.share).toBeLessThan(0.7);
    cursor.go(7);
    expect(cursor.share).toBe(1);
    cursor.go(null);
    expect(cursor.share).toBeNull();
  });
});
