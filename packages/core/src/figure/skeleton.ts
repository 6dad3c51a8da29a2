import type { LegPose, Point, SidePose } from './pose.js';

/** Lengths of the drawn body in cm. */
export const BODY = {
  shin: 41,
  thigh: 42,
  trunk: 50,
  upperArm: 28,
  forearm: 25,
  /** Along the sole from the back of the heel. */
  heelContact: 4,
  ankle: 7,
  ball: 19,
  toes: 7,
  /** Above the sole. */
  ankleHeight: 8,
} as const;

export interface LegJoints {
  readonly heel: Point;
  readonly ankle: Point;
  readonly ball: Point;
  readonly toeJoint: Point;
  readonly toeTip: Point;
  readonly knee: Point;
  readonly hip: Point;
  readonly pitch: number;
  readonly toes: number;
  readonly curl: number;
  readonly arch: number;
  /** Whether the foot rests on something, and how far it was from where it should (0 when the leg reaches). */
  readonly placed: boolean;
  readonly short: number;
}

export interface Skeleton {
  readonly near: LegJoints;
  readonly far: LegJoints | null;
  readonly hip: Point;
  readonly neck: Point;
  readonly head: Point;
  readonly elbow: Point;
  readonly hand: Point;
  readonly trunk: number;
  /** Lean of the neck. */
  readonly gaze: number;
}

const RAD = Math.PI / 180;

/** `a` and `by` times `b`. */
export const add = (a: Point, b: Point, by = 1): Point => [a[0] + b[0] * by, a[1] + b[1] * by];
/** From `b` to `a`. */
export const minus = (a: Point, b: Point): Point => [a[0] - b[0], a[1] - b[1]];
/** Distance from the origin, in cm. */
export const lengthOf = (p: Point): number => Math.hypot(p[0], p[1]);
/** Up, leaning forward by an angle. */
export const leaning = (deg: number): Point => [Math.sin(deg * RAD), Math.cos(deg * RAD)];
/** Along the sole toward the toes, and up from it, for a pitch. */
export const soleAxes = (pitch: number): { along: Point; up: Point } => ({
  along: [Math.cos(pitch * RAD), -Math.sin(pitch * RAD)],
  up: [Math.sin(pitch * RAD), Math.cos(pitch * RAD)],
});
const toDeg = (rad: number): number => rad / RAD;
/** Lean of a vector from upright, in degrees. */
export const leanOf = (v: Point): number => toDeg(Math.atan2(v[0], v[1]));

interface Foot {
  readonly heel: Point;
  readonly ankle: Point;
  readonly ball: Point;
}

/** The foot from where it rests, or from its ankle. */
function footAt(pose: LegPose, ankleAt: Point | null): Foot {
  const { along, up } = soleAxes(pose.pitch);
  const onSole = (origin: Point, x: number, y: number): Point => add(add(origin, along, x), up, y);
  const origin =
    ankleAt !== null
      ? add(add(ankleAt, along, -BODY.ankle), up, -BODY.ankleHeight)
      : pose.rock === true && pose.pitch < 0
        ? add(add(pose.ball ?? [0, 0], [BODY.heelContact - BODY.ball, 0]), along, -BODY.heelContact)
        : pose.heel !== undefined
          ? add(pose.heel, along, -BODY.heelContact)
          : add(pose.ball ?? [0, 0], along, -BODY.ball);
  return {
    heel: onSole(origin, BODY.heelContact, 0),
    ankle: onSole(origin, BODY.ankle, BODY.ankleHeight),
    ball: onSole(origin, BODY.ball, 0),
  };
}

/** The knee between a hip and an ankle, on the front; and how much the leg is too short for it. */
function kneeBetween(hip: Point, ankle: Point): { knee: Point; short: number } {
  const line = minus(hip, ankle);
  const reach = lengthOf(line);
  const most = BODY.shin + BODY.thigh;
  const used = Math.min(reach, most - 0.001);
  const along = (BODY.shin ** 2 - BODY.thigh ** 2 + used ** 2) / (2 * used);
  const out = Math.sqrt(Math.max(0, BODY.shin ** 2 - along ** 2));
  const unit: Point = [line[0] / reach, line[1] / reach];
  const front: Point = [unit[1], -unit[0]];
  return { knee: add(add(ankle, unit, along), front, out), short: Math.max(0, reach - most) };
}

