import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { createHash } from 'node:crypto';
import { ROOT } from './paths.mjs';

const SKIPPED = new Set(['node_modules', 'dist', '.data', '.cache', '.git', 'test-results']);

function* files(path) {
  if (!existsSync(path)) return;
  const stat = statSync(path);
  if (stat.isFile()) yield [path, stat];
  else {
    for (const name of readdirSync(path).sort()) {
      if (!SKIPPED.has(name) && !name.endsWith('.tsbuildinfo')) yield* files(join(path, name));
    }
  }
}

/** A fingerprint of paths by size and time of change; content is read only for small manifests. */
function fingerprint(paths) {
  const hash = createHash('sha256');
  for (const path of paths) {
    for (const [file, stat] of files(join(ROOT, path))) hash.update(`${file}:${stat.size}:${stat.mtimeMs}\n`);
  }
  return hash.digest('hex');
}

/** Runs `make` when the inputs changed since the last time or an output is missing; remembers in `.cache`. */
export function whenStale(name, inputs, outputs, make) {
  const stamp = join(ROOT, '.cache', `${name}.stamp`);
  const now = fingerprint(inputs);
  const known = existsSync(stamp) ? readFileSync(stamp, 'utf8') : '';
  if (known === now && outputs.every((o) => existsSync(join(ROOT, o)))) return false;
  make();
  mkdirSync(dirname(stamp), { recursive: true });
  writeFileSync(stamp, fingerprint(inputs));
  return true;
}
