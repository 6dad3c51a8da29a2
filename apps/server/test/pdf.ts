import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** What a reader that had no part in making a PDF says of it. */
export function readBy(program: string, bytes: Buffer, ...options: readonly string[]): string {
  const folder = mkdtempSync(join(tmpdir(), 'heathstep-pdf-'));
  try {
    const file = join(folder, 'paper.pdf');
    writeFileSync(file, bytes);
    const to = program === 'pdftotext' ? ['-'] : [];
    return execFileSync(program, [...options, file, ...to], { encoding: 'utf8' });
  } finally {
    rmSync(folder, { recursive: true });
  }
}

/** The words of a PDF in its reading order. */
export const wordsOf = (bytes: Buffer): string =>
  readBy('pdftotext', bytes, '-nopgbrk').replaceAll(/\s+/g, ' ');
