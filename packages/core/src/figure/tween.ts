import type { FrontLeg, FrontPose, LegPose, Point, SidePose, TopPose } from './pose.js';

const mix = (a: number, b: number, t: number): number => a + (b - a) * t;
const mixPoint = (a: Point, b: Point, t: number): Point => [mix(a[0], b[0], t), mix(a[1], b[1], t)];

function maybe<T>(
  a: T | undefined,
  b: T | undefined,
  t: number,
  between: (a: T, b: T, t: number) => T,
): T | undefined {
  if (a === undefined || b === undefined) return t < 0.5 ? a : b;
  return between(a, b, t);
}

function mixLeg(a: LegPose, b: LegPose, t: number): LegPose {
  return {
    ball: maybe(a.ball, b.ball, t, mixPoint),
    heel: maybe(a.heel, b.heel, t, mixPoint),
    pitch: mix(a.pitch, b.pitch, t),
    rock: a.rock,
    toes: maybe(a.toes, b.toes, t, mix),
    curl: maybe(a.curl ?? 0, b.curl ?? 0, t, mix),
    arch: maybe(a.arch ?? 0, b.arch ?? 0, t, mix),
    shin: maybe(a.shin, b.shin, t, mix),
    thigh: maybe(a.thigh, b.thigh, t, mix),
  };
}

/** The pose between two, 0 the first and 1 the second. */
export function betweenSide(a: SidePose, b: SidePose, t: number): SidePose {
  return {
    hip: maybe(a.hip, b.hip, t, mixPoint),
    near: mixLeg(a.near, b.near, t),
    far: maybe(a.far, b.far, t, mixLeg),
    trunk: mix(a.trunk, b.trunk, t),
    head: maybe(a.head, b.head, t, mix),
    hand: maybe(a.hand, b.hand, t, mixPoint),
  };
}

/** A foot from above between two poses, `t` from 0 to 1. */
export function betweenTop(a: TopPose, b: TopPose, t: number): TopPose {
  const list = (x: readonly number[], y: readonly number[]) => x.map((v, i) => mix(v, y[i] ?? v, t));
  return {
    spread: list(a.spread, b.spread),
    lift: list(a.lift, b.lift),
    arch: mix(a.arch ?? 0, b.arch ?? 0, t),
    turn: mix(a.turn ?? 0, b.turn ?? 0, t),
    curl: mix(a.curl ?? 0, b.curl ?? 0, t),
  };
}

function mixFrontLeg(a: FrontLeg, b: FrontLeg, t: number): FrontLeg {
  return {
    foot: mixPoint(a.foot, b.foot, t),
    free: t < 0.5 ? a.free : b.free,
    knee: maybe(a.knee, b.knee, t, mixPoint),
    rise: mix(a.rise ?? 0, b.rise ?? 0, t),
    tilt: mix(a.tilt ?? 0, b.tilt ?? 0, t),
    turn: mix(a.turn ?? 0, b.turn ?? 0, t),
    sole: mix(a.sole ?? 0, b.sole ?? 0, t),
  };
}

/** A body from the front between two poses, `t` from 0 to 1. */
export function betweenFront(a: FrontPose, b: FrontPose, t: number): FrontPose {
  return {
    pelvis: mixPoint(a.pelvis, b.pelvis, t),
    tilt: maybe(a.tilt, b.tilt, t, mix),
    trunk: mix(a.trunk, b.trunk, t),
    head: maybe(a.head, b.head, t, mix),
    gaze: mix(a.gaze ?? 0, b.gaze ?? 0, t),
    right: mixFrontLeg(a.right, b.right, t),
    left: mixFrontLeg(a.left, b.left, t),
    rightHand: maybe(a.rightHand, b.rightHand, t, mixPoint),
    leftHand: maybe(a.leftHand, b.leftHand, t, mixPoint),
    eyesClosed: t < 0.5 ? a.eyesClosed : b.eyesClosed,
  };
}

/** Goes out softly and comes back, for a phase from 0 to 1. */
export const outAndBack = (phase: number): number => (1 - Math.cos(phase * 2 * Math.PI)) / 2;
