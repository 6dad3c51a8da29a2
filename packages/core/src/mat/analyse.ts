import type { LabTask } from '../lab/task.js';
import { NO_QUANTITIES, type Quantities, type QualityNote } from '../lab/report.js';
import { meanOf } from '../lab/filter.js';
import { shown } from '../quantity/statistics.js';
import { type PerSide, type Side, SIDES } from '../quantity/side.js';
import { say } from '../quantity/tongue.js';
import { newtonPerUnit } from '../recording/collect.js';
import { evened } from '../recording/even.js';
import type { MatRecording } from '../recording/recording.js';
import { apart } from './apart.js';
import { type CleanMat, cleanMat } from './clean.js';
import { type FootOnMat, footOnMat } from './foot.js';
import { type Image, meanBetween, mostBetween, onEdge, touchedCells } from './image.js';
import { type FootLoads, loadsOf } from './loads.js';
import { cellNotes, gapNotes } from './quality.js';
import { balanceOf, raiseOf, type Rise, risesOf, squatOf, stanceOf } from './standing.js';
import { type MatStep, stepOf, walkOf } from './walking.js';

export interface MatQuestion {
  readonly task: LabTask;
  /** The leg that stands or rises, or both. */
  readonly side: Side | 'both';
  readonly massKg: number | null;
  /** What makes newton of the mat's own numbers, from an earlier capture of this day; null where there was none. */
  readonly factor: number | null;
}

/** What a mat tells of a task. */
export interface MatReport {
  readonly clean: CleanMat;
  readonly notes: readonly QualityNote[];
  readonly quantities: Quantities;
  /** What each foot carried: one stretch in standing, a step each in walking. */
  readonly feet: PerSide<readonly FootLoads[]>;
  readonly rises: PerSide<readonly Rise[]>;
  readonly factor: number;
  /** True where the newton were set right by the body's weight. */
  readonly weighed: boolean;
}

const G = 9.81;
const note = (level: QualityNote['level'], key: string, text: string): QualityNote => ({ level, key, text });

const EMPTY = {
  quantities: NO_QUANTITIES,
  feet: { left: [], right: [] },
  rises: { left: [], right: [] },
} as const;

/** A mat is believed when what it tells of the whole body is within this of its weight. */
const BELIEVED = { least: 0.78, most: 1.28 } as const;

interface Weighed {
  readonly factor: number;
  readonly weighed: boolean;
  readonly notes: readonly QualityNote[];
}

/** What makes newton of the mat's numbers: the body's weight over the load in a stretch of quiet standing on it alone. */
function weigh(load: number, q: MatQuestion): Weighed {
  if (q.massKg === null) {
    const why = say(
      'Not set right by the weight: it is not known. Shares are right, newton and kPa as the mat tells them',
    );
    return {
      factor: q.factor ?? 1,
      weighed: q.factor !== null,
      notes: q.factor === null ? [note('warn', 'no-weight', why)] : [],
    };
  }
  const share = load / (q.massKg * G);
  if (share >= BELIEVED.least && share <= BELIEVED.most)
    return { factor: 1 / share, weighed: true, notes: [] };
  const text = say(
    'The mat carries {{share}} % of the body weight: something else bears the rest, a foot is beside it, or the weight is wrong',
    {
      share: Math.round(share * 100),
    },
  );
  return { factor: 1, weighed: false, notes: [note('refuse', 'weight', text)] };
}

const EDGE_CELLS = 3;

