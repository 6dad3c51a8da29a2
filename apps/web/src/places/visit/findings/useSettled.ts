import { useEffect, useState } from 'react';

/** Reasoning follows typing of figures by this much; answers are followed at once. */
export const SETTLE_MS = 180;

/** A value that follows once it has stood still for a while; at once with no wait. */
export function useSettled<T>(value: T, ms: number): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    if (ms === 0) return undefined;
    const timer = window.setTimeout(() => setSettled(value), ms);
    return () => window.clearTimeout(timer);
  }, [value, ms]);
  return ms === 0 ? value : settled;
}
