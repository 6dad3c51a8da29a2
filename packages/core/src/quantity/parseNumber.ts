import { say } from './tongue.js';
import { issue, ok, refused, type Result } from '../result/result.js';

/**
 * Reads a number as people type or paste it: `34.5`, `34,5`, ` 34 `, `-2`, `+3`.
 * One decimal mark at most, so `1,234.5` and `1.2.3` are refused rather than guessed at.
 * An empty text is null (missing is never zero).
 */
export function parseNumber(text: string, path = 'value'): Result<number | null> {
  const trimmed = text.replace(/[\s\u00a0\u202f]+/g, ' ').trim();
  if (trimmed === '') return ok(null);
  const normal = trimmed.replace(',', '.').replace('\u2212', '-');
  if (trimmed.length > 12 || !/^[+-]?(\d+(\.\d*)?|\.\d+)$/.test(normal)) {
    return refused(issue(path, trimmed.slice(0, 40), say('a number such as 34.5 or 34,5')));
  }
  return ok(Number(normal));
}
