/** What was kept on this device under a name; something else where there is nothing, or nothing that can be read. */
export function stored<T>(key: string, otherwise: T): T {
  try {
    const text = localStorage.getItem(key);
    return text === null ? otherwise : (JSON.parse(text) as T);
  } catch {
    return otherwise;
  }
}

/** Keeps a value on this device under a name, or takes it away. */
export function keep(key: string, value: unknown, empty: boolean): void {
  try {
    if (empty) localStorage.removeItem(key);
    else localStorage.setItem(key, JSON.stringify(value));
  } catch {
    // Storage may be full or forbidden; the page still holds what was typed and sends it.
  }
}

/** Puts what was kept under a name out of the way, under another: it bars nothing, and is not lost. */
export function setAside(key: string): void {
  keep(`${key}.aside`, stored<unknown>(key, null), false);
  keep(key, null, true);
}
