// npm run study:lab: captures made-up people on the made-up mat and motion pair, twice each, compares what is told with the
// truth and with itself, prints the table and writes it into docs/method.md. `npm run study:lab -- 20` only prints.
import { readFileSync, writeFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads';
import { ensureInstalled } from './lib/install.mjs';
import { ROOT } from './lib/paths.mjs';

const PEOPLE = 100;
/** No seed of these is used in making or trying out anything else. */
const SEEDS = 700_000;
const BEGIN = '<!-- lab:begin -->';
const END = '<!-- lab:end -->';

/** Names of the quantities as the table writes them. */
const named = (q) => q.replaceAll(/([A-Z])/g, (c) => ` ${c.toLowerCase()}`);
const figure = (v) => {
  const size = Math.abs(v);
  return size >= 20 ? v.toFixed(0) : size >= 2 ? v.toFixed(1) : v.toFixed(size < 0.1 ? 3 : 2);
};

function table(rows) {
  const lines = [
    '| instrument | task | quantity | n | bias | SD | limits of agreement | repeat MDC |',
    '| --- | --- | --- | --- | --- | --- | --- | --- |',
    ...rows.map(
      (r) =>
        `| ${r.instrument.replace('-', ' ')} | ${r.task} | ${named(r.quantity)} | ${r.n} | ${figure(r.bias)} | ${figure(r.sd)} | ${r.limits.map(figure).join(' to ')} | ${figure(r.mdc)} |`,
    ),
  ];
  return lines.join('\n');
}

async function main() {
  ensureInstalled();
  const { ensurePackagesBuilt } = await import('./lib/build.mjs');
  ensurePackagesBuilt();
  const { LAB_CASES } = await import('@heathstep/core/simulate');
  const [asked] = process.argv.slice(2);
  const people = Number(asked ?? PEOPLE);
  const rows = new Array(LAB_CASES.length);
  const open = LAB_CASES.map((_, i) => i);
  const worker = () =>
    new Promise((resolve, reject) => {
      const next = open.shift();
      if (next === undefined) return resolve();
      const w = new Worker(new URL(import.meta.url), { workerData: { next, people } });
      w.once('message', (found) => {
        rows[next] = found;
        worker().then(resolve, reject);
      });
      w.once('error', reject);
    });
  await Promise.all(Array.from({ length: availableParallelism() }, worker));
  const text = table(rows.flat());
  console.log(text);
  if (asked !== undefined) return;
  const file = join(ROOT, 'docs', 'method.md');
  const old = readFileSync(file, 'utf8');
  const [before, rest] = old.split(BEGIN);
  const after = rest.split(END)[1];
  writeFileSync(file, `${before}${BEGIN}\n\n${text}\n\n${END}${after}`);
}

if (isMainThread) await main();
else {
  const { LAB_CASES, labAgreement } = await import('@heathstep/core/simulate');
  const seeds = Array.from({ length: workerData.people }, (_, i) => SEEDS + i);
  parentPort.postMessage(labAgreement(seeds, [LAB_CASES[workerData.next]]));
}
