import { useEffect, useState, useSyncExternalStore } from 'react';
import { ApiError } from './client.js';
import { type DocumentResult, DocumentStore, type Versioned } from './documentStore.js';
import { keep, stored } from './kept.js';
import { afterTimeout } from './outbox.js';

/** What became of a document that was sent: the server's answer, or what stands in the way. */
export async function sentDocument<T, Answer>(
  ask: () => Promise<Answer>,
  read: (answer: Answer) => Versioned<T>,
): Promise<DocumentResult<T>> {
  try {
    return { kind: 'saved', now: read(await ask()) };
  } catch (error) {
    if (!(error instanceof ApiError) || error.passing || error.status >= 500) return { kind: 'unreachable' };
    const current = error.problem.current as Answer | null | undefined;
    if (error.status === 409 && current != null) return { kind: 'stale', theirs: read(current) };
    return {
      kind: 'refused',
      errors: Object.fromEntries((error.problem.errors ?? []).map((e) => [e.pointer, e.detail])),
      message: error.message,
    };
  }
}

/** A document edited as a whole, kept on this device under a key until the server has it. */
export function useDocument<T>(
  key: string,
  start: Versioned<T>,
  send: (value: T, version: number) => Promise<DocumentResult<T>>,
): DocumentStore<T> {
  const [store] = useState(
    () =>
      new DocumentStore<T>(start, {
        send,
        load: () => stored<Versioned<T> | null>(key, null),
        keep: (draft) => keep(key, draft, draft === null),
        after: afterTimeout,
      }),
  );
  useSyncExternalStore(store.subscribe, store.snapshot);
  useEffect(() => {
    const again = () => store.retry();
    window.addEventListener('online', again);
    return () => {
      window.removeEventListener('online', again);
      void store.flush();
    };
  }, [store]);
  return store;
}
