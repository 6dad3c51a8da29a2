export { collector, type Collector, overview, type Overview, OVERVIEW_STEP_SECONDS, tee } from './collect.js';
export { type ReadEnd, recordingReader, type RecordingReader } from './reader.js';
export {
  type FrameSink,
  isMat,
  type LineProblem,
  type MatHeader,
  type MatRecording,
  type MotionHeader,
  type MotionRecording,
  PER_KPA,
  type Recording,
  RECORDING_LIMITS,
  type RecordingHeader,
  type RecordingKind,
} from './recording.js';
export { csvLines, jsonLines } from './write.js';
export { liveReader, type LiveLine } from './live.js';
export { newtonPerUnit } from './collect.js';
