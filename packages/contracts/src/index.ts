import 'reflect-metadata';

export { PersonBody, PersonPatch } from './person.js';
export {
  type ChangeSpread,
  type DecisionsOf,
  FEWEST_PEOPLE,
  MATTERS,
  type OutcomePerson,
  type OutcomesView,
  type ProtocolOutcomes,
  type Quartiles,
  type Spread,
} from './outcomes.js';
export {
  AnswerBody,
  LONGEST_QUESTION,
  MOST_OPEN_QUESTIONS,
  QuestionBody,
  type QuestionView,
} from './question.js';
export {
  APPOINTMENT_STATES,
  AppointmentBody,
  AppointmentPatch,
  type AppointmentState,
  type AppointmentView,
  AsideBody,
  LONGEST_ASIDE_DAYS,
  MAY_BE_SET_ASIDE,
} from './day.js';
export {
  AUDIT_ACTION_WORDS,
  AUDIT_KIND_WORDS,
  type AuditAction,
  AUDIT_KINDS,
  type AuditKind,
  type AuditLine,
  AuditQuery,
  type AuditSealsView,
  type AuditView,
} from './audit.js';
export { AccountPatch, ByPasswordBody, FirstCodeBody, SignInBody } from './session.js';
export {
  AccountLinkBody,
  type AccountLinkFor,
  type AccountLinkView,
  ChosenPasswordBody,
  ClinicBody,
  MemberBody,
  MemberPatch,
  type MemberView,
  NewClinicBody,
  OwnPasswordBody,
  type RecoveryCodesView,
  type SecondStepView,
  ROLE_MEANS,
  ROLE_WORDS,
  ROLES,
  type StaffRole,
} from './staff.js';
export {
  EpisodeBody,
  EpisodePatch,
  type Outcome,
  OUTCOME_WORDS,
  OUTCOMES,
  type Reopened,
  REOPENED,
} from './episode.js';
export {
  EVENT_KINDS,
  EVENT_WORDS,
  EventBody,
  type EventKind,
  type EventView,
  MOST_EVENTS,
} from './courseEvent.js';
export {
  CAPTURE_LIMITS,
  CAPTURE_WEARING,
  CAPTURE_WEARING_WORDS,
  CaptureQuery,
  labEntry,
  labEntryKey,
  type LabMeasure,
  labMeasures,
  type CaptureView,
  type CaptureWearing,
} from './lab.js';
export { type Retest, retestsOf } from './retests.js';
export {
  CONSENT_KINDS,
  CONSENT_MEANS,
  CONSENT_WAY_WORDS,
  CONSENT_WAYS,
  CONSENT_WORDS,
  ConsentBody,
  type ConsentKind,
  type ConsentsView,
  type ConsentView,
  type ConsentWay,
  standingConsent,
} from './consent.js';
export {
  MOST_PASSKEYS,
  PasskeyBody,
  type PasskeyChallenge,
  PasskeyOptionsBody,
  PasskeySignInBody,
  type PasskeyView,
} from './passkey.js';
export { MergeBody, type MergeView } from './merge.js';
export {
  type ClinicDefaults,
  ClinicDefaultsBody,
  LEAST_PAIN_SCHOOLS,
  LEAST_PAIN_WORDS,
  type LeastPainSchool,
  LOCK_MINUTES,
  type LockMinutes,
  UNDECIDED,
} from './defaults.js';
export {
  composeLetter,
  isLetterContent,
  isLetterText,
  LETTER_WAY_WORDS,
  LETTER_WAYS,
  LetterBody,
  type LetterPageView,
  LetterSentBody,
  LetterStartBody,
  LetterTemplateBody,
  type LetterTemplateView,
  type LetterText,
  type LetterView,
  type LettersOpen,
  type LettersView,
  type LetterWay,
  MOST_LETTER_DRAFTS,
} from './letters.js';
export { type CountedRun, type OutingsView, type OutingView, TRACK_BYTES } from './outing.js';
export { type LetterChart, type LetterContent, type LetterRow } from './discharge.js';
export { ClosureBody, EntriesBody, EntryBody, VisitBody } from './visit.js';
export { DoseTempo, GivePlanBody, PlanBody, PlanDraftBody, PlanIfBody, PlanItem } from './plan.js';
export { DecisionBody, DECISIONS, DecidedOn } from './decision.js';
export {
  HomeEntryBody,
  HomeOpenBody,
  type MorningPayload,
  type SessionPayload,
  type StopPayload,
} from './home.js';
export { ENTRY_LIMITS } from './entries/checks.js';
export {
  entriesOfKind,
  entryProblem,
  entryWords,
  LASTING,
  readKey,
  standsFor,
  STORY_NEEDS,
} from './entries/registry.js';
export {
  type Activity,
  asEntries,
  type ConcludedIdea,
  type Entries,
  type EntryKey,
  type EntryValue,
  type MeasureEntry,
} from './entries/values.js';
export { contentProblem, type NamedContent } from './entries/inContent.js';
export type {
  AmendmentView,
  ConflictProblem,
  CourseView,
  DayItem,
  DayView,
  DeviceView,
  DecisionView,
  EntryView,
  ComplaintView,
  Ended,
  EpisodeSummary,
  EpisodeView,
  HomeEntryView,
  HomeView,
  PersonRow,
  PersonView,
  Drafted,
  PlanIf,
  PlanView,
  PresenceView,
  Problem,
  SessionView,
  StageSpan,
  VisitView,
} from './views.js';
export { PEOPLE_AT_ONCE } from './views.js';
export { entriesOf, skillFacts, storyFacts } from './facts.js';
export {
  episodeSafety,
  safetyAt,
  type SafetyOn,
  screenedVisit,
  unexplainedTests,
  type VisitClosure,
} from './safety.js';
export {
  type ConfirmationState,
  type ConfirmationView,
  confirmationsOf,
  type ConfirmOn,
} from './confirmations.js';
export { newestEntries } from './record.js';
export {
  concludedIdeas,
  daysSinceOnset,
  isConcluded,
  rankOnEntries,
  reasonOnEntries,
  workedOnVisits,
  stateFacts,
} from './reasoning.js';
export { entryAt, entryValue, measuredFacts, readingsOf, takenOf, VisitReadings } from './measured.js';
export {
  type Bone,
  BONES,
  CALLUS_AREAS,
  NUMB_SITES,
  type NumbEntry,
  type NumbSite,
  POINT_STATES,
  POINTS,
  type PointsEntry,
  pointsReading,
  type PointState,
  type Pose,
  POSES,
  seenSign,
  sitesOf,
  type SupportPoint,
  type TenderEntry,
  type Toe,
  TOE_SHAPES,
  type ToeEntry,
  TOES,
  WEAR_AREAS,
} from './look.js';
export { ownMeasure, OwnMeasureBody, ownMeasureKey, ownMeasureProblems } from './ownMeasure.js';
export {
  PHOTO_LIMITS,
  PHOTO_TYPES,
  type PhotoView,
  PlacementBody,
  type PlacementView,
  PresenceBody,
} from './photo.js';
export { EQUIPMENT } from './episode.js';
export {
  BandBody,
  type BandView,
  type ExerciseVersionView,
  FavouriteBody,
  lastFaults,
  NoteBody,
  type NoteView,
  OwnExerciseBody,
  ownExerciseKey,
  type OwnExerciseView,
  ownRoutineKey,
  type OwnRoutineView,
  RetiredBody,
  RoutineBody,
  ReviewBody,
  TaughtBody,
  type TaughtView,
} from './library.js';
export { harmlessStops, reportedText, STOP_ENDS, stoppedText } from './stops.js';
export { homeLogOf, loggedWorkOf } from './homeLog.js';
export {
  MovePeopleBody,
  type PersonOnProtocol,
  ProtocolDraftBody,
  ProtocolPublishBody,
  type ProtocolRow,
  type ProtocolView,
  type PublishedProtocol,
} from './protocols.js';
export { readTexts, spokenContent } from './spokenContent.js';
export { clinicianTongueOf, type LanguageView, tongueOf } from './tongue.js';
export { type HandoutContent, type HandoutExercise, type HandoutPart, handoutText } from './handout.js';
export { DEEPEST, plain, plainValue, unkeepable } from './plainText.js';
export {
  type BroughtKind,
  type BroughtView,
  BUNDLE_BYTES,
  EraseBody,
  type ErasureView,
  type KeptUntilView,
  type KeptView,
  type PeopleImportView,
  type MeasurementImportView,
  MeasurementTableQuery,
  type MeasurementTableView,
  PeopleTableQuery,
  type PeopleTableView,
  ProgramBody,
  type ProgramMade,
  type ProgramView,
  TABLE_BYTES,
} from './exchange.js';
