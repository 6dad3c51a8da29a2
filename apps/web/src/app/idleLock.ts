import { focusManager, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useState } from 'react';
import { request } from '../api/client.js';

/** When someone last touched a page of ours on this device, for all its windows. */
const SEEN = 'heathstep.seen';
/** How often a touch is noted, and how often one looks whether the time is over. */
const NOTE_MS = 5_000;
const LOOK_MS = 10_000;

const TOUCHES = ['pointerdown', 'keydown', 'wheel', 'touchstart'] as const;

export function markSeen(): void {
  try {
    localStorage.setItem(SEEN, String(Date.now()));
  } catch {
    // A device that keeps nothing counts for this window alone.
  }
}

function lastSeen(): number | null {
  try {
    const kept = localStorage.getItem(SEEN);
    return kept === null || Number.isNaN(Number(kept)) ? null : Number(kept);
  } catch {
    return null;
  }
}

/** Whether so long nobody touched a page that it is to be locked. */
export const isIdle = (seen: number | null, now: number, minutes: number): boolean =>
  minutes > 0 && seen !== null && now - seen >= minutes * 60_000;

/**
 * Locks the pages of this device after some minutes without a touch: they are signed out at the server, so that nothing can
 * be read any more, and stand where they stood as soon as the same person signs in again.
 *
 * @param minutes 0 is never
 */
export function useIdleLock(minutes: number): { readonly locked: boolean; readonly unlock: () => void } {
  const client = useQueryClient();
  const [locked, setLocked] = useState(false);
  useEffect(() => {
    if (minutes === 0 || locked) return undefined;
    if (lastSeen() === null) markSeen();
    let noted = 0;
    const touched = (): void => {
      // Whoever comes back after the time is over does not open it by a touch.
      if (isIdle(lastSeen(), Date.now(), minutes)) look();
      else if (Date.now() - noted > NOTE_MS) {
        noted = Date.now();
        markSeen();
      }
    };
    const look = (): void => {
      if (!isIdle(lastSeen(), Date.now(), minutes)) return;
      setLocked(true);
      focusManager.setFocused(false);
      request('DELETE', '/api/session').catch(() => undefined);
    };
    look();
    const timer = window.setInterval(look, LOOK_MS);
    for (const kind of TOUCHES) window.addEventListener(kind, touched, { capture: true, passive: true });
    document.addEventListener('visibilitychange', look);
    return () => {
      window.clearInterval(timer);
      for (const kind of TOUCHES) window.removeEventListener(kind, touched, { capture: true });
      document.removeEventListener('visibilitychange', look);
    };
  }, [minutes, locked]);
  const unlock = useCallback(() => {
    markSeen();
    focusManager.setFocused(undefined);
    setLocked(false);
    void client.invalidateQueries();
    // What was typed and not sent yet goes now.
    window.dispatchEvent(new Event('online'));
  }, [client]);
  // Another window of this device was opened again.
  useEffect(() => {
    if (!locked) return undefined;
    const elsewhere = (event: StorageEvent): void => {
      if (event.key === SEEN) request('GET', '/api/session').then(unlock, () => undefined);
    };
    window.addEventListener('storage', elsewhere);
    return () => window.removeEventListener('storage', elsewhere);
  }, [locked, unlock]);
  return { locked, unlock };
}
