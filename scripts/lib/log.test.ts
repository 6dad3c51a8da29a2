import {
  mkdtempSync,
  readFileSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
  writeSync,
  closeSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
// @ts-expect-error The scripts are plain JavaScript, checked by what they do.
import { openLog as untyped } from './log.mjs';

const openLog = untyped as (file: string) => number;

describe('the log of the server', () => {
  let folder: string;
  beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'log-'))));
  afterEach(() => rmSync(folder, { recursive: true }));
  const mode = (file: string): number => statSync(file).mode & 0o777;

  it('is read by its owner only, also one that an earlier start left open to all', () => {
    const file = join(folder, 'server.log');
    writeFileSync(file, 'before\n', { mode: 0o644 });
    const log = openLog(file);
    writeSync(log, 'after\n');
    closeSync(log);
    expect(readFileSync(file, 'utf8')).toBe('before\nafter\n');
    expect(mode(file)).toBe(0o600);
  });

  it('begins anew when it has grown large, and keeps the last one', () => {
    const file = join(folder, 'server.log');
    writeFileSync(file, '');
    truncateSync(file, 21 * 1024 * 1024);
    closeSync(openLog(file));
    expect(statSync(file).size).toBe(0);
    expect(statSync(`${file}.1`).size).toBe(21 * 1024 * 1024);
    expect(mode(`${file}.1`)).toBe(0o600);
  });
});
