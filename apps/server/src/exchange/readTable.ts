import { parse } from 'csv-parse/sync';
import { say } from '@heathstep/core';
import { badRequest } from '../http/problem.js';

/** At most so many lines of people at once. [convention] */
const MOST_LINES = 20_000;
const SEPARATORS = [',', ';', '\t'] as const;

const refused = (detail: string) => badRequest([{ pointer: '/file', detail }]);

/** What separates the cells: what stands most often in the first line. */
const separatorOf = (first: string): string =>
  [...SEPARATORS].sort((a, b) => first.split(b).length - first.split(a).length)[0] ?? ',';

/** A table of comma-separated values (RFC 4180), also with semicolons or tabs: its headings and its lines. */
export function readTable(bytes: unknown): { readonly heads: string[]; readonly rows: string[][] } {
  if (!Buffer.isBuffer(bytes) || bytes.length === 0) throw refused(say('A table is wanted, as CSV'));
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw refused(say('The table is not written in UTF-8; save it as CSV UTF-8'));
  }
  if (text.includes('\0')) throw refused(say('This is no table of text'));
  let table: string[][];
  try {
    table = parse(text, {
      bom: true,
      delimiter: separatorOf(text.split('\n', 1)[0] ?? ''),
      relax_column_count: true,
    });
  } catch (error) {
    const line = (error as { lines?: number }).lines;
    throw refused(
      line === undefined
        ? say('The table cannot be read')
        : say('The table cannot be read at line {{line}}: {{reason}}', {
            line,
            reason: error instanceof Error ? error.message : '',
          }),
    );
  }
  const [heads, ...rows] = table;
  if (heads === undefined || rows.length === 0)
    throw refused(say('The first line names the columns, and people stand below it'));
  if (rows.length > MOST_LINES) throw refused(say('At most {{n}} people at once', { n: MOST_LINES }));
  return { heads, rows };
}
