import { bentArrow, at, box, limb, polyline, softOutline } from './outline.js';
import type { FigureDefinition, Point, Prop, SideFigure, TopFigure, TopPose } from './pose.js';
import { add, BODY, leaning, type LegJoints, minus, type Skeleton, soleAxes, solvePose } from './skeleton.js';
import { betweenSide, betweenTop } from './tween.js';

/** What a shape is; the screen and the paper give it its colour. */
export type Tone =
  | 'skin'
  | 'skin-far'
  | 'ghost'
  | 'cloth'
  | 'cloth-far'
  | 'shirt'
  | 'prop'
  | 'prop-dark'
  | 'floor'
  | 'strap'
  | 'tendon'
  | 'press'
  | 'arrow';

export interface Shape {
  readonly tone: Tone;
  readonly d: string;
  /** Thickness in cm of a line; left out for a filled shape. */
  readonly line?: number;
}

export interface Drawing {
  /** `viewBox` of an SVG, in cm. */
  readonly box: string;
  readonly shapes: readonly Shape[];
}

const fill = (tone: Tone, d: string): Shape => ({ tone, d });
const stroke = (tone: Tone, d: string, line: number): Shape => ({ tone, d, line });

/** A point in the frame of a foot: along its sole from the back of the heel, and up. */
function footPoint(leg: LegJoints, x: number, y: number): Point {
  const { along, up } = soleAxes(leg.pitch);
  return add(add(leg.ball, along, x - BODY.ball), up, y);
}

const FOOT: readonly (readonly [x: number, y: number, arch: number])[] = [
  [0.2, 3.2, 0],
  [1.6, 0.5, 0],
  [4.2, 0, 0],
  [8, 1, 1.4],
  [12, 1.6, 2.8],
  [16, 0.6, 1],
  [18.6, 0, 0],
  [20.4, 0.6, 0],
  [20.8, 2.6, 0],
  [18.6, 4, 0.4],
  [14.4, 6.1, 1.9],
  [11.2, 8.6, 1],
  [10.3, 11.5, 0],
  [3.4, 11.5, 0],
  [1.6, 8.4, 0],
  [0.6, 6, 0],
];

const footOutline = (leg: LegJoints): string =>
  softOutline(FOOT.map(([x, y, arch]) => footPoint(leg, x, y + arch * leg.arch)));

/** The toes as one; gripping, their first joint rises and the tips press down. */
function toesOf(leg: LegJoints): string {
  if (leg.curl === 0) return limb(leg.toeJoint, add(leg.toeTip, leaning(90 - leg.toes), -1.2), 1.7, 1.2);
  const knuckle = add(leg.toeJoint, leaning(90 - leg.toes - leg.curl * 0.7), BODY.toes * 0.46);
  const tip = add(knuckle, leaning(90 - leg.toes + leg.curl * 0.9), BODY.toes * 0.42);
  return `${limb(leg.toeJoint, knuckle, 1.7, 1.5)}${limb(knuckle, tip, 1.5, 1.2)}`;
}

/** Along the shin from the ankle, 0 to 1, and how far to its front and back. */
const SHIN: readonly (readonly [t: number, off: number])[] = [
  [0, 3.2],
  [0.25, 3.4],
  [0.5, 4],
  [0.75, 4.6],
  [1, 5.2],
  [1.02, -4.6],
  [0.85, -5.6],
  [0.68, -6.2],
  [0.5, -5],
  [0.28, -3.4],
  [0.08, -2.9],
  [-0.04, -3.4],
];

function shinOutline(leg: LegJoints): string {
  const line = minus(leg.knee, leg.ankle);
  const front: Point = [line[1] / BODY.shin, -line[0] / BODY.shin];
  return softOutline(SHIN.map(([t, off]) => add(add(leg.ankle, line, t), front, off)));
}

