import { useSyncExternalStore } from 'react';

const QUERY = '(pointer: coarse)';

/** Whether the pointer is a finger. */
export function useCoarse(): boolean {
  return useSyncExternalStore(
    (changed) => {
      const list = window.matchMedia(QUERY);
      list.addEventListener('change', changed);
      return () => list.removeEventListener('change', changed);
    },
    () => window.matchMedia(QUERY).matches,
  );
}