/** A standing task is read from its first quiet second on. */
function standing(m: CleanMat, q: MatQuestion): Omit<MatReport, 'clean'> {
  const { header } = m;
  const rate = header.rateHz;
  const last = m.times.length - 1;
  const begin = firstStanding(m);
  const settled = Math.min(last, begin + Math.round(rate * 0.6));
  const one = q.task === 'balance' || (q.task === 'raise' && q.side !== 'both');
  const end = one ? onOneLeg(m, begin, settled) : last;
  const look: Image = q.task === 'stance' ? meanBetween(m, begin, end) : mostBetween(m, begin, end);
  const cells = touchedCells(look);
  const refuse = (key: string, text: string): Omit<MatReport, 'clean'> => ({
    ...EMPTY,
    notes: [note('refuse', key, text)],
    factor: 1,
    weighed: false,
  });
  if (cells.length === 0 || end <= begin) return refuse('empty', say('Nobody is on the mat'));
  const edge = onEdge(header, cells) >= EDGE_CELLS;
  if (edge) return refuse('edge', say('A foot stands partly off the mat: move toward its middle'));
  const found = apart(header, cells);
  if (found.kind === 'none') return refuse('empty', say('Nobody is on the mat'));
  if (found.kind === 'overlap')
    return refuse('overlap', say('The feet touch or overlap: stand a hand apart'));
  if (one && found.kind === 'two')
    return refuse('two', say('Both feet are on the mat: one leg was asked for'));
  if (!one && found.kind === 'one') return refuse('one', say('Only one foot is on the mat'));
  const layout = layOut(m, look, found, q);
  if (layout === null)
    return refuse(
      'shape',
      say('What stands on the mat has not the shape of feet: do they touch, or stand half off?'),
    );
  const weighed = weigh(meanOf(m.totals, begin, settled), q);
  const frames = { from: begin, to: end };
  const loads = SIDES.flatMap((s) => {
    const foot = layout.feet[s];
    return foot === null ? [] : [loadsOf(m, foot, frames, weighed.factor)];
  });
  const both = loads.reduce((s, l) => s + meanOf(l.totals), 0);
  const feet = bySide(loads);
  const rises =
    q.task === 'raise'
      ? {
          left: feet.left.flatMap((l) => risesOf(l, rate)),
          right: feet.right.flatMap((l) => risesOf(l, rate)),
        }
      : EMPTY.rises;
  const quantities: Record<Side, Quantities['left']> = { left: {}, right: {} };
  for (const l of loads)
    quantities[l.foot.side] =
      q.task === 'stance'
        ? stanceOf(l, both)
        : q.task === 'balance'
          ? balanceOf(l, rate)
          : q.task === 'squat'
            ? squatOf(l, rate)
            : raiseOf(l, rises[l.foot.side], rate);
  const none = q.task === 'raise' && loads.every((l) => rises[l.foot.side].length === 0);
  return {
    notes: [
      ...layout.notes,
      ...weighed.notes,
      ...(none
        ? [
            note(
              'refuse',
              'no-rise',
              say('No rise is seen: the heel did not leave the mat for half a second'),
            ),
          ]
        : []),
    ],
    quantities,
    feet,
    rises,
    factor: weighed.factor,
    weighed: weighed.weighed,
  };
}

const bySide = (loads: readonly FootLoads[]): PerSide<readonly FootLoads[]> => ({
  left: loads.filter((l) => l.foot.side === 'left'),
  right: loads.filter((l) => l.foot.side === 'right'),
});

/** The first frame from which somebody stands: a tenth of a second at four fifths of the usual load. */
function firstStanding(m: CleanMat): number {
  const sorted = Float64Array.from(m.totals).sort();
  const usual = sorted[Math.floor(sorted.length / 2)] ?? 0;
  const long = Math.max(2, Math.round(m.header.rateHz / 10));
  let run = 0;
  for (let i = 0; i < m.totals.length; i += 1) {
    run = (m.totals[i] as number) >= usual * 0.8 && usual > 0 ? run + 1 : 0;
    if (run >= long) return i - run + 1;
  }
  return 0;
}

/** Share of the load beside the standing foot from which another foot is down. */
const OTHER_FOOT = 0.01;
/** Seconds before that, so that its first touch is not in. */
const BEFORE_IT = 0.15;

/** The last frame before the other foot comes down: before anything presses outside the print of the first second. */
function onOneLeg(m: CleanMat, begin: number, settled: number): number {
  const { columns, rows } = m.header;
  const size = columns * rows;
  const own = touchedCells(mostBetween(m, begin, settled));
  const c = own.map((i) => i % columns);
  const r = own.map((i) => Math.floor(i / columns));
  const room = 1;
  const per = newtonPerUnit(m.header);
  const box = [
    Math.min(...c) - room,
    Math.max(...c) + room,
    Math.min(...r) - room,
    Math.max(...r) + room,
  ] as const;
  const beside = m.active.filter((i) => {
    const [x, y] = [i % columns, Math.floor(i / columns)];
    return x < box[0] || x > box[1] || y < box[2] || y > box[3];
  });
  for (let n = settled; n < m.times.length; n += 1) {
    let outside = 0;
    for (const i of beside) outside += m.cells[n * size + i] as number;
    if (outside * per > OTHER_FOOT * (m.totals[n] as number))
      return Math.max(begin, n - Math.ceil(BEFORE_IT * m.header.rateHz));
  }
  return m.times.length - 1;
}

