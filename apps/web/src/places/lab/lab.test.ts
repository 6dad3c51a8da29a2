import type { MeasureDefinition } from '@heathstep/core';
import { collector, isMat, type Recording } from '@heathstep/core/lab';
import { recordMat, recordMotion, simulateMat, simulateMotion, walkerOf } from '@heathstep/core/simulate';
import type { EpisodeView, VisitView } from '@heathstep/contracts';
import { labMeasures } from '@heathstep/contracts';
import { enteringOf, takingBack } from './intoVisit.js';
import { besideFor, notNow } from './notNow.js';
import { pixels, paletteOf } from './palette.js';
import { bandOf, lineOf, PLOT, ticksOf, xAt, yAt } from './plotting.js';
import { isUsable, readingOf } from './reading.js';

const measure = {
  key: 'share',
  label: 'Share',
  brief: '',
  region: 'foot',
  step: 'load',
  unit: '%',
  decimals: 1,
  allowed: { min: 0, max: 60 },
  direction: 'target',
  band: { min: 6, max: 16 },
  method: ['stand'],
  methods: ['by eye', 'pressure mat'],
  positions: ['standing on one leg', 'standing on both feet'],
  needs: ['weight-bearing'],
  lab: [
    {
      instrument: 'pressure-mat',
      task: 'stance',
      quantity: 'innerBall',
      method: 'pressure mat',
      both: 'standing on both feet',
    },
  ],
} as unknown as MeasureDefinition;

const walker = walkerOf(4);
const stance = readingOf(
  recordMat(simulateMat({ walker, task: 'stance', side: 'both', seed: 2, mistakes: [] }), 2),
  { task: 'stance', side: 'both', massKg: walker.massKg, factor: null },
);

describe('a capture worked out for the page', () => {
  it('has pictures of both feet to play, with the centre on the foot and shares of its load', () => {
    expect(isUsable(stance)).toBe(true);
    for (const side of ['left', 'right'] as const) {
      const [play] = stance.plays[side];
      if (play === undefined) throw new Error('no foot');
      expect(play.frames).toHaveLength(play.count * play.columns * play.rows);
      expect(play.count).toBeGreaterThan(80);
      expect(Math.max(...play.most)).toBeGreaterThan(100);
      for (let i = 0; i < play.count; i += 10) {
        expect(play.path[i * 2]).toBeGreaterThan(0);
        expect(play.path[i * 2]).toBeLessThan(play.columns);
        expect(play.path[i * 2 + 1]).toBeLessThan(play.rows);
        const whole = (play.shares.inner[i] ?? 0) + (play.shares.outer[i] ?? 0) + (play.shares.heel[i] ?? 0);
        expect(whole).toBeGreaterThan(40);
        expect(whole).toBeLessThan(100);
      }
    }
  });

  it('shows the left foot as it is looked down upon: the outer edge on the left, the heel below', () => {
    const [play] = stance.plays.left;
    if (play === undefined) throw new Error('no foot');
    const { columns, rows, most } = play;
    const sum = (of: (r: number, c: number) => boolean): number =>
      most.reduce((s, v, i) => (of(Math.floor(i / columns), i % columns) ? s + v : s), 0);
    // The midfoot touches on the outer side only.
    const mid = (r: number): boolean => r > rows * 0.45 && r < rows * 0.65;
    expect(sum((r, c) => mid(r) && c < columns / 2)).toBeGreaterThan(
      4 * sum((r, c) => mid(r) && c >= columns / 2),
    );
    expect(sum((r) => r > rows * 0.7)).toBeGreaterThan(sum((r) => r < rows * 0.2));
  });

  it('of a walk with the pair has waves, and of a squat angles', () => {
    const ask = (task: 'walk' | 'squat') =>
      readingOf(recordMotion(simulateMotion({ walker, task, side: 'both', seed: 2, mistakes: [] }), 14), {
        task,
        side: 'both',
        massKg: null,
        factor: null,
      });
    expect(ask('walk').waves.left?.mean).toHaveLength(101);
    expect(ask('walk').angles.left).toBeNull();
    expect(ask('squat').angles.right?.length).toBeGreaterThan(500);
  });

  it('that is empty is not usable and does not throw', () => {
    const empty = collector();
    empty.begin({
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
    });
    for (let i = 0; i < 50; i += 1) empty.mat(i / 100, new Uint16Array(2048));
    const recording = empty.recording() as Recording;
    expect(isMat(recording)).toBe(true);
    expect(isUsable(readingOf(recording, { task: 'stance', side: 'both', massKg: 70, factor: null }))).toBe(
      false,
    );
  });
});

