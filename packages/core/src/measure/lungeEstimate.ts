import { say } from '../quantity/tongue.js';
import { issue, ok, outsideRanges, refused, type Result } from '../result/result.js';

/** From the front of the knee to the shin line, in cm. */
const KNEE_TO_SHIN_CM = 5;
/** Share of the foot's length from the ankle axis to the toe tip. */
const ANKLE_TO_TOE = 0.75;
const DEGREES = 180 / Math.PI;

export interface LungeEstimateInput {
  readonly distanceCm: number;
  readonly footLengthCm: number;
  readonly shinLengthCm: number;
}

export interface LungeEstimate {
  /** Shin from vertical. */
  readonly angleDeg: number;
  /** Root sum of squares of the first-order effect of 1 cm in each length. */
  readonly plusMinusDeg: number;
}

/**
 * Estimates the shin angle of a toe-to-wall lunge by plane geometry: r = (d + 0.75 F - 5) / T, angle = asin r.
 * An estimate to look at, never a substitute for a measured angle and never mixed into its trend.
 * Refused when r is 0 or less, or 1 or more.
 *
 * @example estimateLungeAngle({ distanceCm: 8, footLengthCm: 26, shinLengthCm: 41 }) // 33.28 deg +- 2.28
 */
export function estimateLungeAngle(input: LungeEstimateInput): Result<LungeEstimate> {
  const problems = outsideRanges(input, {
    distanceCm: [0, 50],
    footLengthCm: [5, 50],
    shinLengthCm: [10, 80],
  });
  if (problems.length > 0) return refused(...problems);
  const { distanceCm, footLengthCm, shinLengthCm } = input;
  const r = (distanceCm + ANKLE_TO_TOE * footLengthCm - KNEE_TO_SHIN_CM) / shinLengthCm;
  if (r <= 0 || r >= 1) {
    return refused(issue('r', r, say('(distance + 0.75 foot - 5) / shin above 0 and below 1')));
  }
  const perCm = DEGREES / (shinLengthCm * Math.sqrt(1 - r * r));
  return ok({
    angleDeg: Math.asin(r) * DEGREES,
    plusMinusDeg: perCm * Math.hypot(1, ANKLE_TO_TOE, r),
  });
}