interface Layout {
  readonly feet: PerSide<FootOnMat | null>;
  readonly notes: readonly QualityNote[];
}

type Found = Exclude<ReturnType<typeof apart>, { kind: 'none' | 'overlap' }>;

function layOut(m: CleanMat, look: Image, found: Found, q: MatQuestion): Layout | null {
  const h = m.header;
  if (found.kind === 'one') {
    const side = q.side === 'both' ? null : q.side;
    const foot = footOnMat(h, look, found.cells, { side, ahead: null });
    if (foot === null) return null;
    const wrong =
      foot.sideByShape === false
        ? [note('warn', 'side', say('The print looks like the other foot: is it the side that was chosen?'))]
        : [];
    return {
      feet: { left: foot.side === 'left' ? foot : null, right: foot.side === 'right' ? foot : null },
      notes: [...wrong, ...turnNotes(foot)],
    };
  }
  const rough = [found.first, found.second].map((cells) =>
    footOnMat(h, look, cells, { side: null, ahead: null }),
  );
  const [a, b] = rough;
  if (a == null || b == null) return null;
  // Both look the same way; who of the two lies to the left of that way is the left foot.
  const way: readonly [number, number] = [a.forward[0] + b.forward[0], a.forward[1] + b.forward[1]];
  if (unlikeTwoFeet(a, b, found.gap)) return null;
  const right = (b.heel[0] - a.heel[0]) * way[1] - (b.heel[1] - a.heel[1]) * way[0];
  const [leftCells, rightCells] = right > 0 ? [found.first, found.second] : [found.second, found.first];
  const left = footOnMat(h, look, leftCells, { side: 'left', ahead: way });
  const rightFoot = footOnMat(h, look, rightCells, { side: 'right', ahead: way });
  if (left === null || rightFoot === null) return null;
  const crossed =
    left.sideByShape === false && rightFoot.sideByShape === false
      ? [
          note(
            'warn',
            'crossed',
            say('Left and right look exchanged: are the feet crossed, or the mat upside down?'),
          ),
        ]
      : [];
  return { feet: { left, right: rightFoot }, notes: [...crossed, ...turnNotes(left)] };
}

/** Feet that touch can fall apart into heels and balls: those are less alike, less parallel, and close. Two of the three are too much. */
const ALIKE = { length: 0.92, cosine: Math.cos((27 * Math.PI) / 180), gap: 2 } as const;

function unlikeTwoFeet(a: FootOnMat, b: FootOnMat, gap: number): boolean {
  const cosine = a.forward[0] * b.forward[0] + a.forward[1] * b.forward[1];
  const ratio = Math.min(a.lengthMm, b.lengthMm) / Math.max(a.lengthMm, b.lengthMm);
  const odd = [ratio < ALIKE.length, cosine < ALIKE.cosine, gap <= ALIKE.gap].filter(Boolean).length;
  return odd >= 2 || cosine < 0;
}

/** The mat may lie any way; if it is not as usual, that is told, and read. */
function turnNotes(foot: FootOnMat): QualityNote[] {
  const turned = Math.round((Math.atan2(foot.forward[1], foot.forward[0]) * 180) / Math.PI - 90);
  const quarter = ((Math.round(turned / 90) % 4) + 4) % 4;
  if (quarter === 0) return [];
  return [
    note(
      'warn',
      'turned',
      say('The mat lies turned by {{degrees}} degrees: read that way', { degrees: quarter * 90 }),
    ),
  ];
}

const STEP = { least: 20, seconds: 0.2, joins: 0.06, wanted: 3 } as const;

interface Crossing {
  readonly from: number;
  readonly to: number;
}

/** Stretches in which somebody presses on the mat, with short gaps closed. */
function crossings(m: CleanMat): readonly Crossing[] {
  const rate = m.header.rateHz;
  const out: { from: number; to: number }[] = [];
  for (let i = 0; i < m.totals.length; i += 1) {
    if ((m.totals[i] as number) < STEP.least) continue;
    const last = out.at(-1);
    if (last !== undefined && (i - last.to) / rate <= STEP.joins) last.to = i;
    else out.push({ from: i, to: i });
  }
  return out.filter((c) => (c.to - c.from + 1) / rate >= STEP.seconds);
}

