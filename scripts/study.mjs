// npm run study: lives made-up people of every protocol by the rules, by simpler ways of deciding and with each rule left
// out, prints what came of them and writes docs/study.md. `npm run study -- 200 12` lives so many people and weeks and only prints.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import { ensureInstalled } from './lib/install.mjs';
import { ROOT } from './lib/paths.mjs';

ensureInstalled();
const { ensurePackagesBuilt } = await import('./lib/build.mjs');
ensurePackagesBuilt();
const { loadContent } = await import('@heathstep/content');
const { addTallies } = await import('@heathstep/core/simulate');
const { report } = await import('./lib/studyReport.mjs');

const [people = '1000', weeks = '26'] = process.argv.slice(2);
const protocols = loadContent().content.protocols.map((p) => ({
  key: p.key,
  name: p.name,
  school: p.stages[0].painSchool,
}));
const EACH = Math.max(1, Math.round(Number(people) / protocols.length));
const FEWER = Math.max(1, Math.round(EACH / 6));
/** No seed of these is used in making or trying out anything else. */
const SEEDS = 9_000_000;
/** So many people are one task of a worker. */
const AT_ONCE = 10;

const rules = (more = {}) => ({ policy: 'rules', without: [], twist: {}, ...more });
const RUNS = [
  { key: 'rules', name: 'the rules', each: EACH, ...rules(), calibrated: true },
  { key: 'fixed', name: 'the same dose for ever', each: FEWER, ...rules({ policy: 'fixed' }) },
  { key: 'calendar', name: 'by the calendar', each: FEWER, ...rules({ policy: 'calendar' }) },
  { key: 'random', name: 'by lot', each: FEWER, ...rules({ policy: 'random' }) },
  ...[1, 2, 3, 4, 5, 6, 7, 8].map((n) => ({
    key: `without-${n}`,
    name: `without rule ${n}`,
    each: FEWER,
    ...rules({ without: [n] }),
  })),
  { key: 'noise', name: 'half as much noise again', each: FEWER, ...rules({ twist: { noise: 1.5 } }) },
  { key: 'missed', name: 'three times as much left out', each: FEWER, ...rules({ twist: { missed: 3 } }) },
  {
    key: 'still',
    name: 'nobody changes',
    each: FEWER,
    ...rules({ twist: { kind: 'unchanging' } }),
  },
];

function tasks() {
  return RUNS.flatMap(({ key, each, policy, without, twist, calibrated = false }) =>
    protocols.flatMap(({ key: protocol }, p) => {
      const seeds = Array.from({ length: each }, (_, i) => SEEDS + p * 10_000 + i);
      return Array.from({ length: Math.ceil(each / AT_ONCE) }, (_, i) => ({
        run: key,
        protocol,
        seeds: seeds.slice(i * AT_ONCE, (i + 1) * AT_ONCE),
        weeks: Number(weeks),
        policy,
        without,
        twist,
        calibrated,
      }));
    }),
  );
}

const waiting = tasks().map((t, id) => ({ ...t, id }));
const whole = waiting.length;
const came = new Map();
const began = performance.now();
let told = 0;
const workers = Array.from(
  { length: Math.max(1, Math.min(4, availableParallelism())) },
  () => new Worker(new URL('./lib/studyWorker.mjs', import.meta.url)),
);
process.once('SIGINT', () => {
  console.log('\nLeft off; nothing was written.');
  process.exit(130);
});
let failed = null;
await Promise.all(
  workers.map(
    (worker) =>
      new Promise((resolve, reject) => {
        const next = () => {
          const task = waiting.shift();
          if (task === undefined) return resolve();
          worker.postMessage(task);
          worker.once('message', ({ tally, forecasts }) => {
            const { run, protocol } = task;
            came.set(run, [...(came.get(run) ?? []), { protocol, tally, forecasts }]);
            const share = Math.floor(((whole - waiting.length) / whole) * 10);
            if (share > told) console.log(`${(told = share) * 10} % lived`);
            next();
          });
        };
        worker.once('error', reject);
        next();
      }),
  ),
).catch((error) => (failed = error));
await Promise.all(workers.map((w) => w.terminate()));
if (failed !== null) throw failed;

const seconds = (performance.now() - began) / 1000;
const lived = RUNS.map((run) => ({
  ...run,
  all: addTallies(came.get(run.key).map((c) => c.tally)),
  byProtocol: protocols.map(({ key, name, school }) => {
    const own = came.get(run.key).filter((c) => c.protocol === key);
    return {
      key,
      name,
      school,
      tally: addTallies(own.map((c) => c.tally)),
      forecasts: own.flatMap((c) => c.forecasts),
    };
  }),
}));
const text = report(lived, { weeks: Number(weeks) });
// The page is of the whole study; fewer people or weeks are only looked at.
if (process.argv.length === 2) writeFileSync(join(ROOT, 'docs', 'study.md'), text);
console.log(text);
const [main] = lived;
console.log(
  `${lived.reduce((n, r) => n + r.all.people, 0)} people lived in ${seconds.toFixed(0)} s, on ${workers.length} cores.`,
);
if (main.all.throughRed > 0 || main.all.pastStop > 0) {
  console.error('Somebody was progressed through a red, or prescribed past a stop.');
  process.exit(1);
}
