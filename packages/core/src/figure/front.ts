import type { FrontLeg, FrontPose, Point } from './pose.js';
import { add, BODY, leaning, lengthOf, minus } from './skeleton.js';

/** Half the distance between the hips, and between the shoulders, in cm. */
export const HALF = { hips: 8.5, shoulders: 16.5 } as const;

/** How far a full rise lifts the ankle, in cm. */
const RISE = 11;

export interface FrontLegJoints {
  readonly hip: Point;
  readonly knee: Point;
  readonly ankle: Point;
  readonly foot: Point;
  /** From the sole to the ankle, and along the sole to the outer side of the foot. */
  readonly up: Point;
  readonly out: Point;
  /** Toes turned outward in degrees, and the heel's lift, 0 to 1. */
  readonly turn: number;
  readonly rise: number;
  readonly tilt: number;
  readonly free: boolean;
}

export interface FrontSkeleton {
  readonly right: FrontLegJoints;
  readonly left: FrontLegJoints;
  readonly pelvis: Point;
  readonly pelvisTilt: number;
  readonly neck: Point;
  readonly head: Point;
  readonly trunk: number;
  readonly gaze: number;
  readonly shoulders: { readonly right: Point; readonly left: Point };
  readonly elbows: { readonly right: Point; readonly left: Point };
  readonly hands: { readonly right: Point; readonly left: Point };
}

/** +1 where the outer side of a leg lies to the right of the drawing. */
const outward = (side: 'right' | 'left', facing: 'front' | 'back'): 1 | -1 =>
  (side === 'right') === (facing === 'back') ? 1 : -1;

function legOf(pose: FrontLeg, hip: Point, sign: 1 | -1): FrontLegJoints {
  const lean = -(pose.sole ?? 0);
  const up = leaning(lean);
  const across = leaning(lean + 90);
  const rise = pose.rise ?? 0;
  const ankle = add(pose.foot, up, BODY.ankleHeight + rise * RISE);
  const knee = pose.knee ?? add(ankle, minus(hip, ankle), BODY.shin / (BODY.shin + BODY.thigh));
  return {
    hip,
    knee,
    ankle,
    foot: pose.foot,
    up,
    out: [across[0] * sign, across[1] * sign],
    turn: pose.turn ?? 0,
    rise,
    tilt: pose.tilt ?? 0,
    free: pose.free === true,
  };
}

function armOf(shoulder: Point, hand: Point | undefined, sign: number): { elbow: Point; hand: Point } {
  if (hand === undefined)
    return { elbow: add(shoulder, [sign * 4, -27]), hand: add(shoulder, [sign * 3, -52]) };
  const line = minus(hand, shoulder);
  const full = lengthOf(line) || 1;
  const reach = Math.min(full, BODY.upperArm + BODY.forearm - 0.001);
  const unit: Point = [line[0] / full, line[1] / full];
  const along = (BODY.upperArm ** 2 - BODY.forearm ** 2 + reach ** 2) / (2 * reach);
  // Seen from in front an elbow bends mostly toward the viewer, so only part of its bend shows.
  const out = Math.sqrt(Math.max(0, BODY.upperArm ** 2 - along ** 2)) * 0.45;
  const side: Point = [-unit[1] * -sign, unit[0] * -sign];
  return { elbow: add(add(shoulder, unit, along), side, out), hand: add(shoulder, unit, reach) };
}

/** Every joint of a body seen from in front or behind, in cm. */
export function solveFront(pose: FrontPose, facing: 'front' | 'back'): FrontSkeleton {
  const pelvisTilt = pose.tilt ?? pose.trunk;
  const level = leaning(pelvisTilt + 90);
  const spine = leaning(pose.trunk);
  const shoulderLine = leaning(pose.trunk + 90);
  const neck = add(pose.pelvis, spine, BODY.trunk);
  const shoulder = add(pose.pelvis, spine, BODY.trunk - 6);
  const one = (side: 'right' | 'left') => {
    const sign = outward(side, facing);
    const joint = add(shoulder, shoulderLine, sign * HALF.shoulders);
    return {
      leg: legOf(pose[side], add(pose.pelvis, level, sign * HALF.hips), sign),
      shoulder: joint,
      arm: armOf(joint, side === 'right' ? pose.rightHand : pose.leftHand, sign),
    };
  };
  const [right, left] = [one('right'), one('left')];
  return {
    right: right.leg,
    left: left.leg,
    pelvis: pose.pelvis,
    pelvisTilt,
    neck,
    head: add(neck, leaning(pose.head ?? pose.trunk), 13),
    trunk: pose.trunk,
    gaze: pose.gaze ?? 0,
    shoulders: { right: right.shoulder, left: left.shoulder },
    elbows: { right: right.arm.elbow, left: left.arm.elbow },
    hands: { right: right.arm.hand, left: left.arm.hand },
  };
}

/** What can be seen of a joint from in front or behind, in degrees. Ordinary adult ranges, rounded; convention. */
export const FRONT_LIMITS = {
  /** Sole tipped: above 0 the outer edge is lifted. */
  tilt: [-35, 22],
  /** Toes outward. */
  turn: [-45, 75],
  rise: [0, 1],
  trunk: [-95, 95],
} as const;

export interface FrontProblem {
  readonly leg: 'right' | 'left';
  readonly joint: 'thigh' | 'shin' | 'tilt' | 'turn' | 'rise';
  readonly angle: number;
}

const LONGER = 1;

/** Bones drawn longer than they are, and feet turned or tipped further than they go. */
export function frontProblems(s: FrontSkeleton): FrontProblem[] {
  return (['right', 'left'] as const).flatMap((leg): FrontProblem[] => {
    const l = s[leg];
    const thigh = lengthOf(minus(l.knee, l.hip));
    const shin = lengthOf(minus(l.ankle, l.knee));
    const turns = (['tilt', 'turn', 'rise'] as const).filter(
      (joint) => l[joint] < FRONT_LIMITS[joint][0] || l[joint] > FRONT_LIMITS[joint][1],
    );
    return [
      ...(thigh > BODY.thigh + LONGER ? [{ leg, joint: 'thigh' as const, angle: thigh }] : []),
      ...(shin > BODY.shin + LONGER ? [{ leg, joint: 'shin' as const, angle: shin }] : []),
      ...turns.map((joint) => ({ leg, joint, angle: l[joint] })),
    ];
  });
}
