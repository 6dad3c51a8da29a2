/** A point in cm: x forward, the way the toes point; y up from the floor. */
export type Point = readonly [x: number, y: number];

/**
 * One leg from the side. Angles in degrees. A leg is placed by its foot (`ball` or `heel` on something) or hangs free
 * from the hip by `thigh` and `shin`. A placed leg takes `shin` and `thigh` when the body is built up from it, and else
 * finds its knee between hip and foot.
 */
export interface LegPose {
  /** Where the ball of the foot rests. */
  readonly ball?: Point | undefined;
  /** Where the heel rests; for a foot whose front is lifted. */
  readonly heel?: Point | undefined;
  /** Slope of the sole: above 0 the heel is higher than the ball. */
  readonly pitch: number;
  /** Slope of the toes above the floor; left out they lie flat, or go on with the sole of a lifted forefoot. */
  readonly toes?: number | undefined;
  /** Last joints of the toes bent down, for gripping. */
  readonly curl?: number | undefined;
  /** How far the arch is raised, 0 to 1. */
  readonly arch?: number | undefined;
  /** Shin forward of upright. */
  readonly shin?: number | undefined;
  /** Thigh forward of upright, from the knee to the hip: below 0 the hip is behind the knee. */
  readonly thigh?: number | undefined;
}

/** The body from the side. It is built up from the near leg, or down from the hip. */
export interface SidePose {
  readonly hip?: Point | undefined;
  readonly near: LegPose;
  /** Left out when it would only hide the near one. */
  readonly far?: LegPose | undefined;
  /** Trunk forward of upright; -90 lies on the back. */
  readonly trunk: number;
  /** Head forward of upright; left out it goes on with the trunk. */
  readonly head?: number | undefined;
  /** Where the near hand is; left out it hangs. */
  readonly hand?: Point | undefined;
}

/** One foot from above: each toe's turn outward in degrees and how far it is lifted, 0 to 1, big toe first. */
export interface TopPose {
  readonly spread: readonly number[];
  readonly lift: readonly number[];
  /** How far the arch is drawn up, 0 to 1. */
  readonly arch?: number | undefined;
  /** The whole foot turned outward about its heel, in degrees. */
  readonly turn?: number | undefined;
}

export type Prop =
  | { readonly kind: 'floor'; readonly from: number; readonly to: number }
  | { readonly kind: 'wall'; readonly x: number }
  | { readonly kind: 'step'; readonly from: number; readonly to: number; readonly height: number }
  | { readonly kind: 'chair'; readonly x: number; readonly height: number }
  | { readonly kind: 'worktop'; readonly x: number; readonly height: number }
  | { readonly kind: 'roll'; readonly at: Point; readonly radius: number }
  | { readonly kind: 'ball'; readonly at: Point; readonly radius: number }
  | { readonly kind: 'weight'; readonly at: Point | 'knee' }
  | { readonly kind: 'towel'; readonly from: number; readonly to: number }
  /** A hand laid on a foot seen from above or below, its fingers the way it leans. */
  | { readonly kind: 'hand'; readonly at: Point; readonly lean: number }
  /** A belt or band drawn between two points; what it ends at moves with the body when it is named. */
  | { readonly kind: 'strap'; readonly from: Point | 'ball' | 'hand'; readonly to: Point | 'ball' | 'hand' };

interface FigureCommon {
  readonly props: readonly Prop[];
  /** What moves, as a bent arrow in the drawing's own cm. */
  readonly arrow?: { readonly from: Point; readonly to: Point; readonly bend: number } | undefined;
  /** Where pressure is to be felt. */
  readonly press?: readonly ('ball' | 'heel' | 'arch' | 'toes' | 'calf' | 'sole')[] | undefined;
  /** What is drawn, in cm: left, bottom, right, top. */
  readonly frame: readonly [left: number, bottom: number, right: number, top: number];
}

export interface SideFigure extends FigureCommon {
  readonly view: 'side';
  readonly start: SidePose;
  readonly end: SidePose;
}

export interface TopFigure extends FigureCommon {
  readonly view: 'top';
  readonly start: TopPose;
  readonly end: TopPose;
}

/** An exercise drawn: from the start to the end and back. */
export type FigureDefinition = SideFigure | TopFigure;
