import 'reflect-metadata';

export { PersonBody, PersonPatch } from './person.js';
export { SignInBody } from './session.js';
export { EpisodeBody, EpisodePatch } from './episode.js';
export { ClosureBody, EntriesBody, EntryBody, VisitBody } from './visit.js';
export { DoseTempo, GivePlanBody, PlanBody, PlanDraftBody, PlanItem } from './plan.js';
export { DecisionBody, DECISIONS } from './decision.js';
export {
  HomeEntryBody,
  HomeOpenBody,
  type MorningPayload,
  type SessionPayload,
  type StopPayload,
} from './home.js';
export { ENTRY_LIMITS, entryProblem, type MeasureEntry, type SkillLevel } from './entryRules.js';
export type {
  ConflictProblem,
  CourseView,
  DayItem,
  DayView,
  DecisionView,
  EntryView,
  EpisodeView,
  HomeEntryView,
  HomeView,
  PersonRow,
  PersonView,
  PlanView,
  Problem,
  SessionView,
  StageSpan,
  VisitView,
} from './views.js';
export { type Entries, entriesOf, measuredFacts, safetyOf, skillFacts, storyFacts } from './facts.js';
export { EQUIPMENT } from './episode.js';
