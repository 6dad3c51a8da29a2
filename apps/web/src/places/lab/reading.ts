import { type PerSide, type Side, SIDES } from '@heathstep/core';
import {
  analyseMat,
  analyseMotion,
  type Ensemble,
  type FootLoads,
  footView,
  isMat,
  type LabTask,
  type MatReport,
  mostBetween,
  partOver,
  type Quantities,
  type QualityNote,
  type Recording,
  type RecordingKind,
  type Region,
  REGIONS,
  type Rise,
  scaleTop,
  seen,
} from '@heathstep/core/lab';

/** What a capture is asked. */
export interface LabQuestion {
  readonly task: LabTask;
  readonly side: Side | 'both';
  readonly massKg: number | null;
  readonly factor: number | null;
}

/** A foot over the time of a capture, or of one step: pictures to play, and what it carries. */
export interface FootPlay {
  readonly side: Side;
  /** Seconds from its first picture to its last. */
  readonly seconds: number;
  readonly count: number;
  readonly columns: number;
  readonly rows: number;
  readonly stepMm: number;
  /** Pictures one after another: 0 no pressure, 255 the top of the scale. */
  readonly frames: Uint8Array;
  readonly most: Uint8Array;
  /** Middle of the pressure in each picture: column and row; NaN while nothing presses. */
  readonly path: Float32Array;
  /** Share of the foot's load on the inner ball, the outer ball and the heel, %; NaN while nothing presses. */
  readonly shares: Readonly<Record<SupportPoint, Float32Array>>;
  readonly newton: Float32Array;
  /** Of a rise: its begin, top and end, and where the first head gave up, as shares of the time. */
  readonly rises: readonly {
    readonly from: number;
    readonly top: number;
    readonly to: number;
    readonly left: number | null;
  }[];
}

export type SupportPoint = 'inner' | 'outer' | 'heel';

/** The waves of one leg. */
export interface WaveSeen {
  readonly mean: Float32Array;
  readonly spread: Float32Array;
  readonly steps: number;
  readonly rest: number | null;
  /** Share of the time on the ground at which the heel leaves, %. */
  readonly heelOff: number | null;
}

/** One part of the sole over a capture, or the mean of its steps. */
interface PartSeen {
  readonly region: Region;
  readonly peakKpa: number;
  /** Mean load over the touched area. */
  readonly meanKpa: number;
  readonly areaCm2: number;
  /** Share of the load over time, %. */
  readonly timeShare: number;
}

/** A capture, worked out for the page. */
export interface LabReading {
  readonly kind: RecordingKind;
  readonly task: LabTask;
  readonly side: Side | 'both';
  readonly device: string;
  readonly simulated: boolean;
  readonly seconds: number;
  readonly quantities: Quantities;
  readonly notes: readonly QualityNote[];
  readonly factor: number;
  /** Whether newton were set right by the weight. */
  readonly weighed: boolean;
  /** The top of the scale of pressure, kPa. */
  readonly topKpa: number;
  readonly plays: PerSide<readonly FootPlay[]>;
  /** By part of the sole; none of a foot that was not on the mat. */
  readonly parts: PerSide<readonly PartSeen[]>;
  readonly waves: PerSide<WaveSeen | null>;
  /** Heel under the shin over time, deg, where there are no steps. */
  readonly angles: PerSide<Float32Array | null>;
}

/** A capture can be kept when nothing about it refuses. */
export const isUsable = (r: Pick<LabReading, 'notes'>): boolean => r.notes.every((n) => n.level !== 'refuse');

/** Pictures a second that are played; more cannot be told apart. */
const PICTURES_HZ = 50;

function sharesOf(l: FootLoads, at: readonly number[]): FootPlay['shares'] {
  const of = (...r: Parameters<typeof partOver>[1][]): Float32Array => {
    const part = partOver(l, ...r);
    return Float32Array.from(at, (n) => {
      const whole = l.totals[n] ?? 0;
      return whole > 5 ? (100 * (part[n] ?? 0)) / whole : Number.NaN;
    });
  };
  return { inner: of('m1'), outer: of('m5'), heel: of('heel') };
}

