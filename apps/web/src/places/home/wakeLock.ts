import { useEffect } from 'react';

/** Keeps the screen awake while something is paced, and again after the page was hidden. */
export function useWakeLock(): void {
  useEffect(() => {
    let lock: WakeLockSentinel | null = null;
    let ended = false;
    const take = async () => {
      if (!('wakeLock' in navigator) || document.visibilityState !== 'visible') return;
      try {
        const taken = await navigator.wakeLock.request('screen');
        if (ended) await taken.release();
        else lock = taken;
      } catch {
        // Refused, for example with a low battery: the pacer still counts, the screen may dim.
      }
    };
    const again = () => void take();
    void take();
    document.addEventListener('visibilitychange', again);
    return () => {
      ended = true;
      document.removeEventListener('visibilitychange', again);
      void lock?.release();
    };
  }, []);
}
