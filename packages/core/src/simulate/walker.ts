import { type PerSide, type Side, SIDES } from '../quantity/side.js';
import { seededRandom } from './random.js';

/** Parts of the sole that press on a mat, each on its own. */
export type Pad =
  | 'heel'
  | 'midfoot'
  | 'm1'
  | 'm2'
  | 'm3'
  | 'm4'
  | 'm5'
  | 'bigToe'
  | 'toe2'
  | 'toe3'
  | 'toe4'
  | 'toe5';

export const PADS: readonly Pad[] = [
  'heel',
  'midfoot',
  'm1',
  'm2',
  'm3',
  'm4',
  'm5',
  'bigToe',
  'toe2',
  'toe3',
  'toe4',
  'toe5',
];

/** An ellipse on the sole, in mm: x outward from the axis of the foot, y forward from the back of the heel. */
interface PadShape {
  readonly x: number;
  readonly y: number;
  readonly rx: number;
  readonly ry: number;
}

/** What is wrong with how a made-up foot moves; at most one a person. */
export type FootFault =
  | 'outward-shift'
  | 'tips'
  | 'late-pronation'
  | 'fast-pronation'
  | 'far-pronation'
  | 'early-heel-off'
  | 'low-arch'
  | 'high-arch'
  | 'spares-big-toe';

export const FOOT_FAULTS: readonly FootFault[] = [
  'outward-shift',
  'tips',
  'late-pronation',
  'fast-pronation',
  'far-pronation',
  'early-heel-off',
  'low-arch',
  'high-arch',
  'spares-big-toe',
];

/** How the heel turns under the shin in walking, in degrees and shares of the time on the ground. */
export interface WaveTruth {
  /** Heel against shin in relaxed standing; inward (everted) is positive. */
  readonly rest: number;
  readonly contact: number;
  readonly amplitude: number;
  /** Share of stance at which it is furthest inward. */
  readonly peakAt: number;
  /** Share of stance over which it stays there. */
  readonly plateau: number;
  readonly toeOff: number;
  /** Inward lean of the shin in mid-stance, deg. */
  readonly shin: number;
}

export interface FootTruth {
  readonly side: Side;
  readonly lengthMm: number;
  readonly pads: Readonly<Record<Pad, PadShape>>;
  /** Share of the foot's load on each pad in quiet standing; adds to 1. */
  readonly standing: Readonly<Record<Pad, number>>;
  /** Degrees the foot is turned out. */
  readonly toeOut: number;
  /** Share of the rise at which the first head gives up its load; null when it keeps it. */
  readonly shiftAt: number | null;
  /** Share of the outer ball's load that is gone at the bottom of a squat. */
  readonly tip: number;
  /** Share of the time on the ground at which the heel leaves it. */
  readonly heelOff: number;
  readonly sparesToe: boolean;
  readonly wave: WaveTruth;
  /** Seconds on the ground in walking. */
  readonly contactSeconds: number;
  /** Sway on one leg: spread of the centre of pressure across and along, mm. */
  readonly sway: { readonly across: number; readonly along: number; readonly holdsSeconds: number };
}

/** A made-up person on the instruments, and what is wrong with them. */
export interface Walker {
  readonly seed: number;
  readonly massKg: number;
  readonly leftShare: number;
  readonly feet: PerSide<FootTruth>;
  readonly fault: { readonly side: Side; readonly kind: FootFault } | null;
}

type Draw = (low: number, high: number) => number;

const PLACES: Readonly<
  Record<Exclude<Pad, 'midfoot'>, readonly [x: number, y: number, rx: number, ry: number]>
> = {
  heel: [0, 0.135, 0.115, 0.135],
  m1: [-0.132, 0.715, 0.064, 0.058],
  m2: [-0.046, 0.74, 0.043, 0.05],
  m3: [0.028, 0.735, 0.042, 0.05],
  m4: [0.094, 0.71, 0.038, 0.046],
  m5: [0.15, 0.675, 0.04, 0.046],
  bigToe: [-0.125, 0.93, 0.05, 0.058],
  toe2: [-0.045, 0.93, 0.026, 0.032],
  toe3: [0.012, 0.905, 0.025, 0.03],
  toe4: [0.064, 0.875, 0.025, 0.028],
  toe5: [0.11, 0.84, 0.025, 0.028],
};