function joints(
  pose: LegPose,
  foot: Foot,
  above: Pick<LegJoints, 'knee' | 'hip' | 'placed' | 'short'>,
): LegJoints {
  const toes = pose.toes ?? (pose.pitch > 0 ? 0 : -pose.pitch);
  const { up } = soleAxes(pose.pitch);
  const toeJoint = add(foot.ball, up, 1.3);
  return {
    ...foot,
    toeJoint,
    toeTip: add(toeJoint, leaning(90 - toes), BODY.toes),
    ...above,
    pitch: pose.pitch,
    toes,
    curl: pose.curl ?? 0,
    arch: pose.arch ?? 0,
  };
}

const rests = (pose: LegPose): boolean => pose.ball !== undefined || pose.heel !== undefined;

/** A leg below a given hip: to its foot where that rests, else hanging by its own angles. */
function legBelow(pose: LegPose, hip: Point): LegJoints {
  if (rests(pose)) {
    const foot = footAt(pose, null);
    const { knee, short } = kneeBetween(hip, foot.ankle);
    return joints(pose, foot, { knee, hip, placed: true, short });
  }
  const knee = add(hip, leaning(pose.thigh ?? 0), -BODY.thigh);
  const ankle = add(knee, leaning(pose.shin ?? 0), -BODY.shin);
  return joints(pose, footAt(pose, ankle), { knee, hip, placed: false, short: 0 });
}

/** The near leg built up from its foot. */
function legUp(pose: LegPose): LegJoints {
  const foot = footAt(pose, null);
  const knee = add(foot.ankle, leaning(pose.shin ?? 0), BODY.shin);
  const hip = add(knee, leaning(pose.thigh ?? 0), BODY.thigh);
  return joints(pose, foot, { knee, hip, placed: true, short: 0 });
}

function armTo(shoulder: Point, hand: Point | undefined): { elbow: Point; hand: Point } {
  if (hand === undefined) {
    const elbow = add(shoulder, leaning(4), -BODY.upperArm);
    return { elbow, hand: add(elbow, leaning(-6), -BODY.forearm) };
  }
  const line = minus(hand, shoulder);
  const reach = Math.min(lengthOf(line), BODY.upperArm + BODY.forearm - 0.001);
  const full = lengthOf(line);
  const unit: Point = full === 0 ? [0, -1] : [line[0] / full, line[1] / full];
  const along = (BODY.upperArm ** 2 - BODY.forearm ** 2 + reach ** 2) / (2 * reach);
  const out = Math.sqrt(Math.max(0, BODY.upperArm ** 2 - along ** 2));
  // An elbow points back: below a hand held out in front, behind one that hangs.
  const down: Point = [unit[1], -unit[0]];
  return { elbow: add(add(shoulder, unit, along), down, out), hand: add(shoulder, unit, reach) };
}

/** Every joint of a pose, in cm. Feet that rest are exactly where they rest, whatever the rest of the body does. */
export function solvePose(pose: SidePose): Skeleton {
  const near = pose.hip === undefined ? legUp(pose.near) : legBelow(pose.near, pose.hip);
  const hip = near.hip;
  const neck = add(hip, leaning(pose.trunk), BODY.trunk);
  const shoulder = add(hip, leaning(pose.trunk), BODY.trunk - 5);
  const arm = armTo(shoulder, pose.hand);
  return {
    near,
    far: pose.far === undefined ? null : legBelow(pose.far, hip),
    hip,
    neck,
    head: add(neck, leaning(pose.head ?? pose.trunk), 13),
    gaze: pose.head ?? pose.trunk,
    ...arm,
    trunk: pose.trunk,
  };
}