type StepOrNote = { readonly step: MatStep } | { readonly note: QualityNote };

function oneCrossing(m: CleanMat, c: Crossing, factor: number): StepOrNote {
  const h = m.header;
  const look = mostBetween(m, c.from, c.to);
  const cells = touchedCells(look);
  const at = shown(m.times[c.from] as number, 1);
  const drop = (key: string, text: string): StepOrNote => ({ note: note('warn', key, text) });
  // Whoever is on the mat as it begins or ends has not made a whole step.
  if (c.from === 0 || c.to === m.times.length - 1)
    return drop('half-step', say('The step at {{at}} s is not whole: left out', { at }));
  if (onEdge(h, cells) >= EDGE_CELLS)
    return drop('missed', say('The step at {{at}} s missed the mat with part of the foot: left out', { at }));
  const found = apart(h, cells);
  if (found.kind !== 'one')
    return drop('two-feet', say('At {{at}} s there is more than one foot, or none whole: left out', { at }));
  const ahead = wayOf(m, c);
  const foot = footOnMat(h, look, found.cells, { side: null, ahead });
  if (foot === null)
    return drop('shape', say('What pressed at {{at}} s has not the shape of a foot: left out', { at }));
  return { step: stepOf(loadsOf(m, foot, c, factor), h.rateHz) };
}

/** The way the middle of the pressure goes, from the first fifth of a step to the last. */
function wayOf(m: CleanMat, c: Crossing): readonly [number, number] | null {
  const { columns, rows, cellMm } = m.header;
  const size = columns * rows;
  const centre = (n: number): readonly [number, number] => {
    let [s, x, y] = [0, 0, 0];
    for (const i of m.active) {
      const v = m.cells[n * size + i] as number;
      s += v;
      x += v * (i % columns);
      y += v * Math.floor(i / columns);
    }
    return [(x / (s || 1)) * cellMm, (y / (s || 1)) * cellMm];
  };
  const fifth = Math.round((c.to - c.from) / 5);
  const [a, b] = [centre(c.from + Math.round(fifth / 2)), centre(c.to - Math.round(fifth / 2))];
  const way = [b[0] - a[0], b[1] - a[1]] as const;
  return Math.hypot(...way) < 40 ? null : way;
}

function walking(m: CleanMat, q: MatQuestion): Omit<MatReport, 'clean'> {
  const factor = q.factor ?? 1;
  const seen = crossings(m).map((c) => oneCrossing(m, c, factor));
  const steps = seen.flatMap((s) => ('step' in s ? [s.step] : []));
  const dropped = seen.flatMap((s) => ('note' in s ? [s.note] : []));
  const of = (side: Side) => steps.filter((s) => s.loads.foot.side === side);
  const few = SIDES.filter((s) => of(s).length < STEP.wanted && (q.side === 'both' || q.side === s));
  return {
    notes: [
      ...(steps.length === 0 ? [note('refuse', 'no-step', say('No whole step is on the mat'))] : []),
      ...dropped,
      ...(steps.length === 0
        ? []
        : few.map((s) =>
            note(
              'warn',
              'few-steps',
              say('{{side}}: {{n}} whole steps, {{wanted}} are wanted', {
                side: say(s),
                n: of(s).length,
                wanted: STEP.wanted,
              }),
            ),
          )),
      ...(q.factor === null
        ? [
            note(
              'warn',
              'not-weighed',
              say(
                'Newton and kPa as the mat tells them: capture a stance first, and they are set right by the weight',
              ),
            ),
          ]
        : []),
    ],
    quantities: { left: walkOf(of('left')), right: walkOf(of('right')) },
    feet: { left: of('left').map((s) => s.loads), right: of('right').map((s) => s.loads) },
    rises: EMPTY.rises,
    factor,
    weighed: q.factor !== null,
  };
}

/** Works out a capture of a mat. Never throws: what cannot be used is told in its notes. */
export function analyseMat(r: MatRecording, q: MatQuestion, progress?: (share: number) => void): MatReport {
  const clean = cleanMat(evened(r));
  progress?.(0.4);
  const notes = [...gapNotes(r), ...cellNotes(clean)];
  const found = q.task === 'walk' ? walking(clean, q) : standing(clean, q);
  progress?.(1);
  return { clean, ...found, notes: [...found.notes, ...notes] };
}
