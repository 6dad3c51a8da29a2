import { type FrontLegJoints, type FrontSkeleton, HALF, solveFront } from './front.js';
import { limb, polyline, softLine, softOutline } from './outline.js';
import type { FrontFigure, Point, Prop } from './pose.js';
import { type Ends, propShapes } from './props.js';
import { arrowShapes, cueSize, dot, fill, type Shape, stroke, type Tone } from './shapes.js';
import { add, leaning, minus } from './skeleton.js';
import { betweenFront } from './tween.js';

const RAD = Math.PI / 180;

/** A point of a foot: out to its outer side and up from its sole, tipped about its lower edge. */
function onFoot(leg: FrontLegJoints, out: number, up: number): Point {
  const edge = leg.tilt >= 0 ? -4 : 4;
  const [cos, sin] = [Math.cos(leg.tilt * RAD), Math.sin(leg.tilt * RAD)];
  const x = edge + (out - edge) * cos - up * sin;
  const y = (out - edge) * sin + up * cos;
  return add(add(leg.foot, leg.out, x), leg.up, y);
}

/** Where the middle of the forefoot is seen, out from the heel. */
const forefootOut = (leg: FrontLegJoints): number => 15 * Math.sin(leg.turn * RAD);

/** Bases of the toes from the big one, out from the middle of the forefoot, with their thickness. */
const TOES: readonly (readonly [out: number, r: number])[] = [
  [-3.5, 1.75],
  [-1.1, 1.25],
  [0.8, 1.15],
  [2.6, 1.05],
  [4.1, 0.95],
];

function footFromFront(leg: FrontLegJoints, skin: Tone): Shape[] {
  const out = forefootOut(leg);
  const narrow = 1 - 0.35 * Math.abs(Math.sin(leg.turn * RAD));
  return [
    fill(skin, limb(onFoot(leg, 0, 2.6 + leg.rise * 9), leg.ankle, 3.6, 3.4)),
    fill(skin, limb(leg.ankle, onFoot(leg, out, 3.2), 3.5, 4.4)),
    fill(
      skin,
      TOES.map(([o, r]) => {
        const x = out + o * narrow;
        return limb(onFoot(leg, x, 2.6), onFoot(leg, x, r), r * 0.95, r);
      }).join(''),
    ),
    stroke(
      'pad',
      TOES.slice(1)
        .map(([o, r]) => {
          const x = out + (o - r) * narrow;
          return polyline([onFoot(leg, x, 0.5), onFoot(leg, x, 2.4)]);
        })
        .join(''),
      0.3,
    ),
  ];
}

function footFromBehind(leg: FrontLegJoints, skin: Tone, behind: Tone): Shape[] {
  const out = forefootOut(leg);
  const heel = onFoot(leg, 0, 3.2 + leg.rise * 10);
  return [
    fill(behind, limb(onFoot(leg, out - 2.4, 1.9), onFoot(leg, out + 2.6, 1.6), 1.9, 1.6)),
    fill(
      behind,
      `${limb(onFoot(leg, out * 0.6, 2.4), heel, 2.4 + leg.rise, 3)}${limb(heel, onFoot(leg, out, 2), 2.8, 2)}`,
    ),
    fill(skin, limb(heel, add(leg.ankle, leg.up, 1), 3.3, 3)),
  ];
}

/** Along a shin from the ankle, 0 to 1, and how far to its outer and inner side. */
const SHIN: readonly (readonly [t: number, outer: number, inner: number])[] = [
  [-0.02, 3, 3.2],
  [0.16, 2.9, 2.9],
  [0.42, 4.2, 4.6],
  [0.66, 5.6, 5.9],
  [0.86, 5.4, 5.2],
  [1.02, 5.2, 5],
];

