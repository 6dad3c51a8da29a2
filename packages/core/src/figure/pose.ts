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
  /** Rests on its ball while the heel is up, and rolls onto the heel when the front is lifted. */
  readonly rock?: boolean | undefined;
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
  /** The ends of the toes bent down, 0 to 1, for gripping. */
  readonly curl?: number | undefined;
}

/** One leg as it is seen from in front or behind. Bones may look shorter than they are, never longer. */
export interface FrontLeg {
  /** Under the ankle on what the foot rests on; of a free foot, the middle of its sole. */
  readonly foot: Point;
  /** Whether the foot hangs free. */
  readonly free?: boolean | undefined;
  /** Left out, the knee lies on the line from hip to ankle. */
  readonly knee?: Point | undefined;
  /** How high the heel is lifted over the forefoot, 0 to 1. */
  readonly rise?: number | undefined;
  /** The sole tipped in degrees: above 0 its outer edge is lifted. */
  readonly tilt?: number | undefined;
  /** Toes turned outward, in degrees. */
  readonly turn?: number | undefined;
  /** Where the sole looks, for a foot that does not stand: 0 down, 90 to the right of the drawing. */
  readonly sole?: number | undefined;
}

/** The body from in front or behind; `right` and `left` are the legs of the person drawn. */
export interface FrontPose {
  readonly pelvis: Point;
  /** Pelvis out of level in degrees; left out it stands square to the trunk. */
  readonly tilt?: number | undefined;
  /** Trunk to the right of the drawing from upright, in degrees; 90 lies on the side. */
  readonly trunk: number;
  readonly head?: number | undefined;
  /** Face turned, -1 to 1. */
  readonly gaze?: number | undefined;
  readonly right: FrontLeg;
  readonly left: FrontLeg;
  /** Where the hands are; left out they hang. */
  readonly rightHand?: Point | undefined;
  readonly leftHand?: Point | undefined;
  readonly eyesClosed?: boolean | undefined;
}

/** A place on the body something can be tied to; far is the other leg. */
export type Anchor = 'ball' | 'hand' | 'knee' | 'ankle' | 'far ball' | 'far ankle';

interface Arrow {
  readonly from: Point;
  readonly to: Point;
  readonly bend: number;
}

export type Prop =
  | { readonly kind: 'floor'; readonly from: number; readonly to: number }
  | { readonly kind: 'wall'; readonly x: number }
  | { readonly kind: 'step'; readonly from: number; readonly to: number; readonly height: number }
  | { readonly kind: 'chair'; readonly x: number; readonly height: number }
  | { readonly kind: 'worktop'; readonly x: number; readonly height: number }
  | { readonly kind: 'roll'; readonly at: Point; readonly radius: number }
  | { readonly kind: 'ball'; readonly at: Point; readonly radius: number }
  | { readonly kind: 'weight'; readonly at: Point | 'knee' | 'hand' }
  /** A folded cushion or pillow. */
  | { readonly kind: 'cushion'; readonly from: number; readonly to: number; readonly height: number }
  | { readonly kind: 'book'; readonly at: Point; readonly width: number; readonly height: number }
  | { readonly kind: 'coin'; readonly at: Point; readonly radius: number }
  | { readonly kind: 'marbles'; readonly at: readonly Point[]; readonly radius: number }
  | { readonly kind: 'bowl'; readonly at: Point; readonly width: number }
  | { readonly kind: 'spoon'; readonly at: Point; readonly lean: number }
  | { readonly kind: 'mirror'; readonly at: Point; readonly lean: number }
  /** A cloth under a foot seen from above, by its corners. */
  | { readonly kind: 'cloth'; readonly points: readonly Point[] }
  /** A rope through points. */
  | { readonly kind: 'rope'; readonly points: readonly Point[] }
  /** The path a part of the body draws in the air. */
  | { readonly kind: 'trace'; readonly points: readonly Point[] }
  /** Strips on the skin through points. */
  | { readonly kind: 'tape'; readonly points: readonly Point[] }
  /** Worn on the near foot. */
  | { readonly kind: 'spacer' | 'insole' | 'shoe' | 'splint' | 'pad' }
  /** A standing bike, its crank with the pedals where the feet are. */
  | { readonly kind: 'bike'; readonly crank: Point; readonly saddle: Point; readonly bar: Point }
  /** The surface of water stood in. */
  | { readonly kind: 'water'; readonly from: number; readonly to: number; readonly height: number }
  | { readonly kind: 'towel'; readonly from: number; readonly to: number }
  /** A hand laid on a foot seen from above or below, its fingers the way it leans. */
  | { readonly kind: 'hand'; readonly at: Point; readonly lean: number }
  /** A belt or band drawn between two points; what it ends at moves with the body when it is named. */
  | { readonly kind: 'strap'; readonly from: Point | Anchor; readonly to: Point | Anchor };

interface FigureCommon {
  readonly props: readonly Prop[];
  /** What moves, as a bent arrow in the drawing's own cm. */
  readonly arrow?: Arrow | undefined;
  /** More of them, where one does not tell it. */
  readonly arrows?: readonly Arrow[] | undefined;
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
  /** From above, its owner looking down, or the sole from below. */
  readonly view: 'top' | 'sole';
  /** The other foot beside it, heels this far apart in cm. */
  readonly beside?: number | undefined;
  readonly start: TopPose;
  readonly end: TopPose;
}

export interface FrontFigure extends FigureCommon {
  readonly view: 'front' | 'back';
  readonly start: FrontPose;
  readonly end: FrontPose;
}

/** An exercise drawn: from the start to the end and back. */
export type FigureDefinition = SideFigure | TopFigure | FrontFigure;
