import { chmodSync, existsSync, openSync, renameSync, statSync } from 'node:fs';

/** A convention: a log of more is put aside as `.1` at the next start, in place of the one put aside before. */
const LARGE_BYTES = 20 * 1024 * 1024;

/** Opens the server's log to be added to. It names records by their ids, so nobody but its owner reads it. */
export function openLog(file) {
  if (existsSync(file) && statSync(file).size > LARGE_BYTES) renameSync(file, `${file}.1`);
  const log = openSync(file, 'a', 0o600);
  for (const kept of [file, `${file}.1`]) if (existsSync(kept)) chmodSync(kept, 0o600);
  return log;
}
