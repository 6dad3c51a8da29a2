import fc from 'fast-check';
import type { LabTask } from '../lab/task.js';
import { lowPass } from '../lab/filter.js';
import { type MatHeader, type MatRecording, PER_KPA } from '../recording/recording.js';
import { simulateMat } from '../simulate/mat.js';
import { MAT_MISTAKES, type MatMistake } from '../simulate/mistakes.js';
import { recordMat } from '../simulate/recordMat.js';
import { type FootFault, walkerOf, type Walker } from '../simulate/walker.js';
import { analyseMat, type MatReport } from './analyse.js';
import { cleanMat } from './clean.js';
import { footOnMat, REGIONS } from './foot.js';
import { touchedCells } from './image.js';
import { loadsOf } from './loads.js';

const H: MatHeader = {
  kind: 'pressure-mat',
  name: 'Mat',
  rateHz: 100,
  calibratedOn: null,
  simulated: true,
  task: null,
  side: null,
  columns: 64,
  rows: 32,
  cellMm: 10,
  mostKpa: 1200,
};
const SIZE = 64 * 32;

/** The same picture in every frame, kPa by place on the mat in mm. */
function still(kpa: (x: number, y: number) => number, frames = 100): MatRecording {
  const one = Uint16Array.from({ length: SIZE }, (_, c) =>
    Math.round(kpa(((c % 64) + 0.5) * 10, (Math.floor(c / 64) + 0.5) * 10) * PER_KPA),
  );
  const cells = new Uint16Array(SIZE * frames);
  for (let n = 0; n < frames; n += 1) cells.set(one, n * SIZE);
  return { header: H, times: Float64Array.from({ length: frames }, (_, i) => i / 100), cells };
}

const personWith = (kind: FootFault | null): Walker => {
  for (let seed = 1; seed < 500; seed += 1) {
    const w = walkerOf(seed);
    if ((w.fault?.kind ?? null) === kind) return w;
  }
  throw new Error('no such person');
};

const capture = (
  walker: Walker,
  task: LabTask,
  mistakes: MatMistake[] = [],
  side: 'left' | 'both' = 'both',
  seconds = 12,
) => {
  const r = recordMat(simulateMat({ walker, task, side, seed: 5, mistakes }), seconds);
  return { r, q: { task, side, massKg: walker.massKg, factor: null } as const };
};
const keys = (report: MatReport, level: 'refuse' | 'warn') =>
  report.notes.filter((n) => n.level === level && n.key !== 'not-weighed').map((n) => n.key);

describe('a picture of known shape', () => {
  it('a disc under even pressure carries pressure times area, with its middle where it stands', () => {
    const disc = still((x, y) => (Math.hypot(x - 205, y - 150) < 60 ? 100 : 0));
    const m = cleanMat(disc);
    const cells = touchedCells(Float32Array.from(m.most));
    expect((cells.length * 100) / (Math.PI * 60 * 60)).toBeCloseTo(1, 1);
    expect(m.totals[0]).toBeCloseTo(cells.length * 10, 6);
    expect(m.faults).toEqual({ dead: [], stuck: [], saturated: [], driftKpa: 0 });
  });

  it('a sole of known outline gives its thirds: 8 and 4 and 10 cm broad are an arch index of 4 in 22', () => {
    const broad = (y: number) => (y < 60 ? 80 : y < 120 ? 40 : y < 180 ? 100 : 0);
    const sole = still((x, y) => (y > 60 && y < 240 && Math.abs(x - 320) < broad(y - 60) / 2 ? 120 : 0));
    const image = Float32Array.from(cleanMat(sole).most);
    const foot = footOnMat(H, image, touchedCells(image), { side: 'right', ahead: [0, 1] });
    expect(foot?.archIndex).toBeCloseTo(4 / 22, 1);
    expect(foot?.lengthMm).toBeGreaterThan(172);
    expect(foot?.lengthMm).toBeLessThan(188);
  });

  it('moving load within a part changes no sum of any part', () => {
    const w = personWith(null);
    const { r } = capture(w, 'stance', [], 'both', 1);
    const m = cleanMat(r);
    const image = Float32Array.from(m.most);
    const cells = touchedCells(image).filter((c) => c % 64 < 32);
    const foot = footOnMat(H, image, cells, { side: 'left', ahead: [0, 1] });
    if (foot === null) throw new Error('no foot');
    const before = loadsOf(m, foot, { from: 0, to: 0 }, 1);
    // Cells that lie whole in one part.
    const whole = [...foot.cells.keys()].filter((i) => (foot.share[i] as number) > 0.999);
    fc.assert(
      fc.property(fc.integer({ min: 0, max: REGIONS.length - 1 }), fc.nat(), (region, seed) => {
        const mine = whole.filter((i) => foot.region[i] === region).map((i) => foot.cells[i] as number);
        if (mine.length < 2) return;
        const turned = mine.map(
          (_, i) => m.cells[mine[(i + 1 + (seed % mine.length)) % mine.length] as number] as number,
        );
        const moved = m.cells.slice();
        mine.forEach((c, i) => {
          moved[c] = turned[i] as number;
        });
        const after = loadsOf({ ...m, cells: moved }, foot, { from: 0, to: 0 }, 1);
        [...after.parts].forEach((v, i) => expect(v).toBeCloseTo(before.parts[i] as number, 2));
      }),
      { numRuns: 20 },
    );
  });
});

