export {
  ContentProblem,
  type ContentBundle,
  type ContentCounts,
  type Ladder,
  type Pathway,
  type LookPanel,
} from './bundle.js';
export { loadContent, loadContentFrom, type LoadResult } from './load.js';
export { contentReport, type ContentReport } from './report.js';
