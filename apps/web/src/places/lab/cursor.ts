import { useEffect, useState } from 'react';

/**
 * Where in a capture all its plots stand, as a share of its time; null shows all of it at once. Read by those who draw, without
 * drawing the page anew for each picture.
 */
export class Cursor {
  private at: number | null = null;
  private running = false;
  private frame = 0;
  private readonly listeners = new Set<() => void>();

  /** @param seconds how long one run through takes */
  constructor(private readonly seconds: number) {}

  get share(): number | null {
    return this.at;
  }

  get playing(): boolean {
    return this.running;
  }

  subscribe = (tell: () => void): (() => void) => {
    this.listeners.add(tell);
    return () => this.listeners.delete(tell);
  };

  go(share: number | null): void {
    this.at = share === null ? null : Math.min(1, Math.max(0, share));
    this.tell();
  }

  play(): void {
    if (this.running) return;
    this.running = true;
    if (this.at === null || this.at >= 1) this.at = 0;
    let last = performance.now();
    const step = (now: number): void => {
      if (!this.running) return;
      const next = (this.at ?? 0) + (now - last) / 1000 / this.seconds;
      last = now;
      this.at = Math.min(1, next);
      if (next >= 1) this.running = false;
      else this.frame = requestAnimationFrame(step);
      this.tell();
    };
    this.frame = requestAnimationFrame(step);
    this.tell();
  }

  pause(): void {
    this.running = false;
    cancelAnimationFrame(this.frame);
    this.tell();
  }

  private tell(): void {
    for (const l of this.listeners) l();
  }
}

/** Calls `draw` at once and whenever the cursor moves. */
export function useCursor(cursor: Cursor, draw: () => void): void {
  useEffect(() => {
    draw();
    return cursor.subscribe(draw);
  }, [cursor, draw]);
}

/** Whether it plays, for the button that says so. */
export function usePlaying(cursor: Cursor): { readonly playing: boolean; readonly whole: boolean } {
  const read = () => ({ playing: cursor.playing, whole: cursor.share === null });
  const [now, setNow] = useState(read);
  useEffect(
    () =>
      cursor.subscribe(() => {
        setNow((before) => {
          const next = read();
          return before.playing === next.playing && before.whole === next.whole ? before : next;
        });
      }),
    // `read` reads the cursor and nothing else.
    // oxlint-disable-next-line react/exhaustive-deps
    [cursor],
  );
  return now;
}