function tendon(leg: LegJoints): string {
  const line = minus(leg.knee, leg.ankle);
  const back: Point = [-line[1] / BODY.shin, line[0] / BODY.shin];
  return polyline([
    footPoint(leg, 1.4, 4),
    add(add(leg.ankle, line, 0.12), back, 2.6),
    add(add(leg.ankle, line, 0.42), back, 3.6),
  ]);
}

const legShapes = (leg: LegJoints, skin: Tone, cloth: Tone): Shape[] => [
  fill(skin, shinOutline(leg)),
  fill(skin, footOutline(leg)),
  fill(skin, toesOf(leg)),
  fill(cloth, limb(leg.hip, add(leg.knee, minus(leg.ankle, leg.knee), 0.04), 8, 6.4)),
];

const ghostShapes = (leg: LegJoints): Shape[] =>
  [shinOutline(leg), footOutline(leg), toesOf(leg), limb(leg.hip, leg.knee, 7.6, 6.2)].map((d) =>
    fill('ghost', d),
  );

function bodyShapes(s: Skeleton): Shape[] {
  const shoulder = add(s.hip, leaning(s.trunk), BODY.trunk - 5);
  return [
    fill('skin', limb(s.neck, s.head, 4, 4)),
    fill('skin', limb(add(s.head, leaning(s.gaze), -1), add(s.head, leaning(s.gaze), 2), 8.2, 8.6)),
    fill('shirt', limb(add(s.hip, leaning(s.trunk), 4), add(s.neck, leaning(s.trunk), -6), 9.4, 9)),
    fill('cloth', limb(s.hip, add(s.hip, leaning(s.trunk), 5), 9, 9.2)),
    fill('shirt', limb(shoulder, s.elbow, 4.4, 3.8)),
    fill('skin', limb(s.elbow, s.hand, 3.2, 2.6)),
  ];
}

function pressPoint(s: Skeleton, what: string): Point {
  const leg = s.near;
  switch (what) {
    case 'heel':
      return leg.heel;
    case 'arch':
      return footPoint(leg, 11.5, 2.4 + leg.arch * 1.6);
    case 'toes':
      return add(leg.toeTip, [0, -1.1]);
    case 'calf':
      return add(add(leg.ankle, minus(leg.knee, leg.ankle), 0.6), [-4.2, 0]);
    case 'sole':
      return footPoint(leg, 11.5, 0.6);
    default:
      return leg.ball;
  }
}

/** What a prop may hang on. */
interface Ends {
  readonly ball: Point;
  readonly hand: Point;
  readonly knee?: Point;
}

const endsOf = (s: Skeleton): Ends => ({ ball: s.near.ball, hand: s.hand, knee: s.near.knee });

const strapEnd = (end: Point | 'ball' | 'hand', ends: Ends): Point =>
  typeof end === 'string' ? ends[end] : end;

/** A hand weight, its foot at a point. */
function weightShapes(foot: Point): Shape[] {
  const handle = `M${at(add(foot, [-3, 7]))}Q${at(add(foot, [0, 13]))} ${at(add(foot, [3, 7]))}`;
  return [
    fill('prop-dark', box(foot[0] - 5, foot[1], foot[0] + 5, foot[1] + 7)),
    stroke('prop-dark', handle, 1.2),
  ];
}

/** A hand from the back, from its wrist. */
function handShapes(wrist: Point, lean: number): Shape[] {
  const along = leaning(lean);
  const across = leaning(lean + 90);
  const knuckles = add(wrist, along, 5);
  const finger = (i: number): Shape => {
    const base = add(knuckles, across, (i - 1.5) * 1.35);
    return fill('skin-far', limb(base, add(base, along, i === 0 || i === 3 ? 3.2 : 4), 0.75, 0.65));
  };
  return [
    fill('skin-far', limb(add(wrist, along, -8), wrist, 1.9, 1.9)),
    fill('skin-far', limb(add(wrist, along, 1.5), knuckles, 2.6, 2.8)),
    fill('skin-far', limb(add(wrist, along, 2.5), add(add(wrist, along, 5), across, 4), 0.9, 0.8)),
    ...[0, 1, 2, 3].map(finger),
  ];
}

