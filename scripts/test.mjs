// npm test: everything, from a bare clone. Prints a last line `N passed, N failed`.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureInstalled } from './lib/install.mjs';
import { BIN, ROOT } from './lib/paths.mjs';
import { say } from './lib/say.mjs';

const CHROMIUM = ['/usr/bin/chromium', '/usr/bin/chromium-browser'];

ensureInstalled();
const { ensurePackagesBuilt, ensureServerBuilt, ensureWebBuilt } = await import('./lib/build.mjs');
const { ensureDebian, ensurePostgres } = await import('./lib/postgres.mjs');
process.env.CHROMIUM ??= ensureDebian('Chromium', () => CHROMIUM.find(existsSync), 'chromium');
ensurePostgres();

let passed = 0;
let failed = 0;

function run(name, command, args) {
  const started = Date.now();
  say(`\n== ${name}`);
  const { status } = spawnSync(command, args, { cwd: ROOT, stdio: ['ignore', 'inherit', 'inherit'] });
  say(`== ${name}: ${status === 0 ? 'passed' : 'FAILED'} in ${((Date.now() - started) / 1000).toFixed(0)} s`);
  return status === 0;
}

/** A check that stands or falls as one. */
function check(name, command, args) {
  if (run(name, command, args)) passed += 1;
  else failed += 1;
}

function built(name, build) {
  try {
    build();
    passed += 1;
  } catch (error) {
    say(String(error));
    say(`== ${name}: FAILED`);
    failed += 1;
  }
}

rmSync(join(ROOT, 'test-results'), { recursive: true, force: true });
const results = join(ROOT, 'test-results');
mkdirSync(results, { recursive: true });
const bin = (name) => join(BIN, name);

built('Packages', ensurePackagesBuilt);
built('Server', ensureServerBuilt);
built('Web', ensureWebBuilt);
for (const [name, project] of [
  ['Types of the server', 'apps/server/tsconfig.json'],
  ['Types of the devices', 'apps/devices/tsconfig.json'],
  ['Types of the web', 'apps/web/tsconfig.json'],
  ['Types of the journeys', 'e2e/tsconfig.json'],
  ['Types of the tests', 'tsconfig.tests.json'],
]) {
  check(name, bin('tsc'), ['-p', project, '--noEmit']);
}
check('Lint', bin('eslint'), ['.']);
check('Format', bin('prettier'), ['--check', '.', '--log-level', 'warn']);
check('Import directions', bin('depcruise'), ['packages', 'apps', '--config', '.dependency-cruiser.cjs']);
check('Unused code', bin('knip'), []);

const jestFile = join(results, 'jest.json');
run('Jest', bin('jest'), ['--silent', '--json', `--outputFile=${jestFile}`]);
if (existsSync(jestFile)) {
  const report = JSON.parse(readFileSync(jestFile, 'utf8'));
  passed += report.numPassedTests;
  failed += report.numFailedTests + report.numRuntimeErrorTestSuites;
} else failed += 1;

const e2eFile = join(results, 'e2e.json');
const journeys = run('Journeys in Chromium', bin('playwright'), ['test']);
if (existsSync(e2eFile)) {
  const { stats } = JSON.parse(readFileSync(e2eFile, 'utf8'));
  passed += stats.expected + stats.flaky;
  failed += stats.unexpected;
  if (!journeys && stats.unexpected === 0) failed += 1;
} else failed += 1;

console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);