describe('what must hold of any capture', () => {
  const w = personWith(null);
  const { r, q } = capture(w, 'stance', [], 'both', 2);
  const plain = analyseMat(r, q);

  it('twice the pressure is twice the force, and the same shares', () => {
    const twice = analyseMat({ ...r, cells: r.cells.map((v) => v * 2) }, { ...q, massKg: w.massKg * 2 });
    for (const name of ['innerBall', 'outerBall', 'heel', 'weightShare'])
      // More of the edge is touched when it is pressed twice as much: a point at the most.
      expect(
        Math.abs((twice.quantities.left[name]?.value ?? 0) - (plain.quantities.left[name]?.value ?? 0)),
      ).toBeLessThan(1);
    expect((twice.clean.totals[50] as number) / (plain.clean.totals[50] as number)).toBeCloseTo(2, 6);
  });

  it('a mirror image exchanges the sides', () => {
    const cells = r.cells.map((_, i) => r.cells[i - (i % 64) + (63 - (i % 64))] as number);
    const mirrored = analyseMat({ ...r, cells }, q);
    for (const name of ['innerBall', 'outerBall', 'heel', 'weightShare', 'archIndex'])
      expect(mirrored.quantities.left[name]?.value).toBeCloseTo(plain.quantities.right[name]?.value ?? 0, 1);
  });

  it('standing reads the same backward in time', () => {
    const n = r.times.length;
    const cells = new Uint16Array(r.cells.length);
    for (let i = 0; i < n; i += 1) cells.set(r.cells.subarray((n - 1 - i) * SIZE, (n - i) * SIZE), i * SIZE);
    const back = analyseMat({ ...r, cells }, q);
    expect(back.quantities.right['heel']?.value).toBeCloseTo(plain.quantities.right['heel']?.value ?? 0, 1);
  });

  it('a mat turned half round is read that way, and says so', () => {
    const turned = analyseMat(
      {
        ...r,
        cells: Uint16Array.from(
          { length: r.cells.length },
          (_, i) => r.cells[i - (i % SIZE) + (SIZE - 1 - (i % SIZE))] as number,
        ),
      },
      q,
    );
    expect(keys(turned, 'warn')).toContain('turned');
    for (const name of ['innerBall', 'heel', 'weightShare'])
      expect(turned.quantities.left[name]?.value).toBeCloseTo(plain.quantities.left[name]?.value ?? 0, 1);
  });

  it('without the weight shares are told, and that nothing was set right', () => {
    const light = analyseMat(r, { ...q, massKg: null });
    expect(keys(light, 'warn')).toContain('no-weight');
    expect(light.weighed).toBe(false);
    expect(light.quantities.left['heel']?.value).toBeCloseTo(plain.quantities.left['heel']?.value ?? 0, 0);
  });

  it('a slow sway of known size has the path and the ellipse that belong to it', () => {
    // A circle of 6 mm, twice in 10 s: path 75.4 mm in 10 s; variance 18 mm2 each way: ellipse pi x 5.991 x 18.
    const n = 1000;
    const circle = Array.from({ length: n }, (_, i) => (2 * Math.PI * i * 2) / n);
    const x = lowPass(
      circle.map((a) => 6 * Math.cos(a)),
      100,
      10,
    );
    expect(Math.max(...x)).toBeCloseTo(6, 2);
    expect(x[250]).toBeCloseTo(6 * Math.cos(circle[250] as number), 2);
  });
});

