import type { TopPose } from './pose.js';
import { type LegJoints, leanOf, minus, type Skeleton } from './skeleton.js';

/** What a joint can do in a drawn pose, in degrees. Ordinary adult ranges, rounded; convention. */
export const JOINT_LIMITS = {
  /** Up is above 0. */
  ankle: [-55, 42],
  knee: [-3, 150],
  hip: [-25, 130],
  /** Extension of the toes against the sole. */
  toes: [-45, 85],
} as const;

export type Joint = keyof typeof JOINT_LIMITS;

const SLACK = 0.5;

/** Angles of one leg's joints. */
export function jointAngles(leg: LegJoints, trunk: number): Record<Joint, number> {
  const shin = leanOf(minus(leg.knee, leg.ankle));
  const thigh = leanOf(minus(leg.hip, leg.knee));
  const turn = (deg: number): number => ((((deg + 180) % 360) + 360) % 360) - 180;
  return {
    ankle: turn(shin - leg.pitch),
    knee: turn(shin - thigh),
    hip: turn(trunk - thigh),
    toes: leg.toes + leg.pitch,
  };
}

export interface LimitProblem {
  readonly leg: 'near' | 'far';
  readonly joint: Joint | 'reach';
  readonly angle: number;
}

/** Joints beyond what they can do, and legs that do not reach where their foot rests. */
export function limitProblems(skeleton: Skeleton): LimitProblem[] {
  const legs = [
    ['near', skeleton.near],
    ['far', skeleton.far],
  ] as const;
  return legs.flatMap(([name, leg]): LimitProblem[] => {
    if (leg === null) return [];
    const angles = jointAngles(leg, skeleton.trunk);
    const beyond = (Object.keys(JOINT_LIMITS) as Joint[]).filter((joint) => {
      const [least, most] = JOINT_LIMITS[joint];
      return angles[joint] < least - SLACK || angles[joint] > most + SLACK;
    });
    return [
      ...beyond.map((joint) => ({ leg: name, joint, angle: angles[joint] })),
      ...(leg.short > 0.5 ? [{ leg: name, joint: 'reach' as const, angle: leg.short }] : []),
    ];
  });
}

/** What toes and a foot from above can do: degrees of spreading outward, and of turning about the heel. Convention. */
export const TOP_LIMITS = { spread: [-25, 40], turn: [-45, 60], share: [0, 1] } as const;

/** Toes or a foot turned further than they go, and shares outside 0 to 1. */
export function topProblems(pose: TopPose): { leg: string; joint: string; angle: number }[] {
  const outside = (joint: keyof typeof TOP_LIMITS, name: string, value: number) =>
    value < TOP_LIMITS[joint][0] - SLACK / 10 || value > TOP_LIMITS[joint][1] + SLACK / 10
      ? [{ leg: 'foot', joint: name, angle: value }]
      : [];
  return [
    ...pose.spread.flatMap((v, i) => outside('spread', `toe ${i + 1}`, v)),
    ...pose.lift.flatMap((v, i) => outside('share', `lift of toe ${i + 1}`, v)),
    ...outside('share', 'arch', pose.arch ?? 0),
    ...outside('share', 'curl', pose.curl ?? 0),
    ...outside('turn', 'turn', pose.turn ?? 0),
  ];
}
