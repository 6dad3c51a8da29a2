// The bench of the foot lab: a mat and a motion pair worked out, against a plain loop over the same frames, and playing.
import { Worker } from 'node:worker_threads';

const median = (list) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)];

const WORK = `
import { parentPort, workerData } from 'node:worker_threads';
const { analyseMat, analyseMotion, footView, seen } = await import(workerData.lab);
const { recordMat, recordMotion, simulateMat, simulateMotion, walkerOf } = await import(workerData.simulate);
const walker = walkerOf(7);
const walk = { walker, task: 'walk', side: 'both', seed: 1, mistakes: [] };
const mat = recordMat({ ...simulateMat(walk), seconds: 30 }, 30);
const pair = recordMotion(simulateMotion(walk), 60);
const took = (call, times) => Array.from({ length: times }, () => { const t = performance.now(); call(); return performance.now() - t; });
const question = { task: 'walk', side: 'both', massKg: walker.massKg, factor: 1 };
// Every cell of every frame, once: its sum and its middle, as one writes it first.
const plain = () => {
  const { columns, rows } = mat.header;
  const out = [];
  for (let n = 0; n < mat.times.length; n += 1) {
    let [sum, x, y] = [0, 0, 0];
    for (let r = 0; r < rows; r += 1)
      for (let c = 0; c < columns; c += 1) {
        const v = mat.cells[n * rows * columns + r * columns + c];
        sum += v; x += v * c; y += v * r;
      }
    out.push({ sum, x: x / sum, y: y / sum });
  }
  return out;
};
const first = took(() => analyseMat(mat, question), 1)[0];
const again = took(() => analyseMat(mat, question), 5);
const naive = took(plain, 5);
const motion = took(() => analyseMotion(pair, { task: 'walk', side: 'both' }), 5);
const report = analyseMat(mat, question);
const loads = report.feet.left[0];
const view = footView(mat.header, loads.foot);
const size = mat.header.columns * mat.header.rows;
const pictures = took(() => { seen(view, report.clean.cells, { from: loads.from * size }); seen(view, report.clean.cells, { from: (loads.from + 1) * size }); }, 60);
parentPort.postMessage({ first, again, naive, motion, pictures });
`;

/** Prints what the lab takes on this machine, in a worker as the page has it. */
export async function benchLab(line) {
  const door = (name) => import.meta.resolve(`@heathstep/core/${name}`);
  const found = await new Promise((resolve, reject) => {
    const worker = new Worker(new URL(`data:text/javascript,${encodeURIComponent(WORK)}`), {
      workerData: { lab: door('lab'), simulate: door('simulate') },
    });
    worker.once('message', resolve);
    worker.once('error', reject);
  });
  const ms = (v) => `${v.toFixed(v < 10 ? 1 : 0)} ms`;
  const [again, naive] = [median(found.again), median(found.naive)];
  line('30 s of a mat, the first time', ms(found.first), 'under 500 ms');
  line('30 s of a mat, after that', ms(again), 'under 500 ms');
  line('  against one plain loop over the same frames', `${(again / naive).toFixed(1)} x`, 'ratio only');
  line('60 s of a motion pair at 200 Hz', ms(median(found.motion)), 'under 200 ms');
  line('pictures of both feet at one moment', ms(median(found.pictures)), 'under 8 ms');
}
