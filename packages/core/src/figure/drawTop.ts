import { limb, softOutline } from './outline.js';
import type { Point, Prop, TopFigure, TopPose } from './pose.js';
import { propShapes } from './props.js';
import { arrowShapes, cueSize, dot, fill, type Shape, type Tone } from './shapes.js';
import { add, leaning, minus } from './skeleton.js';
import { betweenTop } from './tween.js';

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

/** Where a point of the foot is drawn: turned, and moved or mirrored for the other foot. */
type Place = (p: Point) => Point;

const lengthOfToe = (pose: TopPose, i: number, length: number): number =>
  length * (1 - 0.4 * (pose.curl ?? 0)) * (1 - 0.28 * (pose.lift[i] ?? 0));

const tipOf = (pose: TopPose, i: number, base: Point, length: number): Point =>
  add(base, leaning(-(pose.spread[i] ?? 0)), lengthOfToe(pose, i, length));

const toeShapes = (pose: TopPose, place: Place, tone: (lift: number) => Tone): Shape[] =>
  TOES.map(([base, length, r], i) => {
    const lift = pose.lift[i] ?? 0;
    return fill(tone(lift), limb(place(base), place(tipOf(pose, i, base, length)), r, r * (1 + 0.22 * lift)));
  });

/** Soft pads of a sole: heel, both ends of the ball, outer edge. */
const PADS: readonly (readonly [from: Point, to: Point, r: number])[] = [
  [[0, 1.8], [0, 4.2], 2.5],
  [[2.5, 16.9], [-2.6, 15.6], 2.1],
  [[-3, 7], [-3.4, 11.5], 0.9],
];

const padShapes = (pose: TopPose, place: Place): Shape[] => [
  ...PADS.map(([from, to, r]) => fill('pad', limb(place(from), place(to), r, r))),
  ...TOES.map(([base, length, r], i) => fill('pad', dot(place(tipOf(pose, i, base, length)), r * 0.72))),
];

/** Where something is pressed on a foot from above or below. */
const TOP_PRESS: Readonly<Record<string, Point>> = {
  ball: [3.2, 17],
  toes: [3.6, 23],
  heel: [0, 3],
  arch: [1.2, 10.5],
  sole: [0, 10],
};

const larger = (by: number): Point[] => TOP_FOOT.map(([x, y]): Point => [x * by, 10 + (y - 10) * by]);

/** What is worn on the foot: a shoe or insole under it, spacers between the toes. */
function wornUnder(prop: Prop, place: Place): Shape[] {
  if (prop.kind === 'cloth') return [fill('strap', softOutline(prop.points))];
  if (prop.kind === 'shoe') {
    const toe: Point[] = [
      [-0.6, -2.4],
      [4, 0],
      [4, 5],
      [3.2, 9],
      [4.4, 14],
      [6.8, 19],
      [6.4, 24],
      [2.6, 26.6],
      [-2.4, 25],
      [-5.6, 21.5],
      [-6.4, 16],
      [-5.2, 10],
      [-4, 5],
      [-4, 0],
    ];
    return [
      fill('prop-dark', softOutline(toe.map(place))),
      fill('prop', softOutline(toe.map(([x, y]) => place([x * 0.88, 12 + (y - 12) * 0.92])))),
    ];
  }
  return prop.kind === 'insole' ? [fill('strap', softOutline(larger(1.1).map(place)))] : [];
}

function spacers(prop: Prop, pose: TopPose, place: Place): Shape[] {
  if (prop.kind !== 'spacer') return [];
  return TOES.slice(1).map(([base, length], i) => {
    const [before, long] = TOES[i] ?? [base, length];
    const a = add(before, leaning(-(pose.spread[i] ?? 0)), long * 0.55);
    const b = add(base, leaning(-(pose.spread[i + 1] ?? 0)), length * 0.55);
    return fill('strap', dot(place([(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]), 0.8));
  });
}

function oneFoot(figure: TopFigure, pose: TopPose, place: Place): Shape[] {
  const drawn = (pose.arch ?? 0) * 1.3;
  const foot = TOP_FOOT.map(([x, y]): Point => place([x, y > 10 ? y - drawn : y]));
  return [
    ...figure.props.flatMap((p) => wornUnder(p, place)),
    fill('skin', softOutline(foot)),
    ...toeShapes(pose, place, (lift) => (lift > 0.3 ? 'skin-far' : 'skin')),
    ...(figure.view === 'sole' ? padShapes(pose, place) : []),
    ...figure.props.flatMap((p) => spacers(p, pose, place)),
  ];
}

/** One foot from above or below at a moment `t` (0 start, 1 end), as shapes in cm. */
export function drawTop(figure: TopFigure, t: number, ghost: boolean): Shape[] {
  const pose = betweenTop(figure.start, figure.end, t);
  const turned = turner(pose.turn ?? 0);
  const { beside } = figure;
  const other = (p: Point): Point => {
    const [x, y] = turned(p);
    return [(beside ?? 0) - x, y];
  };
  const before = turner(figure.start.turn ?? 0);
  const moves = (figure.start.turn ?? 0) !== (figure.end.turn ?? 0);
  const size = cueSize(figure) * 2.2;
  const ends = { ball: turned([0, 15]), hand: turned([0, 15]), farBall: other([0, 15]) };
  return [
    ...(ghost ? toeShapes(figure.start, before, () => 'ghost') : []),
    ...(ghost && moves ? [fill('ghost', softOutline(TOP_FOOT.map(before)))] : []),
    ...(beside === undefined ? [] : oneFoot(figure, pose, other)),
    ...oneFoot(figure, pose, turned),
    ...(figure.press ?? []).map((what) => fill('press', dot(turned(TOP_PRESS[what] ?? [0, 0]), size))),
    ...figure.props.flatMap((p) => propShapes(p, ends)),
    ...arrowShapes(figure),
  ];
}