function shinOutline(leg: FrontLegJoints): string {
  const line = minus(leg.knee, leg.ankle);
  const long = Math.hypot(...line) || 1;
  const side: Point = [line[1] / long, -line[0] / long];
  const sign = side[0] * leg.out[0] + side[1] * leg.out[1] >= 0 ? 1 : -1;
  const along = (t: number) => add(leg.ankle, line, t);
  return softOutline([
    ...SHIN.map(([t, outer]) => add(along(t), side, outer * sign)),
    ...SHIN.toReversed().map(([t, , inner]) => add(along(t), side, -inner * sign)),
  ]);
}

interface Look {
  readonly facing: 'front' | 'back';
  readonly build: number;
}

function legShapes(leg: FrontLegJoints, skin: Tone, look: Look): Shape[] {
  const foot = look.facing === 'front' ? footFromFront(leg, skin) : footFromBehind(leg, skin, 'skin-far');
  const tendon = polyline([
    onFoot(leg, 0, 4 + leg.rise * 10),
    add(leg.ankle, minus(leg.knee, leg.ankle), 0.34),
  ]);
  return [
    ...foot,
    fill(skin, shinOutline(leg)),
    ...(look.facing === 'back' ? [stroke('tendon', tendon, 0.8)] : []),
    fill(
      'cloth',
      limb(leg.hip, add(leg.knee, minus(leg.ankle, leg.knee), 0.04), 8 * look.build, 6.2 * look.build),
    ),
  ];
}

function bodyShapes(s: FrontSkeleton, look: Look): Shape[] {
  const spine = leaning(s.trunk);
  const across = leaning(s.trunk + 90);
  const level = leaning(s.pelvisTilt + 90);
  const wide = (at: Point, along: Point, half: number): [Point, Point] => [
    add(at, along, -half * look.build),
    add(at, along, half * look.build),
  ];
  const chest = add(s.pelvis, spine, 42);
  const waist = add(s.pelvis, spine, 20);
  const [a, b] = wide(chest, across, HALF.shoulders - 1);
  const [c, d] = wide(waist, across, 11.5);
  const [e, f] = wide(s.pelvis, level, 13);
  const neckline = add(s.pelvis, spine, 47);
  const gaze = add(s.head, across, s.gaze * 3);
  return [
    fill('skin', limb(s.neck, s.head, 4, 4)),
    fill('skin', limb(add(s.head, spine, -2), add(s.head, spine, 2), 7, 7.6)),
    fill(
      'shirt',
      softOutline([
        add(neckline, across, -6),
        a,
        c,
        e,
        add(s.pelvis, spine, -3),
        f,
        d,
        b,
        add(neckline, across, 6),
      ]),
    ),
    fill('cloth', softOutline([e, add(e, spine, 7), add(f, spine, 7), f, add(s.pelvis, spine, -7)])),
    ...headShapes(s, gaze, look.facing),
  ];
}

function headShapes(s: FrontSkeleton, gaze: Point, facing: 'front' | 'back'): Shape[] {
  const spine = leaning(s.trunk);
  const across = leaning(s.trunk + 90);
  const cap = add(s.head, spine, 4);
  if (facing === 'back') return [fill('hair', limb(add(s.head, spine, -1), cap, 7.2, 7.4))];
  const eye = (side: number) => add(add(gaze, spine, 0.5), across, side * 2.6);
  return [
    fill(
      'hair',
      softOutline(
        [-7.8, -5, 0, 5, 7.8, 6, 0, -6].map((x, i) =>
          add(add(s.head, spine, [2, 8.4, 10.4, 8.4, 2, 5, 6.4, 5][i] ?? 0), across, x),
        ),
      ),
    ),
    ...[-1, 1].map((side) => fill('hair', dot(eye(side), 0.6))),
  ];
}

const armShapes = (s: FrontSkeleton, side: 'right' | 'left', build: number): Shape[] => [
  fill('shirt', limb(s.shoulders[side], s.elbows[side], 4 * build, 3.4)),
  fill('skin', limb(s.elbows[side], s.hands[side], 3, 2.5)),
];

const endsOf = (s: FrontSkeleton): Ends => ({
  ball: add(s.right.foot, s.right.up, 2),
  hand: s.hands.right,
  knee: s.right.knee,
  ankle: s.right.ankle,
  farBall: add(s.left.foot, s.left.up, 2),
  farAnkle: s.left.ankle,
});

