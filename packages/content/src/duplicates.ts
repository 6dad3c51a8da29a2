import { ContentProblem } from './bundle.js';

/** A problem for each key that is used again. */
export function duplicates(kind: string, keys: readonly string[]): ContentProblem[] {
  const seen = new Set<string>();
  return keys.flatMap((key) => {
    if (!seen.has(key)) {
      seen.add(key);
      return [];
    }
    return [new ContentProblem(kind, key, 'the key is used twice')];
  });
}
