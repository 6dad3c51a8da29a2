import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import type { ContentBundle } from './bundle.js';

/** What a build made of the content: checked and completed once, read again as long as nothing it was made from changed. */
interface Built {
  readonly fingerprint: string;
  readonly content: ContentBundle;
}

const fileIn = (root: string): string => join(root, 'dist', 'content.json');

function* filesBelow(folder: string, ending: RegExp): Generator<string> {
  if (!existsSync(folder)) return;
  for (const entry of readdirSync(folder, { withFileTypes: true }).sort((a, b) =>
    a.name < b.name ? -1 : 1,
  )) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* filesBelow(path, ending);
    else if (ending.test(entry.name) && !entry.name.endsWith('.test.ts')) yield path;
  }
}

/** Of the texts of everything the content is made from: data, schemas, and the code that checks and completes them. */
function fingerprintOf(root: string): string {
  const hash = createHash('sha256');
  const folders = [
    join(root, 'data'),
    join(root, 'schemas'),
    join(root, 'src'),
    join(root, '..', 'core', 'src'),
  ];
  for (const folder of folders)
    for (const file of filesBelow(folder, /\.(yaml|json|ts)$/)) hash.update(file).update(readFileSync(file));
  return hash.digest('hex');
}

/** The content a build left, or null where there is none or something changed since. */
export function readBuilt(root: string): ContentBundle | null {
  const path = fileIn(root);
  if (!existsSync(path)) return null;
  try {
    const built = JSON.parse(readFileSync(path, 'utf8')) as Built;
    return built.fingerprint === fingerprintOf(root) ? built.content : null;
  } catch {
    // Half written by a build that was stopped: as if there were none.
    return null;
  }
}

/** Leaves content for the next start; only what passed every check. */
export function writeBuilt(root: string, content: ContentBundle): void {
  const path = fileIn(root);
  mkdirSync(dirname(path), { recursive: true });
  writeFileSync(path, JSON.stringify({ fingerprint: fingerprintOf(root), content } satisfies Built));
}
