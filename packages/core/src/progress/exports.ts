export {
  type Decision,
  type Episode,
  notMetYet,
  REVIEW_RULES,
  reviewEpisode,
  type ReviewResult,
} from './review.js';
export { CRITERION_SCHEMA } from './criterionSchema.js';
export { LIMP } from './criteriaState.js';
export { criterionSentences, type SentenceOn } from './criterionSentence.js';
export { leafText, measureOf, type SayingOf } from './criterionText.js';
export { measuresIn } from './measuresIn.js';
