import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

function running(pid) {
  try {
    process.kill(pid, 0);
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('node');
  } catch {
    return false;
  }
}

/** What an earlier start wrote; nothing when it was cut off while writing. */
function read(file) {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    return {};
  }
}

/** One start for one data folder. A lock left by a killed process is taken over; `left` tells that there was one. */
export function lockData(folder) {
  mkdirSync(folder, { recursive: true });
  const file = join(folder, 'running.json');
  const left = existsSync(file);
  const { pid, port } = left ? read(file) : {};
  if (Number.isInteger(pid) && pid !== process.pid && running(pid)) {
    throw new Error(
      `Heathstep is running already on this data (process ${pid}, http://127.0.0.1:${port}). Stop it first, or set HEATHSTEP_DATA to another folder.`,
    );
  }
  return {
    left,
    hold: (onPort) => writeFileSync(file, JSON.stringify({ pid: process.pid, port: onPort })),
    release: () => rmSync(file, { force: true }),
  };
}
