export {
  ContentProblem,
  type ContentBundle,
  type ContentCounts,
  type Ladder,
  type Language,
  type Pathway,
  type StandIn,
  type StopSignText,
  type LookPanel,
} from './bundle.js';
export type { ForeignCode, ForeignCodes } from './codes.js';
export { checkExerciseFile, type ExerciseFile, OWN_LADDER, writeExercise } from './exerciseFile.js';
export type { WrittenExercise } from './expandExercise.js';
export { buildContent, loadContent, loadContentFrom, type LoadResult } from './load.js';
export { contentReport, type ContentReport } from './report.js';
export { checkProtocolFile, type CheckedProtocol, ownProtocolKey } from './protocolFile.js';
export { familyProblems, loadFamilies } from './families.js';
