import { limb, polyline, softOutline } from './outline.js';
import type { Point, Prop, SideFigure } from './pose.js';
import { endsOf, propShapes } from './props.js';
import { arrowShapes, cueSize, dot, fill, type Shape, stroke, type Tone } from './shapes.js';
import { add, BODY, leaning, type LegJoints, minus, type Skeleton, soleAxes, solvePose } from './skeleton.js';
import { betweenSide } from './tween.js';

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

/** Joints of a bent toe: the first rises, the tip comes down. */
function curled(leg: LegJoints): { knuckle: Point; tip: Point } {
  const knuckle = add(leg.toeJoint, leaning(90 - leg.toes - leg.curl * 0.7), BODY.toes * 0.46);
  return { knuckle, tip: add(knuckle, leaning(90 - leg.toes + leg.curl * 0.9), BODY.toes * 0.42) };
}

/** The toes as one; gripping, their first joint rises and the tips press down. */
function toesOf(leg: LegJoints): string {
  const { knuckle, tip } = curled(leg);
  return `${limb(leg.toeJoint, knuckle, 1.7, 1.5)}${limb(knuckle, tip, 1.5, 1.2)}`;
}

/** In the frame of a foot, like its outline. */
const SHOE: readonly Point[] = [
  [-0.7, 6.5],
  [-1, 1.2],
  [1, -0.3],
  [12, -0.3],
  [20, -0.4],
  [26.6, 0],
  [27.6, 2],
  [25, 4.4],
  [20, 5.4],
  [14.6, 7.6],
  [11.6, 9.4],
  [3, 9.8],
];
const SHOE_SOLE: readonly Point[] = [
  [-0.6, 0.4],
  [27, 0.3],
];
const INSOLE: readonly Point[] = [
  [1, -0.2],
  [20, -0.2],
  [19, 0.4],
  [12, 2.2],
  [6, 1.3],
  [1, 1],
];
const HEEL_PAD: readonly Point[] = [
  [0.2, -0.2],
  [9, -0.2],
  [7.4, 1.2],
  [1, 1.4],
];

/** Of the head, forward and up from its middle. */
const HAIR: readonly Point[] = [
  [4.6, 8.2],
  [0, 11.2],
  [-5.6, 9.4],
  [-8.8, 3.6],
  [-8.4, -3],
  [-5.6, -4.4],
  [-4.6, 1.6],
  [-1, 5.8],
];

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

/** What is worn on the near foot. */
function wornShapes(prop: Prop, leg: LegJoints): Shape[] {
  const on = (points: readonly Point[]) => points.map(([x, y]) => footPoint(leg, x, y));
  switch (prop.kind) {
    case 'shoe':
      return [fill('prop-dark', softOutline(on(SHOE))), stroke('prop', polyline(on(SHOE_SOLE)), 1.2)];
    case 'insole':
      return [fill('strap', `${polyline(on(INSOLE))}Z`)];
    case 'pad':
      return [fill('strap', `${polyline(on(HEEL_PAD))}Z`)];
    case 'splint': {
      const line = minus(leg.knee, leg.ankle);
      const back: Point = [-line[1] / BODY.shin, line[0] / BODY.shin];
      const calf = (t: number, off: number) => add(add(leg.ankle, line, t), back, off);
      return [
        stroke(
          'prop-dark',
          polyline([
            calf(0.75, 6.4),
            calf(0.2, 5),
            ...on([
              [-1.6, -0.6],
              [25, -1.4],
            ]),
          ]),
          2,
        ),
        stroke('strap', polyline([calf(0.6, 6), calf(0.6, -4.6)]), 2.4),
        stroke(
          'strap',
          polyline(
            on([
              [14, -0.8],
              [14.4, 6.4],
            ]),
          ),
          2.4,
        ),
      ];
    }
    default:
      return [];
  }
}

const legShapes = (leg: LegJoints, skin: Tone, cloth: Tone, build: number): Shape[] => [
  fill(skin, shinOutline(leg)),
  fill(skin, footOutline(leg)),
  fill(skin, toesOf(leg)),
  fill(cloth, limb(leg.hip, add(leg.knee, minus(leg.ankle, leg.knee), 0.04), 8 * build, 6.4 * build)),
];

