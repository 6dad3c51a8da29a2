import { phrase, say } from '../quantity/tongue.js';
import type { Side } from '../quantity/side.js';

/** A place in a picture, in pixels from its top left corner. */
export interface Point {
  readonly x: number;
  readonly y: number;
}

export type Landmarks = Readonly<Record<string, Point>>;

export interface PhotoConstruction {
  readonly key: string;
  readonly label: string;
  /** How the picture is taken. */
  readonly view: string;
  readonly landmarks: readonly { readonly key: string; readonly label: string }[];
  /** Lines drawn between landmarks. */
  readonly lines: readonly (readonly [from: string, to: string])[];
  /** Needs two ends of a ruler in the picture and the length between them. */
  readonly ruler: boolean;
  readonly unit: 'deg' | 'mm' | 'ratio' | 'level';
}

export type PhotoResult =
  | {
      readonly value: number;
      /** Root sum of squares of the effect of one pointing error in every coordinate. */
      readonly plusMinus: number;
      readonly pointingPx: number;
    }
  | { readonly value: null; readonly missing: readonly string[] };

/** A point is set within 2 pixels, or within 1 mm where the picture holds a ruler. */
const POINTING_PX = 2;
const POINTING_MM = 1;

const direction = (a: Point, b: Point): number => Math.atan2(b.y - a.y, b.x - a.x);
const apart = (a: Point, b: Point): number => Math.hypot(b.x - a.x, b.y - a.y);
const deg = (radians: number): number => (radians * 180) / Math.PI;

/** Turn from the first line to the second, -180 to 180, clockwise positive as the picture is seen. */
function turn(a1: Point, a2: Point, b1: Point, b2: Point): number {
  const t = deg(direction(b1, b2) - direction(a1, a2));
  return ((((t + 180) % 360) + 360) % 360) - 180;
}

/** Where the line through two points passes the height of a third. */
function crossingX(a: Point, b: Point, y: number): number {
  return b.y === a.y ? b.x : a.x + ((b.x - a.x) * (y - a.y)) / (b.y - a.y);
}

type Compute = (p: (key: string) => Point, side: Side, mmPerPx: number) => number;

const RULER = [
  { key: 'ruler-a', label: phrase('one end of the ruler') },
  { key: 'ruler-b', label: phrase('other end of the ruler') },
] as const;

interface Entry {
  readonly shape: PhotoConstruction;
  readonly compute: Compute;
}