function propShapes(prop: Prop, ends: Ends): Shape[] {
  switch (prop.kind) {
    case 'floor':
      return [
        stroke(
          'floor',
          polyline([
            [prop.from, 0],
            [prop.to, 0],
          ]),
          0.5,
        ),
      ];
    case 'wall':
      return [fill('prop', box(prop.x, 0, prop.x + 3, 190))];
    case 'step':
      return [
        fill('prop', box(prop.from, 0, prop.to, prop.height)),
        fill('prop-dark', box(prop.from, prop.height - 1.4, prop.to, prop.height)),
      ];
    case 'chair':
      return [
        fill('prop-dark', box(prop.x - 22, prop.height - 3, prop.x + 20, prop.height)),
        fill('prop', box(prop.x - 20, 0, prop.x - 17, prop.height - 3)),
        fill('prop', box(prop.x + 14, 0, prop.x + 17, prop.height - 3)),
        fill('prop', box(prop.x - 24, prop.height - 3, prop.x - 21, prop.height + 42)),
      ];
    case 'worktop':
      return [
        fill('prop-dark', box(prop.x, prop.height - 3, prop.x + 30, prop.height)),
        fill('prop', box(prop.x + 5, 0, prop.x + 30, prop.height - 3)),
      ];
    case 'roll':
    case 'ball':
      return [
        fill(
          prop.kind === 'roll' ? 'strap' : 'prop-dark',
          limb(add(prop.at, [-0.05, 0]), add(prop.at, [0.05, 0]), prop.radius, prop.radius),
        ),
      ];
    case 'weight': {
      const foot = prop.at === 'knee' ? add(ends.knee ?? [0, 0], [-3, 5]) : prop.at;
      return weightShapes(foot);
    }
    case 'towel': {
      const wave: Point[] = Array.from({ length: 13 }, (_, i): Point => {
        const x = prop.from + ((prop.to - prop.from) * i) / 12;
        return [x, 0.5 + (i % 2 === 0 || i > 8 ? 0 : 0.9)];
      });
      return [stroke('strap', polyline(wave), 0.9)];
    }
    case 'hand':
      return handShapes(prop.at, prop.lean);
    case 'strap':
      return [stroke('strap', polyline([strapEnd(prop.from, ends), strapEnd(prop.to, ends)]), 1.1)];
  }
}

/** Cues are as large on a close picture as on a whole body. */
const cueSize = (figure: FigureDefinition): number => (figure.frame[2] - figure.frame[0]) / 100;

function arrowShapes(figure: FigureDefinition): Shape[] {
  if (figure.arrow === undefined) return [];
  const size = cueSize(figure);
  const { line, head } = bentArrow(figure.arrow.from, figure.arrow.to, figure.arrow.bend, size * 3.2);
  return [stroke('arrow', line, size), stroke('arrow', head, size)];
}

const dot = (p: Point, r: number): string => limb(add(p, [-0.05, 0]), add(p, [0.05, 0]), r, r);

function drawSide(figure: SideFigure, t: number, ghost: boolean): Shape[] {
  const s = solvePose(betweenSide(figure.start, figure.end, t));
  const onBody = (p: Prop) => p.kind === 'strap' || (p.kind === 'weight' && p.at === 'knee');
  const straps = figure.props.filter(onBody);
  const others = figure.props.filter((p) => !onBody(p));
  return [
    ...others.flatMap((p) => propShapes(p, endsOf(s))),
    ...(ghost ? ghostShapes(solvePose(figure.start).near) : []),
    ...(s.far === null ? [] : legShapes(s.far, 'skin-far', 'cloth-far')),
    ...bodyShapes(s).slice(0, 4),
    ...legShapes(s.near, 'skin', 'cloth'),
    stroke('tendon', tendon(s.near), 0.8),
    ...straps.flatMap((p) => propShapes(p, endsOf(s))),
    ...bodyShapes(s).slice(4),
    ...(figure.press ?? []).map((what) => fill('press', dot(pressPoint(s, what), cueSize(figure) * 1.7))),
    ...arrowShapes(figure),
  ];
}