function pressPoint(s: FrontSkeleton, what: string): Point {
  if (what === 'heel') return onFoot(s.right, 0, 2 + s.right.rise * 9);
  if (what === 'calf') return add(s.right.ankle, minus(s.right.knee, s.right.ankle), 0.62);
  return onFoot(s.right, forefootOut(s.right) - 3.2, 1.6);
}

/** A thigh seen shorter than this, in cm, points at the viewer and is drawn before the trunk. */
const TOWARD_VIEWER = 30;

const ghostShapes = (legs: readonly FrontLegJoints[]): Shape[] =>
  legs.flatMap((leg) => [
    fill('ghost', shinOutline(leg)),
    fill('ghost', `${limb(leg.hip, leg.knee, 7.6, 6)}${limb(add(leg.foot, leg.up, 4), leg.ankle, 4, 3.4)}`),
  ]);

/** Legs that are not where they were. */
const movedLegs = (before: FrontSkeleton, now: FrontSkeleton): FrontLegJoints[] =>
  (['right', 'left'] as const).flatMap((side) => {
    const moved = (['hip', 'knee', 'ankle'] as const).some(
      (joint) => Math.hypot(...minus(before[side][joint], now[side][joint])) > 2,
    );
    return moved ? [before[side]] : [];
  });

/** A figure from the front or the back at a moment `t` (0 start, 1 end), as shapes in cm; `build` is how thick limbs are, 1 the middle. */
export function drawFront(figure: FrontFigure, t: number, ghost: boolean, build: number): Shape[] {
  const facing = figure.view;
  const s = solveFront(betweenFront(figure.start, figure.end, t), facing);
  const before = solveFront(figure.start, facing);
  const look = { facing, build };
  const tied = (p: Prop) =>
    p.kind === 'strap' ||
    p.kind === 'trace' ||
    p.kind === 'coin' ||
    (p.kind === 'weight' && typeof p.at === 'string');
  const closed = (t < 0.5 ? figure.start : figure.end).eyesClosed === true;
  const across = leaning(s.trunk + 90);
  const lids = closed
    ? [-1, 1].map((side) => {
        const eye = add(add(s.head, across, s.gaze * 3 + side * 2.6), leaning(s.trunk), 0.5);
        return stroke(
          'hair',
          softLine([add(eye, across, -1.3), add(eye, leaning(s.trunk), -0.7), add(eye, across, 1.3)]),
          0.6,
        );
      })
    : [];
  const body = bodyShapes(s, look);
  const shapes = closed ? body.slice(0, facing === 'front' ? -2 : undefined) : body;
  const legs = [
    { leg: 'left' as const, drawn: legShapes(s.left, 'skin-far', look) },
    { leg: 'right' as const, drawn: legShapes(s.right, 'skin', look) },
  ];
  const after = solveFront(figure.end, facing);
  const toward = (side: 'right' | 'left') =>
    [before, after].every((b) => Math.hypot(...minus(b[side].knee, b[side].hip)) < TOWARD_VIEWER);
  return [
    ...figure.props.filter((p) => !tied(p)).flatMap((p) => propShapes(p, endsOf(s))),
    ...(ghost ? ghostShapes(movedLegs(before, s)) : []),
    ...armShapes(s, 'left', build),
    ...legs.filter(({ leg }) => !toward(leg)).flatMap(({ drawn }) => drawn),
    ...shapes,
    ...lids,
    ...legs.filter(({ leg }) => toward(leg)).flatMap(({ drawn }) => drawn),
    ...armShapes(s, 'right', build),
    ...(legs.some(({ leg }) => toward(leg)) ? armShapes(s, 'left', build).slice(1) : []),
    ...figure.props.filter(tied).flatMap((p) => propShapes(p, endsOf(s))),
    ...(figure.press ?? []).map((what) => fill('press', dot(pressPoint(s, what), cueSize(figure) * 1.7))),
    ...arrowShapes(figure),
  ];
}
