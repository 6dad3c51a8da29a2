import { useEffect, useRef, useState, useSyncExternalStore } from 'react';
import type { EntryView, VisitView } from '@heathstep/contracts';
import { ApiError, request } from './client.js';
import { keep, stored } from './kept.js';
import { afterTimeout } from './outbox.js';
import { EntryStore, type PendingEntry, type SendResult } from './entryStore.js';

const storagePrefix = (visitId: string): string => `heathstep.visit.${visitId}.`;

/** Takes over what pages of this visit left behind, a crashed one or another tab: sent twice, an entry is saved once. */
function takeOver(prefix: string): PendingEntry[] {
  const keys = Array.from({ length: localStorage.length }, (_, i) => localStorage.key(i) ?? '');
  return keys
    .filter((key) => key.startsWith(prefix))
    .flatMap((key) => {
      const left = stored<PendingEntry[]>(key, []);
      localStorage.removeItem(key);
      return left;
    });
}

async function send(
  visitId: string,
  entries: readonly PendingEntry[],
  reason: string | null,
): Promise<SendResult> {
  try {
    const { saved } = await request<{ saved: EntryView[] }>('PUT', `/api/visits/${visitId}/entries`, {
      entries,
      ...(reason === null ? {} : { reason }),
    });
    return { kind: 'saved', saved };
  } catch (error) {
    if (!(error instanceof ApiError) || error.passing) return { kind: 'unreachable' };
    if (error.status >= 500) return { kind: 'failed' };
    if (error.status === 401) return { kind: 'signed-out' };
    if (error.status === 409) {
      const current = error.problem.current;
      return Array.isArray(current)
        ? { kind: 'stale', current: current as EntryView[], message: error.message }
        : { kind: 'locked', message: error.message };
    }
    const byKey = Object.fromEntries(
      (error.problem.errors ?? []).flatMap((e) => {
        const index = /^\/entries\/(\d+)\//.exec(e.pointer)?.[1];
        const entry = index === undefined ? undefined : entries[Number(index)];
        return entry === undefined ? [] : [[entry.key, e.detail]];
      }),
    );
    return { kind: 'refused', byKey, message: error.message };
  }
}

function makeStore(visit: VisitView, reason: () => string | null): EntryStore {
  const prefix = storagePrefix(visit.id);
  // Each page keeps its own, so that two tabs never overwrite each other's.
  const key = `${prefix}${crypto.randomUUID()}`;
  return new EntryStore(visit.entries, {
    send: (entries) => send(visit.id, entries, reason()),
    load: () => {
      try {
        const left = takeOver(prefix);
        keep(key, left, left.length === 0);
        return left;
      } catch {
        return [];
      }
    },
    keep: (entries) => keep(key, entries, entries.length === 0),
    newId: () => crypto.randomUUID(),
    after: afterTimeout,
  });
}

/** The live entries of a visit; one store for as long as the visit is on screen. */
export function useEntries(visit: VisitView, amending: string | null = null): EntryStore {
  const reason = useRef(amending);
  useEffect(() => {
    reason.current = amending;
  }, [amending]);
  const make = () => ({ id: visit.id, entries: makeStore(visit, () => reason.current) });
  const [store, setStore] = useState(make);
  if (store.id !== visit.id) setStore(make());
  const entries = store.entries;
  useSyncExternalStore(entries.subscribe, entries.snapshot);
  useEffect(() => {
    const again = () => entries.retry();
    const leaving = () => void entries.flush();
    window.addEventListener('online', again);
    window.addEventListener('pagehide', leaving);
    return () => {
      window.removeEventListener('online', again);
      window.removeEventListener('pagehide', leaving);
      void entries.flush();
    };
  }, [entries]);
  return entries;
}