const ENTRIES: readonly Entry[] = [
  {
    shape: {
      key: 'heel-to-shin',
      label: phrase('Heel to shin, from behind'),
      view: phrase('From behind at heel height, standing, weight on both feet'),
      landmarks: [
        { key: 'shin-upper', label: phrase('middle of the calf, upper third') },
        { key: 'shin-lower', label: phrase('middle of the leg above the ankle') },
        { key: 'heel-upper', label: phrase('middle of the heel, upper edge') },
        { key: 'heel-lower', label: phrase('middle of the heel, at the floor') },
      ],
      lines: [
        ['shin-upper', 'shin-lower'],
        ['heel-upper', 'heel-lower'],
      ],
      ruler: false,
      unit: 'deg',
    },
    // Seen from behind the left foot is on the left: a heel whose lower end goes outward is everted, valgus, positive.
    compute: (p, side) =>
      turn(p('shin-upper'), p('shin-lower'), p('heel-upper'), p('heel-lower')) * (side === 'left' ? 1 : -1),
  },
  {
    shape: {
      key: 'shin-line',
      label: phrase('Shin line, from in front'),
      view: phrase('From in front at knee height, knee cap facing ahead, standing'),
      landmarks: [
        { key: 'shin-upper', label: phrase('bump below the knee cap') },
        { key: 'shin-lower', label: phrase('front of the shin above the ankle') },
        { key: 'inner-border', label: phrase('inner border of the big toe') },
        { key: 'second-third', label: phrase('gap between second and third toe') },
      ],
      lines: [['shin-upper', 'shin-lower']],
      ruler: false,
      unit: 'level',
    },
    // -1 medial to the foot, 0 on the first or second toe, 1 on the third or beyond.
    compute: (p) => {
      const inner = p('inner-border');
      const gap = p('second-third');
      const outward = gap.x > inner.x ? 1 : -1;
      const at = (b: Point) => (crossingX(p('shin-upper'), p('shin-lower'), b.y) - b.x) * outward;
      return at(inner) < 0 ? -1 : at(gap) <= 0 ? 0 : 1;
    },
  },
  {
    shape: {
      key: 'hallux-angle',
      label: phrase('Hallux angle, from above'),
      view: phrase('From straight above, standing, weight on both feet'),
      landmarks: [
        { key: 'base', label: phrase('middle of the first metatarsal, at its base') },
        { key: 'head', label: phrase('middle of the first metatarsal head') },
        { key: 'toe', label: phrase('middle of the big toe, at its tip') },
      ],
      lines: [
        ['base', 'head'],
        ['head', 'toe'],
      ],
      ruler: false,
      unit: 'deg',
    },
    // Seen from above with the toes up: toward the small toes is positive.
    compute: (p, side) => turn(p('base'), p('head'), p('head'), p('toe')) * (side === 'left' ? -1 : 1),
  },
  {
    shape: {
      key: 'toe-out',
      label: phrase('Toe-out, from above'),
      view: phrase('From straight above, with the line of walking in the picture'),
      landmarks: [
        { key: 'line-back', label: phrase('line of walking, behind') },
        { key: 'line-front', label: phrase('line of walking, ahead') },
        { key: 'heel', label: phrase('middle of the heel') },
        { key: 'second-toe', label: phrase('second toe') },
      ],
      lines: [
        ['line-back', 'line-front'],
        ['heel', 'second-toe'],
      ],
      ruler: false,
      unit: 'deg',
    },
    compute: (p, side) =>
      turn(p('line-back'), p('line-front'), p('heel'), p('second-toe')) * (side === 'left' ? -1 : 1),
  },
  {
    shape: {
      key: 'arch-height',
      label: phrase('Arch height index, from the inner side'),
      view: phrase('From the inner side at floor height'),
      landmarks: [
        { key: 'heel', label: phrase('back of the heel, at the floor') },
        { key: 'head', label: phrase('first metatarsal head, at the floor') },
        { key: 'dorsum', label: phrase('top of the foot, half way along it') },
      ],
      lines: [['heel', 'head']],
      ruler: false,
      unit: 'ratio',
    },
    // Height of the top of the foot over the length from the heel to the first metatarsal head.
    compute: (p) => {
      const [a, b, d] = [p('heel'), p('head'), p('dorsum')];
      const length = apart(a, b);
      const area = Math.abs((b.x - a.x) * (a.y - d.y) - (a.x - d.x) * (b.y - a.y));
      return area / length / length;
    },
  },
  {
    shape: {
      key: 'navicular-height',
      label: phrase('Navicular height, from the inner side'),
      view: phrase('From the inner side at floor height, a ruler standing beside the foot'),
      landmarks: [
        ...RULER,
        { key: 'navicular', label: phrase('mark on the navicular') },
        { key: 'floor-a', label: phrase('floor, behind') },
        { key: 'floor-b', label: phrase('floor, ahead') },
      ],
      lines: [['floor-a', 'floor-b']],
      ruler: true,
      unit: 'mm',
    },
    compute: (p, _side, mm) => {
      const [a, b, n] = [p('floor-a'), p('floor-b'), p('navicular')];
      return (Math.abs((b.x - a.x) * (a.y - n.y) - (a.x - n.x) * (b.y - a.y)) / apart(a, b)) * mm;
    },
  },
  {
    shape: {
      key: 'width',
      label: phrase('Width, from above'),
      view: phrase('From straight above, a ruler beside the foot or the insole'),
      landmarks: [
        ...RULER,
        { key: 'inner', label: phrase('inner edge at the widest') },
        { key: 'outer', label: phrase('outer edge at the widest') },
      ],
      lines: [['inner', 'outer']],
      ruler: true,
      unit: 'mm',
    },
    compute: (p, _side, mm) => apart(p('inner'), p('outer')) * mm,
  },
];

export const PHOTO_CONSTRUCTIONS: readonly PhotoConstruction[] = ENTRIES.map((e) => e.shape);

/**
 * A construction's value from landmarks in pixels, with its uncertainty: the root sum of squares of what an error of
 * 2 px (1 mm where a ruler gives the scale) in each coordinate does to it. A level's uncertainty is 1 where that error
 * could change it, else 0.
 *
 * @param rulerMm length between the two ruler marks, where the construction has them
 */
export function photoValue(
  key: string,
  landmarks: Landmarks,
  side: Side,
  rulerMm: number | null,
): PhotoResult {
  const entry = ENTRIES.find((e) => e.shape.key === key);
  if (entry === undefined) return { value: null, missing: [say('a construction called {{key}}', { key })] };
  const missing = entry.shape.landmarks.filter((l) => landmarks[l.key] === undefined).map((l) => l.label);
  if (entry.shape.ruler && (rulerMm === null || rulerMm <= 0)) missing.push(say('length of the ruler'));
  if (missing.length > 0) return { value: null, missing };
  const scaleOf = (l: Landmarks): number =>
    entry.shape.ruler ? (rulerMm as number) / (apart(l['ruler-a'] as Point, l['ruler-b'] as Point) || 1) : 1;
  const run = (l: Landmarks): number => entry.compute((k) => l[k] as Point, side, scaleOf(l));
  const value = run(landmarks);
  const pointingPx = entry.shape.ruler ? POINTING_MM / scaleOf(landmarks) : POINTING_PX;
  const effects = entry.shape.landmarks.flatMap((l) => {
    const p = landmarks[l.key] as Point;
    return [
      { ...p, x: p.x + pointingPx },
      { ...p, y: p.y + pointingPx },
    ].map((moved) => run({ ...landmarks, [l.key]: moved }) - value);
  });
  const plusMinus =
    entry.shape.unit === 'level' ? (effects.some((e) => e !== 0) ? 1 : 0) : Math.hypot(...effects);
  return { value, plusMinus, pointingPx };
}

/** Spread of repeated placements of one construction: the rater's own error (standard deviation); null under two. */
export function raterError(values: readonly number[]): number | null {
  if (values.length < 2) return null;
  const centre = values.reduce((a, b) => a + b, 0) / values.length;
  return Math.sqrt(values.reduce((sum, v) => sum + (v - centre) ** 2, 0) / (values.length - 1));
}
