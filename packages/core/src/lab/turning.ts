/** How a foot goes inward in a squat. */
export type Turning =
  /** The outer ball loses its load: the foot tips as a whole. */
  | 'tips'
  /** The heel turns and the outer ball stays: it turns within the foot. */
  | 'within'
  /** Neither heel nor outer ball move much. */
  | 'stays'
  /** The heel turns and part of the outer load goes: not to be told. */
  | 'unclear';

/** Convention: how far a heel must turn to count, degrees; how much of the outer load is lost, and kept, %. */
export const TURNING_LIMITS = { heelDeg: 4, lost: 30, kept: 60 } as const;

/**
 * Whether a foot tips as a whole or turns within itself: the heel against the floor from the motion pair, the outer ball from
 * the mat, of the same squat or of two of the same day.
 *
 * @param heelDeg inward turn of the heel against the floor, degrees
 * @param outerKept load of the outer ball at the bottom, % of standing
 */
export function readTurning(heelDeg: number, outerKept: number): Turning {
  if (outerKept < TURNING_LIMITS.lost) return 'tips';
  if (heelDeg < TURNING_LIMITS.heelDeg) return 'stays';
  return outerKept >= TURNING_LIMITS.kept ? 'within' : 'unclear';
}