describe('numbers on their way into a visit', () => {
  const visit = (entries: VisitView['entries']) => ({ entries });
  const measures = labMeasures([measure], 'pressure-mat', 'stance');
  const quantities = {
    left: { innerBall: { value: 9.04, spread: null, n: 1 } },
    right: { innerBall: { value: 80, spread: null, n: 1 } },
  };
  const capture = { id: '8d3f8a52-8f2b-4c5e-9a55-0a3c3a2d9f10', side: 'both', simulated: true } as const;

  it('say their method, position and capture, and that they are simulated; what is impossible stays out', () => {
    const entering = enteringOf(measures, quantities, capture, visit([]));
    expect(entering).toEqual([
      {
        key: 'measure.share.left',
        baseVersion: 0,
        before: null,
        value: {
          trials: [9],
          status: 'taken',
          pain: null,
          method: 'pressure mat',
          position: 'standing on both feet',
          simulated: true,
          capture: capture.id,
        },
      },
    ]);
  });

  it('stand in place of what was there, and are taken back to it', () => {
    const standing = { trials: [12], status: 'taken', pain: null };
    const entering = enteringOf(
      measures,
      quantities,
      { ...capture, simulated: false },
      visit([{ key: 'measure.share.left', version: 3, value: standing, at: '', author: '' }]),
    );
    expect(entering[0]).toMatchObject({ baseVersion: 3, before: standing });
    expect(entering[0]?.value).not.toHaveProperty('simulated');
    expect(takingBack(entering)[0]).toMatchObject({ baseVersion: 4, value: standing });
  });

  it('are not captured on a side on which safety switches off what it takes', () => {
    const content = { measures: [measure] };
    const off = {
      tagsOff: { left: [], right: ['weight-bearing'] },
      heldBack: [],
      safety: { blockedBecause: [] },
    } as unknown as EpisodeView;
    expect(notNow('stance', 'both', content, off)).toContain('safety switches off');
    expect(notNow('stance', 'left', content, off)).toBeNull();
    expect(notNow('walk', 'both', content, off)).toBeNull();
  });

  it('are not captured of anyone with an open sign, or whose safety was not asked; and say who stands beside', () => {
    const content = { measures: [measure] };
    const tagsOff = { left: [], right: [] };
    const open = (more: object) => ({ tagsOff, heldBack: [], ...more }) as unknown as EpisodeView;
    const unanswered = { safety: { blockedBecause: ['41 safety answers missing'] } };
    for (const task of ['stance', 'walk'] as const) {
      expect(notNow(task, 'left', content, open(unanswered))).toBe('Not now: 41 safety answers missing');
      expect(notNow(task, 'left', content, open({ safety: null }))).toContain('have not been asked');
      const stop = { safety: { blockedBecause: [] }, heldBack: ['a stop was reported'] };
      expect(notNow(task, 'right', content, open(stop))).toBe('Not now: a stop was reported');
    }
    const supervised = { left: ['weight-bearing'], right: [] } as const;
    expect(besideFor('stance', 'both', content, supervised)).toContain('Only with someone beside');
    expect(besideFor('stance', 'right', content, supervised)).toBeNull();
  });
});

describe('drawing', () => {
  it('goes from the ground to the top of the scale', () => {
    const image = { data: new Uint8ClampedArray(12), width: 3, height: 1 } as unknown as ImageData;
    const { data } = pixels(image, Uint8Array.from([0, 12, 255]), 0, paletteOf('light'));
    expect([data[3], data[7], data[11]]).toEqual([0, 128, 255]);
    expect(data[8]).toBeLessThan(60);
  });

  it('a line is broken where there is no value, and its ends lie in the plot', () => {
    const axis = { low: 0, high: 100 };
    const path = lineOf([0, 50, Number.NaN, 100, 100], axis);
    expect(path.match(/M/g)).toHaveLength(2);
    expect(path.startsWith(`M${PLOT.left.toFixed(1)} ${yAt(axis, 0).toFixed(1)}`)).toBe(true);
    expect(path.endsWith(`${xAt(1).toFixed(1)} ${PLOT.top.toFixed(1)}`)).toBe(true);
    expect(bandOf([0, 0], [1, 1], axis).match(/L/g)).toHaveLength(3);
  });

  it.each([
    [{ low: 0, high: 100 }, [0, 20, 40, 60, 80, 100]],
    [{ low: -6, high: 18 }, [-5, 0, 5, 10, 15]],
    [{ low: 0, high: 3 }, [0, 1, 2, 3]],
  ])('marks %p by round numbers', (axis, ticks) => {
    expect(ticksOf(axis)).toEqual(ticks);
  });
});
