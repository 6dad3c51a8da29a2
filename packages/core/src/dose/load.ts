import { say } from '../quantity/tongue.js';
import { issue, ok, outsideRanges, refused, type Result } from '../result/result.js';

/** Lever of the forefoot and of the Achilles tendon about the ankle, as shares of foot length. */
const FOREFOOT_LEVER = 0.5;
const TENDON_LEVER = 0.19;

export interface LoadInput {
  readonly bodyMassKg: number;
  readonly addedKg: number;
  readonly legs: number;
  /** Foot to floor, 0 flat. */
  readonly footPitchDeg: number;
}

/**
 * Static estimate of the calf tendon's force in a heel raise, in body weights; to rank exercises by, never a safe limit.
 * share x (BW + added) / BW x (0.5 F cos p) / (0.19 F); the share is 0.5 on two legs and 1 on one.
 *
 * @example 70 kg, nothing added, flat: two legs 1.316, one leg 2.632
 */
export function relativeLoad(input: LoadInput): Result<{ readonly relativeLoad: number }> {
  const problems = outsideRanges(input, {
    bodyMassKg: [10, 350],
    addedKg: [0, 300],
    footPitchDeg: [0, 89],
  });
  if (input.legs !== 1 && input.legs !== 2) problems.push(issue('legs', input.legs, say('1 or 2')));
  if (problems.length > 0) return refused(...problems);
  const share = input.legs === 2 ? 0.5 : 1;
  const mass = (input.bodyMassKg + input.addedKg) / input.bodyMassKg;
  const lever = (FOREFOOT_LEVER * Math.cos((input.footPitchDeg * Math.PI) / 180)) / TENDON_LEVER;
  return ok({ relativeLoad: share * mass * lever });
}