describe('what goes wrong on a mat', () => {
  const expected: Partial<
    Record<MatMistake, Partial<Record<LabTask, [level: 'refuse' | 'warn', key: string]>>>
  > = {
    'dead-cells': { stance: ['warn', 'cells'] },
    'stuck-cells': { stance: ['warn', 'cells'], walk: ['warn', 'cells'] },
    saturated: { walk: ['warn', 'saturated'] },
    drift: { stance: ['warn', 'drift'], walk: ['warn', 'drift'] },
    'half-off': { stance: ['refuse', 'edge'], walk: ['warn', 'missed'] },
    turned: { squat: ['warn', 'turned'] },
    overlap: { stance: ['refuse', 'shape'], squat: ['refuse', 'shape'] },
    'lost-frames': { stance: ['warn', 'missing'] },
    'helper-leans': { stance: ['refuse', 'weight'] },
  };
  it.each(
    MAT_MISTAKES.flatMap((m) =>
      Object.entries(expected[m] ?? {}).map(
        ([task, [level, key]]) => [m, task as LabTask, level, key] as const,
      ),
    ),
  )('%s in %s: %s by %s', (mistake, task, level, key) => {
    const { r, q } = capture(
      walkerOf(7),
      task,
      [mistake],
      'both',
      task === 'walk' ? 6 : mistake === 'drift' ? 4 : 1.5,
    );
    expect(keys(analyseMat(r, q), level)).toContain(key);
  });

  it('a person without a mistake is told without one', () => {
    for (const task of ['stance', 'squat'] as const) {
      const { r, q } = capture(walkerOf(7), task, [], 'both', task === 'stance' ? 1.5 : 8);
      expect(analyseMat(r, q).notes).toEqual([]);
    }
  });

  it('an empty mat, and two feet where one was asked for, are refused', () => {
    const w = walkerOf(7);
    expect(
      keys(
        analyseMat(
          still(() => 0),
          { task: 'stance', side: 'both', massKg: 70, factor: null },
        ),
        'refuse',
      ),
    ).toContain('empty');
    const { r } = capture(w, 'stance', [], 'both', 2);
    expect(
      keys(analyseMat(r, { task: 'balance', side: 'left', massKg: w.massKg, factor: null }), 'refuse'),
    ).toContain('two');
  });

  it('drift and broken cells taken away leave what was there', () => {
    const w = walkerOf(7);
    const clean = analyseMat(
      ...(Object.values(capture(w, 'stance', [], 'both', 2)) as [MatRecording, never]),
    );
    for (const mistake of ['drift', 'dead-cells', 'stuck-cells'] as const) {
      const { r, q } = capture(w, 'stance', [mistake], 'both', 2);
      const found = analyseMat(r, q).quantities.left;
      for (const name of ['heel', 'innerBall', 'weightShare'])
        expect(Math.abs((found[name]?.value ?? 0) - (clean.quantities.left[name]?.value ?? 0))).toBeLessThan(
          1.6,
        );
    }
  });
});

describe('faults are told on the side that has them, and not on the other', () => {
  const value = (report: MatReport, side: 'left' | 'right', name: string) =>
    report.quantities[side][name]?.value ?? Number.NaN;
  it.each([
    ['outward-shift', 'raise', 'firstHeadHold', 70, -1],
    ['tips', 'squat', 'outerKept', 40, -1],
    ['early-heel-off', 'walk', 'heelOff', 48, -1],
    ['low-arch', 'stance', 'archIndex', 0.31, 1],
    ['high-arch', 'stance', 'archIndex', 0.19, -1],
    ['spares-big-toe', 'walk', 'pushFirstRay', 22, -1],
  ] as const)('%s', (fault, task, name, limit, direction) => {
    const w = personWith(fault);
    const { r, q } = capture(w, task, [], 'both', task === 'stance' ? 1.5 : 8);
    const report = analyseMat(r, q);
    const ill = w.fault?.side ?? 'left';
    const well = ill === 'left' ? 'right' : 'left';
    expect(direction * (value(report, ill, name) - limit)).toBeGreaterThan(0);
    expect(direction * (value(report, well, name) - limit)).toBeLessThan(0);
  });
});
