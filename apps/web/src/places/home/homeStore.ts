import { useEffect, useState, useSyncExternalStore } from 'react';
import type { HomeEntryBody, HomeEntryView, StopPayload } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { keep, stored } from '../../api/useEntries.js';

const KEY = 'heathstep.home.waiting';
const RETRY_MS = 4000;
const STOPPED = 'heathstep.home.stopped';

interface ReportedStop {
  readonly id: string;
  readonly grade: StopPayload['grade'];
}

/** Where a report is on its way to the clinic. */
export type Delivery = 'sending' | 'told' | 'kept' | 'refused';

/** Log entries on their way: kept on the phone until the clinic has them, sent in order, safe to repeat. */
export class HomeOutbox {
  private waiting: HomeEntryBody[] = stored<HomeEntryBody[]>(KEY, []);
  private sending = false;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private changed = 0;
  private readonly listeners = new Set<() => void>();
  lost = false;
  refused: string | null = null;
  private readonly refusedIds = new Set<string>();

  constructor(private readonly saved: () => void) {
    if (this.waiting.length > 0) this.soon(0);
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  snapshot = (): number => this.changed;

  get list(): readonly HomeEntryBody[] {
    return this.waiting;
  }

  /** Where an entry is; only what has left this phone and was taken has been told. */
  delivery(id: string): Delivery {
    if (this.refusedIds.has(id)) return 'refused';
    if (!this.waiting.some((w) => w.id === id)) return 'told';
    return this.lost ? 'kept' : 'sending';
  }

  /** Grade of the stop sign reported on this phone that the clinic's own answer does not know of yet; null when there is none. */
  stopNotKnown(known: readonly { readonly id: string }[]): StopPayload['grade'] | null {
    const stop = stored<ReportedStop | null>(STOPPED, null);
    return stop === null || known.some((e) => e.id === stop.id) ? null : stop.grade;
  }

  /** Once the clinic knows, its own answer counts, also when the report is too old to be listed. */
  forgetKnownStop(known: readonly { readonly id: string }[]): void {
    if (this.stopNotKnown(known) === null) keep(STOPPED, null, true);
  }

  add(entry: HomeEntryBody): void {
    if (entry.kind === 'stop') {
      const { grade } = entry.payload as StopPayload;
      if (grade !== 'pause') keep(STOPPED, { id: entry.id, grade } satisfies ReportedStop, false);
    }
    this.waiting = [
      ...this.waiting.filter((w) => !(w.id === entry.id && w.version === entry.version)),
      entry,
    ];
    this.refused = null;
    this.store();
    this.soon(0);
  }

  retry = (): void => this.soon(0);

  private soon(ms: number): void {
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), ms);
  }

  private async flush(): Promise<void> {
    const [next] = this.waiting;
    if (next === undefined || this.sending) return;
    this.sending = true;
    try {
      await request<HomeEntryView>('PUT', '/api/home/entries', next);
      this.drop(next);
      this.lost = false;
      this.saved();
    } catch (error) {
      if (error instanceof ApiError && !error.passing && error.status < 500 && error.status !== 401) {
        this.refused = error.problem.errors?.[0]?.detail ?? error.message;
        this.refusedIds.add(next.id);
        this.drop(next);
        this.saved();
      } else {
        this.lost = true;
        this.soon(RETRY_MS);
      }
    } finally {
      this.sending = false;
    }
    this.notify();
    if (this.waiting.length > 0 && !this.lost) this.soon(0);
  }

  private drop(entry: HomeEntryBody): void {
    this.waiting = this.waiting.filter((w) => w !== entry);
    this.store();
  }

  private store(): void {
    keep(KEY, this.waiting, this.waiting.length === 0);
    this.notify();
  }

  private notify(): void {
    this.changed += 1;
    for (const listener of this.listeners) listener();
  }
}

export function useOutbox(saved: () => void): HomeOutbox {
  const [outbox] = useState(() => new HomeOutbox(saved));
  useSyncExternalStore(outbox.subscribe, outbox.snapshot);
  useEffect(() => {
    window.addEventListener('online', outbox.retry);
    return () => window.removeEventListener('online', outbox.retry);
  }, [outbox]);
  return outbox;
}
