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
export { MAT_MISTAKES, MOTION_MISTAKES } from './mistakes.js';
export { type MatScript, simulateMat, type SimulatedMat } from './mat.js';
export { FOOT_FAULTS, type FootFault, type Walker, walkerOf } from './walker.js';
export { balanceTruth, type MatTruth, raiseTruth, squatTruth, stanceTruth, walkTruth } from './matTruth.js';
export { recordMat } from './recordMat.js';
export {
  type MotionScript,
  recordMotion,
  type SimulatedMotion,
  simulateMotion,
  waveTruth,
} from './motion.js';
export { type Agreement, captured, LAB_CASES, type LabCase, labAgreement } from './labStudy.js';
export { type LabScript, simulateLab } from './labDevice.js';
