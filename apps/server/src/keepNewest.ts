/** Puts a value in last, and lets those go that were put in longest ago, so that no more than `most` are kept. */
export function keepNewest<T>(kept: Map<string, T>, key: string, value: T, most: number): void {
  kept.delete(key);
  kept.set(key, value);
  for (const oldest of kept.keys()) {
    if (kept.size <= most) break;
    kept.delete(oldest);
  }
}