const TOP_FOOT: readonly Point[] = [
  [0, -0.4],
  [3, 0.8],
  [3.3, 4],
  [2.4, 8.5],
  [3.2, 13],
  [5, 17],
  [4.6, 19],
  [1.5, 19.8],
  [-1.4, 19],
  [-3.6, 17.4],
  [-4.9, 15],
  [-4.4, 11],
  [-3.4, 6],
  [-3.2, 2],
];

/** Of a left foot from above, its owner looking down: base, length and thickness of each toe, big toe first. */
const TOES: readonly (readonly [base: Point, length: number, r: number])[] = [
  [[3.3, 18.4], 5.2, 1.75],
  [[1, 19.2], 4.8, 1.15],
  [[-0.9, 18.6], 4.2, 1.05],
  [[-2.6, 17.5], 3.7, 1],
  [[-4, 15.8], 3.2, 0.95],
];

const HEEL_CENTRE: Point = [0, 2.5];

/** Turns points of a left foot from above outward about its heel. */
function turner(deg: number): (p: Point) => Point {
  const [sin, cos] = leaning(deg);
  return ([x, y]) => {
    const [dx, dy] = minus([x, y], HEEL_CENTRE);
    return add(HEEL_CENTRE, [dx * cos - dy * sin, dx * sin + dy * cos]);
  };
}

function topToes(pose: TopPose, tone: (lift: number) => Tone): Shape[] {
  const turned = turner(pose.turn ?? 0);
  return TOES.map(([base, length, r], i) => {
    const lift = pose.lift[i] ?? 0;
    const turn = pose.spread[i] ?? 0;
    const tip = add(base, leaning(-turn), length * (1 - 0.28 * lift));
    return fill(tone(lift), limb(turned(base), turned(tip), r, r * (1 + 0.22 * lift)));
  });
}

/** Where something is pressed on a foot from above. */
const TOP_PRESS: Readonly<Record<string, Point>> = { ball: [3.2, 17], heel: [0, 3], arch: [1.2, 10.5] };

function drawTop(figure: TopFigure, t: number, ghost: boolean): Shape[] {
  const pose = betweenTop(figure.start, figure.end, t);
  const turned = turner(pose.turn ?? 0);
  const drawn = (pose.arch ?? 0) * 1.3;
  const outline = (p: TopPose) => softOutline(TOP_FOOT.map(turner(p.turn ?? 0)));
  const foot = TOP_FOOT.map(([x, y]): Point => turned([x, y > 10 ? y - drawn : y]));
  const moves = (figure.start.turn ?? 0) !== (figure.end.turn ?? 0);
  const size = cueSize(figure) * 2.2;
  const ends = { ball: turned([0, 15]), hand: turned([0, 15]) };
  return [
    ...(ghost ? topToes(figure.start, () => 'ghost') : []),
    ...(ghost && moves ? [fill('ghost', outline(figure.start))] : []),
    fill('skin', softOutline(foot)),
    ...topToes(pose, (lift) => (lift > 0.3 ? 'skin-far' : 'skin')),
    ...(figure.press ?? []).map((what) => fill('press', dot(turned(TOP_PRESS[what] ?? [0, 0]), size))),
    ...figure.props.flatMap((p) => propShapes(p, ends)),
    ...arrowShapes(figure),
  ];
}

/**
 * A figure at a moment of its movement, 0 the start and 1 the end, as shapes in cm. With a ghost the start stands behind.
 * The same shapes go to the screen and to paper; the left side is the mirror.
 */
export function drawFigure(figure: FigureDefinition, t: number, ghost = false): Drawing {
  const [left, bottom, right, top] = figure.frame;
  return {
    box: `${left} ${-top} ${right - left} ${top - bottom}`,
    shapes: figure.view === 'side' ? drawSide(figure, t, ghost) : drawTop(figure, t, ghost),
  };
}
