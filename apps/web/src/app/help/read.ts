import { useSyncExternalStore } from 'react';
import { CHANGES } from './changes.js';

const KEY = 'heathstep.changes.read';
const listeners = new Set<() => void>();

const lastRead = (): string => {
  try {
    return localStorage.getItem(KEY) ?? '';
  } catch {
    return '';
  }
};

const newest = (): string => CHANGES[0]?.day ?? '';

/** The newest news was seen on this device. */
export function markRead(): void {
  try {
    localStorage.setItem(KEY, newest());
  } catch {
    // Where nothing can be kept the mark stays.
  }
  for (const listener of listeners) listener();
}

/** Whether there is news that was not seen on this device. */
export const useUnread = (): boolean =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => lastRead() < newest(),
  );
