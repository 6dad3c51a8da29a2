const FIRST_RETRY_MS = 1000;
const LAST_RETRY_MS = 15_000;

/** Runs something later; returns what calls it off. A test puts its own clock in its place. */
export type After = (ms: number, run: () => void) => () => void;

/** The browser's own clock. */
export const afterTimeout: After = (ms, run) => {
  const timer = setTimeout(run, ms);
  return () => clearTimeout(timer);
};

/**
 * What waits on this device until the server has it: told to whoever shows it, sent after a pause, tried again with growing
 * delay while the server is away. What is kept, and what an answer means, is up to each kind.
 */
export abstract class Outbox {
  private readonly listeners = new Set<() => void>();
  private changed = 0;
  private callOff: (() => void) | null = null;
  private retryMs = FIRST_RETRY_MS;

  protected constructor(private readonly after: After) {}

  /** Sends what waits; resolves when nothing of it is on its way. */
  abstract flush(): Promise<void>;

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Grows with every change; for useSyncExternalStore. */
  snapshot = (): number => this.changed;

  /** Tries again now, for example when the connection is back. */
  retry = (): void => this.soon(0);

  protected notify(): void {
    this.changed += 1;
    for (const listener of this.listeners) listener();
  }

  /** Sends in a while, in place of what was set before. */
  protected soon(ms: number): void {
    this.calledOff();
    this.callOff = this.after(ms, () => void this.flush());
  }

  protected calledOff(): void {
    this.callOff?.();
    this.callOff = null;
  }

  /** The server is away: again in a while, longer each time. */
  protected away(): void {
    this.soon(this.retryMs);
    this.retryMs = Math.min(this.retryMs * 2, LAST_RETRY_MS);
  }

  protected reached(): void {
    this.retryMs = FIRST_RETRY_MS;
  }
}
