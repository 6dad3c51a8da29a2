// A data folder on a small disk of its own that is filled to the last byte while people write, and emptied again.
import { spawnSync } from 'node:child_process';
import { chmodSync, closeSync, openSync, rmSync, writeSync } from 'node:fs';
import { join } from 'node:path';
import { sleep } from './house.mjs';

const MEGABYTES = 400;
const FULL_MS = 25_000;

/** Mounts the disk; only root can. Throws what to do where it cannot. */
export function fullDisk(data) {
  const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${MEGABYTES}m`, 'heathstep', data]);
  if (mounted.status !== 0)
    throw new Error('A small disk can only be mounted by root: sudo npm run faults -- disk');
  chmodSync(data, 0o755);
  const ballast = join(data, 'ballast');

  /** Writes until nothing more fits. */
  function fillUp() {
    const file = openSync(ballast, 'a');
    for (let chunk = Buffer.alloc(1024 * 1024); chunk.length > 0;) {
      try {
        writeSync(file, chunk);
      } catch {
        chunk = chunk.subarray(0, Math.floor(chunk.length / 2));
      }
    }
    closeSync(file);
  }

  return {
    /** Fills the disk while the writers go on, says what they were told, empties it and waits until all answer again. */
    async fill({ kept, refused, untilHealthy, begun }) {
      await sleep(3000);
      const before = kept.entries.length;
      const full = Date.now();
      while (Date.now() - full < FULL_MS) {
        fillUp();
        await sleep(500);
      }
      const meanwhile = kept.entries.length - before;
      rmSync(ballast);
      const wait = await untilHealthy();
      await sleep(5000);
      console.log(
        `${before} entries before the disk was full, ${meanwhile} while it was, ${kept.entries.length} in all.`,
      );
      console.log(
        `All answered again ${(wait / 1000).toFixed(1)} s after there was room; begun ${begun()} times.`,
      );
      for (const [said, times] of refused) console.log(`  ${times} x ${said}`);
    },
    free: () => spawnSync('umount', ['-l', data]),
  };
}