/** One foot, or one step of it, ready to be played. */
function playOf(
  report: Pick<MatReport, 'clean' | 'factor'>,
  l: FootLoads,
  rises: readonly Rise[],
  topKpa: number,
): FootPlay {
  const { clean, factor } = report;
  const { header } = clean;
  const size = header.columns * header.rows;
  const view = footView(header, l.foot);
  const every = Math.max(1, Math.round(header.rateHz / PICTURES_HZ));
  const at = Array.from({ length: Math.ceil(l.count / every) }, (_, i) => i * every);
  const area = view.columns * view.rows;
  const frames = new Uint8Array(at.length * area);
  const path = new Float32Array(at.length * 2);
  const level = (kpa: number): number => Math.min(255, Math.round((255 * kpa) / topKpa));
  at.forEach((n, k) => {
    const kpa = seen(view, clean.cells, { from: (l.from + n) * size, factor });
    for (let i = 0; i < area; i += 1) frames[k * area + i] = level(kpa[i] ?? 0);
    const [c, r] = view.placeOf(l.x[n] ?? Number.NaN, l.y[n] ?? Number.NaN);
    path[k * 2] = c;
    path[k * 2 + 1] = r;
  });
  const most = seen(view, mostBetween(clean, l.from, l.from + l.count - 1), { factor });
  const share = (frame: number): number => frame / Math.max(1, l.count - 1);
  return {
    side: l.foot.side,
    seconds: (l.count - 1) / header.rateHz,
    count: at.length,
    columns: view.columns,
    rows: view.rows,
    stepMm: view.stepMm,
    frames,
    most: Uint8Array.from(most, level),
    path,
    shares: sharesOf(l, at),
    newton: Float32Array.from(at, (n) => l.totals[n] ?? 0),
    rises: rises.map((r) => ({
      from: share(r.from),
      top: share(r.top),
      to: share(r.to),
      left: r.left === null ? null : share(r.left),
    })),
  };
}

/** The parts of a sole over its steps, or over the one stretch it stood. */
function partsOf(steps: readonly FootLoads[]): readonly PartSeen[] {
  if (steps.length === 0) return [];
  const mean = (of: (l: FootLoads) => number): number => steps.reduce((s, l) => s + of(l), 0) / steps.length;
  const sum = (values: Float64Array): number => values.reduce((s, v) => s + v, 0);
  return REGIONS.map((region) => ({
    region,
    peakKpa: mean((l) => l.peak[region]),
    // A newton on a square centimetre is 10 kPa.
    meanKpa: mean((l) =>
      l.area[region] > 0 ? (10 * sum(partOver(l, region))) / l.count / l.area[region] : 0,
    ),
    areaCm2: mean((l) => l.area[region]),
    timeShare: mean((l) => (100 * sum(partOver(l, region))) / (sum(l.totals) || 1)),
  }));
}

const perSide = <T>(of: (side: Side) => T): PerSide<T> => ({ left: of('left'), right: of('right') });

const wave = (e: Ensemble | null, heelOff: number | undefined): WaveSeen | null =>
  e === null || e.steps.length === 0
    ? null
    : {
        mean: Float32Array.from(e.mean),
        spread: Float32Array.from(e.spread),
        steps: e.steps.length,
        rest: e.rest,
        heelOff: heelOff ?? null,
      };

/** Works a recording out for the page; `progress` from 0 to 1. */
export function readingOf(
  recording: Recording,
  question: LabQuestion,
  progress: (share: number) => void = () => undefined,
): LabReading {
  const { header, times } = recording;
  const common = {
    kind: header.kind,
    task: question.task,
    side: question.side,
    device: header.name,
    simulated: header.simulated,
    seconds: (times[times.length - 1] ?? 0) - (times[0] ?? 0),
  };
  if (!isMat(recording)) {
    const found = analyseMotion(recording, question);
    progress(1);
    return {
      ...common,
      quantities: found.quantities,
      notes: found.notes,
      factor: 1,
      weighed: false,
      topKpa: 0,
      plays: { left: [], right: [] },
      parts: { left: [], right: [] },
      waves: perSide((s) => wave(found.waves[s], found.quantities[s]['heelOff']?.value)),
      angles: perSide((s) => {
        const a = found.angles[s];
        return a === null || question.task === 'walk'
          ? null
          : Float32Array.from(a.filter((_, i) => i % 4 === 0));
      }),
    };
  }
  const found = analyseMat(recording, question, (share) => progress(share * 0.6));
  const peak = Math.max(0, ...SIDES.flatMap((s) => found.feet[s].flatMap((l) => Object.values(l.peak))));
  const topKpa = scaleTop(peak);
  const plays = perSide((s) => found.feet[s].map((l) => playOf(found, l, found.rises[s], topKpa)));
  progress(1);
  return {
    ...common,
    quantities: found.quantities,
    notes: found.notes,
    factor: found.factor,
    weighed: found.weighed,
    topKpa,
    plays,
    parts: perSide((s) => partsOf(found.feet[s])),
    waves: { left: null, right: null },
    angles: { left: null, right: null },
  };
}

/** What a reading holds that need not be copied from a worker to the page. */
export const transfersOf = (r: LabReading): ArrayBufferLike[] =>
  SIDES.flatMap((s) =>
    r.plays[s].flatMap((p) => [p.frames.buffer, p.most.buffer, p.path.buffer, p.newton.buffer]),
  );
