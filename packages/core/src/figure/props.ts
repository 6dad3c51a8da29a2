import { at, box, limb, polyline, softLine } from './outline.js';
import type { Anchor, Point, Prop } from './pose.js';
import { dot, fill, type Shape, stroke } from './shapes.js';
import { add, leaning, type Skeleton } from './skeleton.js';

/** What a prop may hang on. */
export interface Ends {
  readonly ball: Point;
  readonly hand: Point;
  readonly knee?: Point;
  readonly ankle?: Point;
  readonly farBall?: Point;
  readonly farAnkle?: Point;
}

/** Where hands, feet and trunk end, for what is held or stood on. */
export const endsOf = (s: Skeleton): Ends => ({
  ball: s.near.ball,
  hand: s.hand,
  knee: s.near.knee,
  ankle: s.near.ankle,
  ...(s.far === null ? {} : { farBall: s.far.ball, farAnkle: s.far.ankle }),
});

function anchored(end: Point | Anchor, ends: Ends): Point {
  if (typeof end !== 'string') return end;
  const named = { 'far ball': ends.farBall, 'far ankle': ends.farAnkle };
  return (end === 'far ball' || end === 'far ankle' ? named[end] : ends[end]) ?? ends.ball;
}

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

/** A thing that stands, lies or is held, as shapes. */
export function propShapes(prop: Prop, ends: Ends): Shape[] {
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
      if (prop.at === 'hand') return weightShapes(add(ends.hand, [0, -12]));
      return weightShapes(prop.at === 'knee' ? add(ends.knee ?? [0, 0], [-3, 5]) : prop.at);
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
      return [stroke('strap', polyline([anchored(prop.from, ends), anchored(prop.to, ends)]), 1.1)];
    default:
      return smallShapes(prop);
  }
}

/** A small swell along a line. */
const waves = (from: number, to: number, height: number): Point[] =>
  Array.from({ length: 23 }, (_, i): Point => [
    from + ((to - from) * i) / 22,
    height + (i % 2 === 0 ? 0 : 1.4),
  ]);

/** A bike that stays where it is: feet, a wheel before the crank, saddle and bar. */
function bikeShapes({ crank, saddle, bar }: Extract<Prop, { readonly kind: 'bike' }>): Shape[] {
  const wheel = add(crank, [22, 0]);
  return [
    stroke(
      'prop',
      polyline([
        [crank[0] - 24, 1.5],
        [crank[0] + 40, 1.5],
      ]),
      2.4,
    ),
    stroke('prop', polyline([[crank[0], 1.5], crank, saddle]), 2.4),
    stroke('prop', polyline([crank, wheel, bar]), 2.4),
    stroke('prop', polyline([add(bar, [-9, 2]), bar]), 2.4),
    fill('prop', dot(wheel, 15)),
    fill('prop-dark', dot(wheel, 4)),
    fill('prop-dark', dot(crank, 5)),
    fill('prop-dark', limb(add(saddle, [-8, 1]), add(saddle, [9, 0]), 2.6, 1.4)),
  ];
}

/** What is taken in the hand, lies under the foot or is drawn on it. */
function smallShapes(prop: Prop): Shape[] {
  switch (prop.kind) {
    case 'cushion': {
      const r = prop.height / 2;
      return [fill('strap', limb([prop.from + r, r], [prop.to - r, r], r, r))];
    }
    case 'book':
      return [
        fill('prop-dark', box(prop.at[0], prop.at[1], prop.at[0] + prop.width, prop.at[1] + prop.height)),
        fill(
          'prop',
          box(prop.at[0] + 0.8, prop.at[1] + 0.7, prop.at[0] + prop.width, prop.at[1] + prop.height - 0.7),
        ),
      ];
    case 'coin':
      return [fill('prop-dark', dot(prop.at, prop.radius)), fill('prop', dot(prop.at, prop.radius * 0.6))];
    case 'marbles':
      return prop.at.map((p, i) => fill(i % 2 === 0 ? 'strap' : 'prop-dark', dot(p, prop.radius)));
    case 'bowl': {
      const [x, y] = prop.at;
      const half = prop.width / 2;
      return [
        fill(
          'prop-dark',
          `M${at([x - half, y + half * 0.7])}Q${at([x - half * 0.8, y])} ${at([x, y])}Q${at([x + half * 0.8, y])} ${at([x + half, y + half * 0.7])}Z`,
        ),
      ];
    }
    case 'spoon': {
      const along = leaning(prop.lean);
      return [
        stroke('prop-dark', polyline([add(prop.at, along, 2), add(prop.at, along, 15)]), 1),
        fill('prop-dark', limb(add(prop.at, along, -1.4), add(prop.at, along, 1.4), 2, 1.7)),
      ];
    }
    case 'mirror': {
      const along = leaning(prop.lean);
      const head = add(prop.at, along, 14);
      return [
        stroke('prop-dark', polyline([prop.at, head]), 1.6),
        fill('prop-dark', dot(head, 6.5)),
        fill('prop', dot(head, 5.4)),
      ];
    }
    case 'bike':
      return bikeShapes(prop);
    case 'water':
      return [
        stroke('strap', polyline(waves(prop.from, prop.to, prop.height)), 0.8),
        stroke('strap', polyline(waves(prop.from, prop.to, prop.height - 5)), 0.4),
      ];
    case 'rope':
      return [stroke('strap', softLine(prop.points), 1)];
    case 'trace':
      return [stroke('arrow', softLine(prop.points), 0.7)];
    case 'tape':
      return [stroke('strap', softLine(prop.points), 2.2)];
    default:
      return [];
  }
}
