/** Made-up people, and what the rules make of them. Apart from the rest: no page needs it. */
export {
  drawPerson,
  type Draw,
  type PersonFamily,
  type PersonKind,
  type SimulatedPerson,
  type Twist,
} from './family.js';
export {
  simulateEpisode,
  type SimulatedCourse,
  type SimulatedEpisode,
  type SimulatedReview,
} from './episode.js';
export { StagePlans, type SimulatedLibrary } from './plans.js';
export type { Policy } from './policy.js';
export { addTallies, type Tally, tallyOf } from './tally.js';
export { type Calibration, calibrationOf } from './calibrate.js';
