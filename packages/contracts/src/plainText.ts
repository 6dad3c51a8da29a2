import { phrase, say } from '@heathstep/core';
/** How deep something that is sent may be nested; nothing of ours comes near it. */
export const DEEPEST = 32;

const HINT = phrase('has characters that cannot be kept; type it again or paste it as plain text');

const HALF = /\p{Surrogate}/u;

const isPlain = (text: string): boolean => !text.includes('\u0000') && !HALF.test(text);

/** A text as it can be kept: without NUL, and with a sign in place of half a character. */
export const plain = (text: string): string =>
  isPlain(text) ? text : text.replaceAll('\u0000', '').replaceAll(new RegExp(HALF, 'gu'), '\ufffd');

/** The same value with every text in it as it can be kept. */
export function plainValue<T>(value: T): T {
  if (typeof value === 'string') return plain(value) as T;
  if (Array.isArray(value)) return value.map(plainValue) as T;
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([k, v]) => [plain(k), plainValue(v)])) as T;
}

/**
 * What of something sent cannot be kept at all, each by its pointer: half characters and NUL in a text or a name, and nesting
 * deeper than anything of ours. Walks without calling itself, so that no depth can end it.
 */
export function unkeepable(sent: unknown): { readonly pointer: string; readonly detail: string }[] {
  const found: { pointer: string; detail: string }[] = [];
  const left: { value: unknown; pointer: string; depth: number }[] = [{ value: sent, pointer: '', depth: 0 }];
  for (let next = left.pop(); next !== undefined; next = left.pop()) {
    const { value, pointer, depth } = next;
    if (typeof value === 'string') {
      if (!isPlain(value)) found.push({ pointer, detail: say(HINT) });
    } else if (typeof value === 'object' && value !== null) {
      if (depth >= DEEPEST)
        return [{ pointer: '', detail: say('is nested deeper than {{most}}', { most: DEEPEST }) }];
      for (const [key, inner] of Object.entries(value)) {
        if (!isPlain(key)) found.push({ pointer, detail: say(HINT) });
        left.push({ value: inner, pointer: `${pointer}/${key}`, depth: depth + 1 });
      }
    }
  }
  return found;
}