/** How flat the foot is, 0 high to 1 low; the band of the midfoot that touches grows with it. */
function padsOf(lengthMm: number, flat: number, draw: Draw): Record<Pad, PadShape> {
  const broad = draw(0.95, 1.06);
  const pads = Object.fromEntries(
    Object.entries(PLACES).map(([pad, [x, y, rx, ry]]) => [
      pad,
      {
        x: (x * broad + draw(-0.006, 0.006)) * lengthMm,
        y: (y + draw(-0.008, 0.008)) * lengthMm,
        rx: rx * broad * lengthMm,
        ry: ry * lengthMm,
      },
    ]),
  ) as Record<Pad, PadShape>;
  const outer = pads.m5.x + pads.m5.rx * 0.8;
  const width = (0.03 + 0.27 * flat) * lengthMm;
  return {
    ...pads,
    heel: { ...pads.heel, y: pads.heel.ry },
    midfoot: { x: outer - width / 2, y: 0.42 * lengthMm, rx: width / 2, ry: 0.2 * lengthMm },
  };
}

function standingOf(flat: number, draw: Draw): Record<Pad, number> {
  const raw: Record<Pad, number> = {
    heel: draw(0.48, 0.58),
    midfoot: 0.02 + 0.16 * flat,
    m1: draw(0.085, 0.115),
    m2: draw(0.06, 0.08),
    m3: draw(0.06, 0.08),
    m4: draw(0.05, 0.065),
    m5: draw(0.055, 0.075),
    bigToe: draw(0.03, 0.045),
    toe2: 0.009,
    toe3: 0.008,
    toe4: 0.008,
    toe5: 0.008,
  };
  const sum = PADS.reduce((all, p) => all + raw[p], 0);
  return Object.fromEntries(PADS.map((p) => [p, raw[p] / sum])) as Record<Pad, number>;
}

/** The wave of a foot; a fault moves one thing well past what is usual. */
function waveOf(fault: FootFault | null, draw: Draw): WaveTruth {
  const usual: WaveTruth = {
    rest: draw(1.5, 3.5),
    contact: draw(-3.5, -1),
    amplitude: draw(6.5, 9),
    peakAt: draw(0.33, 0.42),
    plateau: draw(0, 0.04),
    toeOff: draw(-6, -3),
    shin: draw(1, 3),
  };
  if (fault === 'late-pronation')
    return { ...usual, peakAt: draw(0.54, 0.6), plateau: draw(0.1, 0.16), toeOff: draw(1.5, 3) };
  if (fault === 'fast-pronation') return { ...usual, peakAt: draw(0.13, 0.17), amplitude: draw(9, 10.5) };
  if (fault === 'far-pronation') return { ...usual, amplitude: draw(14, 17) };
  return usual;
}

function footOf(side: Side, lengthMm: number, fault: FootFault | null, draw: Draw): FootTruth {
  const flat =
    fault === 'low-arch' ? draw(0.85, 1) : fault === 'high-arch' ? draw(0, 0.04) : draw(0.34, 0.46);
  return {
    side,
    lengthMm,
    pads: padsOf(lengthMm, flat, draw),
    standing: standingOf(flat, draw),
    toeOut: draw(2, 11),
    shiftAt: fault === 'outward-shift' ? draw(0.3, 0.55) : null,
    tip: fault === 'tips' ? draw(0.82, 0.95) : draw(0, 0.2),
    heelOff: fault === 'early-heel-off' ? draw(0.36, 0.43) : draw(0.6, 0.66),
    sparesToe: fault === 'spares-big-toe',
    wave: waveOf(fault, draw),
    contactSeconds: draw(0.62, 0.72),
    sway: { across: draw(4, 7), along: draw(5, 8.5), holdsSeconds: draw(12, 40) },
  };
}

/** A made-up person: the same seed is the same person, with at most one thing wrong on one side. */
export function walkerOf(seed: number): Walker {
  const random = seededRandom(seed * 6271 + 17);
  const draw: Draw = (low, high) => low + random() * (high - low);
  const side = SIDES[random() < 0.5 ? 0 : 1] as Side;
  const which = Math.floor(random() * (FOOT_FAULTS.length + 1));
  const kind = FOOT_FAULTS[which] ?? null;
  const lengthMm = draw(228, 278);
  const foot = (s: Side): FootTruth =>
    footOf(s, lengthMm + draw(-2, 2), kind !== null && s === side ? kind : null, draw);
  return {
    seed,
    massKg: Math.round(draw(52, 98)),
    leftShare: draw(0.46, 0.54),
    feet: { left: foot('left'), right: foot('right') },
    fault: kind === null ? null : { side, kind },
  };
}
