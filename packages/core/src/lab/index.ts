/** Recordings of mats and motion pairs, and what is worked out from them. Apart from the rest: only the lab needs it. */
export { MAT_MISTAKES, MOTION_MISTAKES } from '../simulate/mistakes.js';
export * from '../recording/exports.js';
export { LAB_TASKS, LAB_TASK_WORDS, type LabTask } from './task.js';
export { lowPass } from './filter.js';
export type { Quantities, QualityNote, Quantity } from './report.js';
export { analyseMat, type MatQuestion, type MatReport } from '../mat/analyse.js';
export { type FootOnMat, type Region, REGIONS } from '../mat/foot.js';
export { centreIn, type FootLoads, partAt, partOver } from '../mat/loads.js';
export type { Rise } from '../mat/standing.js';
export { analyseMotion, MOTION_TASKS, type MotionQuestion, type MotionReport } from '../motion/analyse.js';
export { type Ensemble, WAVE_POINTS } from '../motion/wave.js';
export {
  beginCapture,
  breakCapture,
  CAPTURE_PLANS,
  captureLoad,
  type CapturePhase,
  type CaptureSession,
  endCapture,
  secondsLeft,
  SILENT_SECONDS,
} from './session.js';
export { lightness, pressureColour, type Rgb, scaleTop } from './colour.js';
export { plainWords } from './plain.js';
export { footView, type FootView, seen } from '../mat/picture.js';
export { meanBetween, mostBetween } from '../mat/image.js';
export { readTurning, type Turning, TURNING_LIMITS } from './turning.js';
