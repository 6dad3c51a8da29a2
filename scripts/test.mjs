// npm test: everything, from a bare clone. Prints a last line `N passed, N failed`.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureInstalled } from './lib/install.mjs';
import { BIN, ROOT } from './lib/paths.mjs';
import { say } from './lib/say.mjs';

const tools = spawn(process.execPath, [join(ROOT, 'scripts', 'testTools.mjs')], {
  stdio: ['ignore', 2, 2],
});
const toolsThere = new Promise((resolve) => tools.once('close', (status) => resolve(status === 0)));
ensureInstalled();
const { ensurePackagesBuilt, ensureServerBuilt, ensureWebBuilt } = await import('./lib/build.mjs');

let passed = 0;
let failed = 0;
/** Everything that took time, for the list at the end: seconds and what it was. */
const slow = [];
/** Journeys that passed at the second try only. */
const again = [];

rmSync(join(ROOT, 'test-results'), { recursive: true, force: true });
const results = join(ROOT, 'test-results');
mkdirSync(results, { recursive: true });
const bin = (name) => join(BIN, name);

/** More room for what is young: a tenth less time for collecting it. */
const NODE_OPTIONS = `${process.env.NODE_OPTIONS ?? ''} --max-semi-space-size=64`.trim();

const secondsSince = (started) => (Date.now() - started) / 1000;

/** Runs a command and resolves to whether it passed; what it says is shown in one piece when it has ended, or as it comes. */
function run(name, command, args, { live = false, env = {} } = {}) {
  const started = Date.now();
  if (live) say(`\n== ${name}`);
  return new Promise((resolve) => {
    const child = spawn(command, args, {
      cwd: ROOT,
      env: { ...process.env, NODE_OPTIONS, ...env },
      stdio: ['ignore', live ? 'inherit' : 'pipe', live ? 'inherit' : 'pipe'],
    });
    let said = '';
    const hear = (chunk) => (said += String(chunk));
    child.stdout?.on('data', hear);
    child.stderr?.on('data', hear);
    child.on('error', (error) => hear(error.message));
    child.on('close', (status) => {
      const seconds = secondsSince(started);
      if (!live) say(`\n== ${name}`);
      if (said.trim() !== '') say(said.trimEnd());
      say(`== ${name}: ${status === 0 ? 'passed' : 'FAILED'} in ${seconds.toFixed(0)} s`);
      slow.push([seconds, name]);
      resolve(status === 0);
    });
  });
}

/** A check that stands or falls as one. */
const check = (name, command, args) => async () => {
  if (await run(name, command, args)) passed += 1;
  else failed += 1;
};

function built(name, build) {
  const started = Date.now();
  try {
    build();
    passed += 1;
  } catch (error) {
    say(String(error));
    say(`== ${name}: FAILED`);
    failed += 1;
  }
  slow.push([secondsSince(started), `Building: ${name}`]);
}

/** The files that Jest would run of a project. */
function testFilesOf(project) {
  const { stdout } = spawnSync(bin('jest'), ['--selectProjects', project, '--listTests', '--json'], {
    cwd: ROOT,
    encoding: 'utf8',
  });
  return JSON.parse(stdout.slice(stdout.indexOf('[')));
}

/** One of `of` parts of one of Jest's projects on one core, its files together, each test counted. */
const jest =
  (project, part = 1, of = 1) =>
  async () => {
    const file = join(results, `jest-${project}-${part}.json`);
    const args = [
      '--selectProjects',
      project,
      '--maxWorkers=1',
      '--silent',
      '--json',
      `--outputFile=${file}`,
    ];
    const files = testFilesOf(project).filter((_, i) => i % of === part - 1);
    const fine = await run(
      `Jest, ${of === 1 ? project : `${project}, part ${part} of ${of}`}`,
      bin('jest'),
      ['--config', 'jest.together.config.mjs', ...args],
      {
        env: { HEATHSTEP_TEST_FILES: JSON.stringify(files) },
      },
    );
    if (!existsSync(file)) {
      failed += 1;
      return;
    }
    const report = JSON.parse(readFileSync(file, 'utf8'));
    const wrong = report.numFailedTests + report.numRuntimeErrorTestSuites;
    passed += report.numPassedTests;
    failed += wrong === 0 && !fine ? 1 : wrong;
    const tests = report.testResults.flatMap((suite) => suite.assertionResults);
    const seconds = new Map();
    for (const { ancestorTitles, duration } of tests)
      seconds.set(ancestorTitles[0], (seconds.get(ancestorTitles[0]) ?? 0) + (duration ?? 0) / 1000);
    // A file that told no test would otherwise be missed by no one.
    for (const path of files.map((f) => f.replace(`${ROOT}/`, ''))) {
      if (!seconds.has(path) && wrong === 0) {
        say(`${path} ran no test`);
        failed += 1;
      }
    }
    for (const [path, took] of seconds) slow.push([took, path]);
  };

/** Takes tasks from a list until it is empty; several may take from one list. */
async function inTurn(tasks) {
  for (let task = tasks.shift(); task !== undefined; task = tasks.shift()) await task();
}

/** Three tasks at a time: what asks the database waits for it a third of its time, and two cores are to have something to do. */
const sideBySide = (tasks) => Promise.all([inTurn(tasks), inTurn(tasks), inTurn(tasks)]);

async function journeys() {
  const file = join(results, 'e2e.json');
  const fine = await run('Journeys in Chromium', bin('playwright'), ['test'], { live: true });
  if (!existsSync(file)) {
    failed += 1;
    return;
  }
  const report = JSON.parse(readFileSync(file, 'utf8'));
  const { stats } = report;
  passed += stats.expected + stats.flaky;
  failed += stats.unexpected;
  if (!fine && stats.unexpected === 0) failed += 1;
  const specsOf = (suite) => [...(suite.specs ?? []), ...(suite.suites ?? []).flatMap(specsOf)];
  for (const spec of report.suites.flatMap(specsOf))
    for (const { duration } of spec.tests.flatMap((t) => t.results))
      slow.push([duration / 1000, `${spec.file}: ${spec.title}`]);
  for (const spec of report.suites.flatMap(specsOf))
    if (spec.tests.some((t) => t.status === 'flaky')) again.push(`${spec.file}: ${spec.title}`);
}

built('Packages', ensurePackagesBuilt);
built('Server', ensureServerBuilt);
built('Web', ensureWebBuilt);
if (!(await toolsThere)) process.exit(1);
// The longest first.
await sideBySide([
  jest('api', 1, 2),
  jest('api', 2, 2),
  jest('core', 1, 2),
  jest('core', 2, 2),
  check('Lint', bin('oxlint'), []),
  check('Format', bin('oxfmt'), ['--check', '.']),
  check('Types', process.execPath, [join(ROOT, 'scripts', 'types.mjs')]),
  check('Import directions', bin('depcruise'), ['packages', 'apps', '--config', '.dependency-cruiser.cjs']),
  check('Unused code', bin('knip'), []),
  check('Bench, its short form', process.execPath, [join(ROOT, 'scripts', 'bench.mjs'), '--short']),
]);
await journeys();

slow.sort(([a], [b]) => b - a);
say('\nThe ten slowest:');
for (const [seconds, name] of slow.slice(0, 10)) say(`${seconds.toFixed(0).padStart(5)} s  ${name}`);
for (const name of again) say(`Needed a second try: ${name}`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);
