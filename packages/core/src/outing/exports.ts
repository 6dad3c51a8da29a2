export {
  metresBetween,
  type OutingFigures,
  outingOf,
  RUN_METRES_PER_SECOND,
  type TrackPoint,
} from './outing.js';
export {
  countedRuns,
  impactDaysWith,
  impactWith,
  ranOn,
  type RecordedRise,
  type RecordedRun,
  riseOfRun,
  runsWith,
} from './ran.js';
