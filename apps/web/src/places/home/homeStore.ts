import { useEffect, useState, useSyncExternalStore } from 'react';
import type { HomeEntryBody, HomeEntryView, StopPayload } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { type After, afterTimeout, Outbox } from '../../api/outbox.js';
import { keep, stored } from '../../api/kept.js';

const waitingKey = (episodeId: string): string => `heathstep.home.waiting.${episodeId}`;
const stoppedKey = (episodeId: string): string => `heathstep.home.stopped.${episodeId}`;

interface ReportedStop {
  readonly id: string;
  readonly grade: StopPayload['grade'];
}

/** Where a report is on its way to the clinic. */
export type Delivery = 'sending' | 'told' | 'kept' | 'refused';

/** What an outbox needs of the world around it. */
export interface OutboxOn {
  readonly send: (entry: HomeEntryBody) => Promise<unknown>;
  readonly load: <T>(key: string, otherwise: T) => T;
  readonly keep: (key: string, value: unknown, forget: boolean) => void;
  readonly after: After;
}

const BROWSER: OutboxOn = {
  send: (entry) => request<HomeEntryView>('PUT', '/api/home/entries', entry),
  load: stored,
  keep,
  after: afterTimeout,
};

/**
 * Log entries of one episode on their way: kept on the phone until the clinic has them, sent in order, safe to repeat. A
 * phone that several people use keeps each one's apart, and sends them only while that one's link is open.
 */
export class HomeOutbox extends Outbox {
  private waiting: HomeEntryBody[];
  private sending = false;
  lost = false;
  refused: string | null = null;
  private readonly refusedIds = new Set<string>();

  private stopped = true;

  constructor(
    private readonly episodeId: string,
    private readonly saved: () => void,
    private readonly on: OutboxOn = BROWSER,
  ) {
    super(on.after);
    this.waiting = on.load<HomeEntryBody[]>(waitingKey(episodeId), []);
  }

  /** Sends from now on. */
  start(): void {
    this.stopped = false;
    if (this.waiting.length > 0) this.soon(0);
  }

  /** Sends no more: another link may be open on this phone. What waits stays on it. */
  stop(): void {
    this.stopped = true;
    this.calledOff();
  }

  get list(): readonly HomeEntryBody[] {
    return this.waiting;
  }

  /** Where an entry is; only what has left this phone and was taken has been told. */
  delivery(id: string): Delivery {
    if (this.refusedIds.has(id)) return 'refused';
    if (!this.waiting.some((w) => w.id === id)) return 'told';
    return this.lost ? 'kept' : 'sending';
  }

  /**
   * Grade of a stop sign reported on this phone, for any complaint of its person, that the clinic's own answer does not know
   * of yet; the most serious, and null when there is none.
   */
  stopNotKnown(known: readonly string[], complaints: readonly string[]): StopPayload['grade'] | null {
    const grades = complaints
      .map((id) => this.on.load<ReportedStop | null>(stoppedKey(id), null))
      .flatMap((stop) => (stop === null || known.includes(stop.id) ? [] : [stop.grade]));
    return grades.includes('emergency') ? 'emergency' : (grades[0] ?? null);
  }

  /** Once the clinic knows, its own answer counts, also when the report is too old to be listed. */
  forgetKnownStops(known: readonly string[], complaints: readonly string[]): void {
    for (const id of complaints) {
      const stop = this.on.load<ReportedStop | null>(stoppedKey(id), null);
      if (stop !== null && known.includes(stop.id)) this.on.keep(stoppedKey(id), null, true);
    }
  }

  add(entry: HomeEntryBody): void {
    if (entry.kind === 'stop') {
      const { grade } = entry.payload as StopPayload;
      if (grade !== 'pause')
        this.on.keep(stoppedKey(this.episodeId), { id: entry.id, grade } satisfies ReportedStop, false);
    }
    this.waiting = [
      ...this.waiting.filter((w) => !(w.id === entry.id && w.version === entry.version)),
      entry,
    ];
    this.refused = null;
    this.store();
    this.soon(0);
  }

  protected override soon(ms: number): void {
    if (!this.stopped) super.soon(ms);
  }

  override async flush(): Promise<void> {
    const [next] = this.waiting;
    if (next === undefined || this.sending || this.stopped) return;
    this.sending = true;
    try {
      await this.on.send({ ...next, episodeId: this.episodeId });
      this.drop(next);
      this.lost = false;
      this.reached();
      this.saved();
    } catch (error) {
      if (error instanceof ApiError && !error.passing && error.status < 500 && error.status !== 401) {
        this.refused = error.problem.errors?.[0]?.detail ?? error.message;
        this.refusedIds.add(next.id);
        this.drop(next);
        this.saved();
      } else {
        this.lost = true;
        this.away();
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
    this.on.keep(waitingKey(this.episodeId), this.waiting, this.waiting.length === 0);
    this.notify();
  }
}

/** The outbox of the episode whose link is open; whoever shows it makes it anew for another. */
export function useOutbox(episodeId: string, saved: () => void): HomeOutbox {
  const [outbox] = useState(() => new HomeOutbox(episodeId, saved));
  useSyncExternalStore(outbox.subscribe, outbox.snapshot);
  useEffect(() => {
    outbox.start();
    window.addEventListener('online', outbox.retry);
    return () => {
      window.removeEventListener('online', outbox.retry);
      outbox.stop();
    };
  }, [outbox]);
  return outbox;
}