const ghostShapes = (leg: LegJoints): Shape[] =>
  [shinOutline(leg), footOutline(leg), toesOf(leg), limb(leg.hip, leg.knee, 7.6, 6.2)].map((d) =>
    fill('ghost', d),
  );

/** A cap of hair over the back and top of the head. */
function hair(s: Skeleton): string {
  const up = leaning(s.gaze);
  const front = leaning(s.gaze + 90);
  return softOutline(HAIR.map(([x, y]): Point => add(add(s.head, front, x), up, y)));
}

function bodyShapes(s: Skeleton, build: number): Shape[] {
  const shoulder = add(s.hip, leaning(s.trunk), BODY.trunk - 5);
  return [
    fill('skin', limb(s.neck, s.head, 4, 4)),
    fill('skin', limb(add(s.head, leaning(s.gaze), -1), add(s.head, leaning(s.gaze), 2), 8.2, 8.6)),
    fill('hair', hair(s)),
    fill(
      'shirt',
      limb(add(s.hip, leaning(s.trunk), 4), add(s.neck, leaning(s.trunk), -6), 9.4 * build, 9 * build),
    ),
    fill('cloth', limb(s.hip, add(s.hip, leaning(s.trunk), 5), 9 * build, 9.2 * build)),
    fill('shirt', limb(shoulder, s.elbow, 4.4 * build, 3.8)),
    fill('skin', limb(s.elbow, s.hand, 3.2, 2.6)),
  ];
}

/** On the back of the calf, where it is thickest. */
function calfPoint(leg: LegJoints): Point {
  const line = minus(leg.knee, leg.ankle);
  return add(add(leg.ankle, line, 0.6), [-line[1] / BODY.shin, line[0] / BODY.shin], 4.2);
}

function pressPoint(s: Skeleton, what: string): Point {
  const leg = s.near;
  switch (what) {
    case 'heel':
      return leg.heel;
    case 'arch':
      return footPoint(leg, 11.5, 2.4 + leg.arch * 1.6);
    case 'toes':
      return add(curled(leg).tip, [0, -1.1]);
    case 'calf':
      return calfPoint(leg);
    case 'sole':
      return footPoint(leg, 11.5, 0.6);
    default:
      return leg.ball;
  }
}

const onBody = (p: Prop): boolean =>
  p.kind === 'strap' ||
  p.kind === 'trace' ||
  p.kind === 'tape' ||
  (p.kind === 'weight' && typeof p.at === 'string');

/** A figure from the side at a moment `t` (0 start, 1 end), as shapes in cm; `build` is how thick limbs are, 1 the middle. */
export function drawSide(figure: SideFigure, t: number, ghost: boolean, build: number): Shape[] {
  const s = solvePose(betweenSide(figure.start, figure.end, t));
  const body = bodyShapes(s, build);
  const straps = figure.props.filter(onBody);
  const others = figure.props.filter((p) => !onBody(p));
  return [
    ...others.flatMap((p) => propShapes(p, endsOf(s))),
    ...(ghost ? ghostShapes(solvePose(figure.start).near) : []),
    ...(s.far === null ? [] : legShapes(s.far, 'skin-far', 'cloth-far', build)),
    ...figure.props.flatMap((p) => (p.kind === 'shoe' && s.far !== null ? wornShapes(p, s.far) : [])),
    ...body.slice(0, 5),
    ...legShapes(s.near, 'skin', 'cloth', build),
    stroke('tendon', tendon(s.near), 0.8),
    ...figure.props.flatMap((p) => wornShapes(p, s.near)),
    ...straps.flatMap((p) => propShapes(p, endsOf(s))),
    ...body.slice(5),
    ...(figure.press ?? []).map((what) => fill('press', dot(pressPoint(s, what), cueSize(figure) * 1.7))),
    ...arrowShapes(figure),
  ];
}
