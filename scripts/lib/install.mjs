import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './paths.mjs';
import { runOrThrow } from './run.mjs';

const LEAST_NODE = [20, 19];

function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < LEAST_NODE[0] || (major === LEAST_NODE[0] && minor < LEAST_NODE[1])) {
    console.error(
      `Heathstep needs Node.js ${LEAST_NODE.join('.')} or newer; this is ${process.versions.node}.`,
    );
    process.exit(1);
  }
}

/** Every package of the lock file is installed in the locked version (optional ones for other systems aside). */
function matchesLock() {
  const installed = join(ROOT, 'node_modules', '.package-lock.json');
  if (!existsSync(installed)) return false;
  const have = JSON.parse(readFileSync(installed, 'utf8')).packages;
  const want = JSON.parse(readFileSync(join(ROOT, 'package-lock.json'), 'utf8')).packages;
  return Object.entries(want).every(
    ([path, entry]) =>
      path === '' ||
      entry.optional === true ||
      entry.link === true ||
      !path.includes('node_modules/') ||
      have[path]?.version === entry.version,
  );
}

/** Installs packages when they are missing or differ from the lock file. */
export function ensureInstalled() {
  checkNode();
  if (matchesLock()) return;
  console.error('Installing packages (a minute or two the first time) ...');
  runOrThrow('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']);
}
