export * from './record/exports.js';
export * from './quantity/exports.js';
export { type Issue, type Result, issue, ok, orThrow, refused, RefusedInput } from './result/result.js';
export { type Evidence, type EvidenceKind } from './why/evidence.js';
export { type Why } from './why/why.js';
export {
  whyChange,
  whyCriterion,
  whyDose,
  whyIrritability,
  whyLoad,
  whyMinutes,
  whyReview,
  whySafety,
  whySession,
  whySides,
  whyStage,
  whyComputed,
  whyThreshold,
  whyTrials,
} from './why/explain.js';
export {
  BODY_MASS,
  type Combine,
  type Comparison,
  type Direction,
  type ComputedRule,
  type DeviceKind,
  type LabSource,
  type MeasureDefinition,
  type MeasureStep,
  type MeasureTool,
  type Range,
  type ScoredItem,
  type SideFlag,
  type Threshold,
} from './measure/definition.js';
export { combineTrials, type TrialsResult } from './measure/trials.js';
export { type ChangeClass, type ChangeResult, compareValues, isImportant } from './measure/compare.js';
export { compareSides, type SymmetryResult } from './measure/symmetry.js';
export { unitAfter, withUnit } from './measure/withUnit.js';
export { mdcBetween, semAt } from './measure/error.js';
export { computeMeasure, type Computed, type ComputeInputs } from './measure/computed.js';
export { medianFor, type NormRange, type Sex } from './measure/norms.js';
export { areLike, type Taken, takenHow, unlikeness } from './measure/like.js';
export { readThreshold, type ThresholdReading, usualAtAge } from './measure/thresholds.js';
export {
  parseQuick,
  printQuick,
  type QuickItem,
  type QuickProblem,
  type QuickResult,
} from './quick/grammar.js';
export { type Completion, completeQuick } from './quick/complete.js';
export {
  type Frame,
  type HelloFrame,
  parseFrame,
  type SampleFrame,
  type SignalKind,
} from './signal/frames.js';
export {
  captureCut,
  captureFrame,
  type CapturedValue,
  type CaptureState,
  captureTick,
  type CaptureWarning,
  captureZero,
  START as CAPTURE_START,
} from './signal/capture.js';
export { forceOf, type ForceResult, torqueOf } from './signal/force.js';
export {
  type Landmarks,
  PHOTO_CONSTRUCTIONS,
  type PhotoConstruction,
  type PhotoResult,
  photoValue,
  type Point,
  raterError,
} from './signal/photo.js';
export {
  DEVICE_MISTAKES,
  type DeviceMistake,
  type DeviceScript,
  simulateDevice,
  type SimulatedDevice,
} from './simulate/device.js';
export { type FootRisk } from './screen/footRisk.js';
export {
  shownLevels,
  SKILL_LEVELS,
  type SkillDefinition,
  type SkillLevel,
  type SkillLevels,
} from './protocol/skill.js';
export { referralLetter, type LetterInput } from './screen/letter.js';
export { guardReading, type GuardResult, outsideAllowed, isWhole } from './measure/guard.js';
export { estimateLungeAngle, type LungeEstimate, type LungeEstimateInput } from './measure/lungeEstimate.js';
export {
  computeDose,
  type DoseInput,
  type DoseResult,
  type DoseSides,
  type Tempo,
  type TimelineSet,
} from './dose/dose.js';
export { type Band, BAND_STRETCHES, bandForce, type BandPoint, BANDS, calibration } from './dose/band.js';
export { type DoneRun, RUN_DAYS, RUN_RISE_PERCENT, runRise, type RunRise } from './dose/longestRun.js';
export { addImpact, type Impact, impactOf, type ImpactRise, impactRise, NO_IMPACT } from './dose/impact.js';
export { type LoadInput, relativeLoad } from './dose/load.js';
export { type ExerciseLoad, type LoadRise, loadRise } from './dose/loadRise.js';
export {
  type Aim,
  type Change,
  CHANGES,
  COUNTED,
  type Counted,
  EXERCISE_PARTS,
  type ExercisePart,
  type DoseRanges,
  type ExerciseDefinition,
  type ExerciseDose,
  LOAD_KINDS,
  type LoadKind,
  type Span,
  type Tag,
  TAGS,
  type Variant,
  mainPosition,
} from './exercise/definition.js';
export { circular, type Rise, risesOf, rungsOf, unreachable } from './exercise/ladder.js';
export {
  type Adjunct,
  ageProblem,
  type Confirmation,
  type ProtocolDefinition,
  relapseStage,
  type School,
  type Slot,
  type Stage,
  type StageKey,
  stageKey,
  stageOf,
} from './protocol/definition.js';
export { type ProtocolFile, writeProtocol } from './protocol/write.js';
export { lostStage, NO_PROTOCOL } from './protocol/none.js';
export {
  type ClosingWay,
  type ExaminedPart,
  type FootRiskSign,
  SAFETY_ANSWERS,
  type SafetyAnswer,
  type SafetyLevel,
  type SafetyQuestion,
  type SafetyRule,
  type Trigger,
} from './screen/definition.js';
export {
  canOverride,
  limitsStand,
  type Closure,
  blocksOn,
  endsProtocol,
  evaluateSafety,
  exercisesLeft,
  type SafetyActs,
  type SafetyInput,
  type SafetyState,
  signText,
  type TriggeredRule,
} from './screen/safety.js';
export { SEEN_SIGNS, TENDER_BONES, type TenderBone, tenderSign } from './screen/seen.js';
export { type SafetyAnswers, type SafetyFindings } from './screen/trigger.js';
export { allowable, type Limits, offUnder, WEIGHT_BEARING, type WeightBearing } from './screen/limits.js';
export { type StoryFacts } from './reason/story.js';
export { type Irritability, type IrritabilityResult, judgeIrritability } from './reason/irritability.js';
export { type StartingStage, type StartingState, startingStage } from './reason/startingStage.js';
export { whyAcuity, whyDriver, whyNext, whyRank, whyReferral } from './why/reasoning.js';
export { type Driver } from './reason/drivers.js';
export {
  BODY_PARTS,
  type BodyPart,
  type ConditionDefinition,
  type DriverDefinition,
  type FindingDefinition,
  type FindingFrom,
  type Grade,
  type Ratio,
  type ReasonContent,
  type Sign,
  type TestPicture,
} from './reason/definition.js';
export { type Acuity, type AcuityResult, judgeAcuity } from './reason/acuity.js';
export { FINDING_STATES, type FindingState, type Known, type KnownFinding } from './reason/known.js';
export { type NextBest, type OpenSign, type WouldDo } from './reason/next.js';
export { GRADES, type Push, type Rank, RANK_LIMITS, type RankedCondition } from './reason/rank.js';
export { type HeldTags, heldTags, type Verdict, withHeld } from './reason/held.js';
export { type ReferralReason } from './reason/referral.js';
export { type Column, type SignReading, type SignSource } from './reason/sign.js';
export {
  type FindingAnswer,
  type FindingsContent,
  type FindingsInput,
  type ReasonedFindings,
  reasonFromFindings,
} from './reason/fromFindings.js';
export {
  answerOn,
  openSigns,
  safetyAnswersOf,
  type ScreenContent,
  type ScreenInput,
  type ScreenRecord,
  screenRecord,
} from './reason/screenRecord.js';
export {
  emptyRecord,
  rankOnly,
  reasonAbout,
  type ReasonInput,
  type Reasoning,
  type Worked,
  workedOn,
} from './reason/reason.js';
export {
  judgePain,
  morningBaseline,
  PAIN_SCHOOLS_BY_STRICTNESS,
  acheMeans,
  restsToday,
  stricterSchool,
  type PainInput,
  type PainResult,
  type PainSchool,
  type PainState,
  type StopSign,
} from './progress/painRule.js';
export {
  adherencePercent,
  doneByWeek,
  currentRuns,
  type JudgedSession,
  judgeSessions,
  type LoggedSession,
  type Morning,
  redsWithin,
  type Runs,
} from './progress/sessions.js';
export { type FlareSince, type Since, sinceVisit } from './progress/since.js';
export {
  type CriteriaResult,
  type Criterion,
  type CriterionLeaf,
  type CriterionPart,
  type ImpactDay,
  type CriterionState,
  type Facts,
  type MeasuredFact,
  type PainWhen,
  type SessionFact,
} from './progress/criteriaTypes.js';
export { evaluateCriteria, type MeasureLookup } from './progress/criteria.js';
export {
  bodyShareKg,
  DAYS_AT_LEVEL,
  type DoneSession,
  type DoseStep,
  doubleProgression,
  easeDose,
  isEased,
  LOAD_STEP_PERCENT,
  minDaysAtLevel,
  type ProgressionOn,
  rangeTrend,
  type RangeTrend,
} from './progress/titration.js';
export { doseSteps, type DoseStepsOn, type ExerciseStep, readySteps } from './progress/doseSteps.js';
export { homeFacts, type HomeFacts, type HomeLog, type LoggedScores } from './progress/homeFacts.js';
export {
  type DoneWork,
  type GivenPlan,
  impactByDay,
  impactOfDone,
  runsDone,
  type LoadOn,
  loadOfWork,
  type LoggedExercise,
  type LoggedWork,
  tensionMinutes,
  workByDay,
  weekLoadOn,
  workDone,
  lastWholeDay,
  workWithin,
} from './progress/work.js';
export {
  answerProblem,
  askedIn,
  type HomeAnswer,
  type HomeMoment,
  type HomeQuestion,
  homeQuestions,
  questionsByKey,
  type HomeRole,
  type HomeScores,
} from './protocol/homeQuestions.js';
export {
  type Prescription,
  variantOf,
  prescriptionProblems,
  SHORTEST_REASON,
  sidesFor,
  toDoseInput,
  DAY_PARTS,
  type DayPart,
  mayHavePart,
} from './plan/prescription.js';
export {
  doseFieldValue,
  doseSentence,
  type DoseField,
  type SentencePart,
  sentenceText,
  withDoseField,
} from './plan/sentence.js';
export {
  completeProtocol,
  completeStage,
  type WrittenProtocol,
  type WrittenStage,
} from './protocol/complete.js';
export { isStrenuous, tooEarlyToday } from './reason/tooEarlyToday.js';
export { type Brings, whatMoreBrings } from './plan/more.js';
export { PAIN_ALL_RIGHT, signsText } from './plan/patientWords.js';
export { drawingMarkup, figureSvg, PAPER_COLOURS, shownSide } from './figure/markup.js';
export {
  arrangeWeek,
  type Sitting,
  sittingsOf,
  type WeekConflict,
  weekConflicts,
  type WeekItem,
} from './plan/week.js';
export { composePlan, type ComposedExercise, type ComposedPlan, type ComposeInput } from './plan/compose.js';
export { keepGivable, planProblems } from './plan/check.js';
export { doseRange, withBeyond } from './plan/doseRange.js';
export {
  followRound,
  isDoneAlone,
  type InRound,
  joinNext,
  MOST_ROUNDS,
  partNext,
  roundSentence,
  stretches,
  tidyRounds,
} from './plan/rounds.js';
export {
  fillRoutine,
  isOfRoutine,
  type RoutineDefinition,
  routineDays,
  type RoutineItem,
  routineItems,
} from './plan/routine.js';
export { type InTurn, soonAgain, turnTimeline, type TurnSet } from './plan/roundTimeline.js';
export { prescribe, type PrescribeOn, withinRange } from './plan/prescribe.js';
export { type EarlyOn, tooEarlyEach, tooEarlyOn } from './plan/ability.js';
export {
  heldBack,
  NOTHING_SAID,
  type LeftOut,
  onlySupervised,
  type SafetyNow,
  switchedOff,
} from './plan/safety.js';
export { applyStep, type StepOn, stepRung } from './plan/step.js';
export { prescriptionTime, type PrescriptionTime } from './plan/timing.js';
export {
  ASSUMED_MASS_KG,
  loadOfOne,
  prescriptionTotals,
  runMinutesOfOne,
  type PrescriptionTotals,
  weekLoadOf,
} from './plan/totals.js';
export type { TissueDefinition } from './exercise/tissue.js';
export { type CatchUp, catchUps, type CatchUpOn } from './plan/catchUp.js';
export {
  repetitionMaximum,
  type RepetitionMaximum,
  type RepetitionMaximumInput,
} from './dose/repetitionMaximum.js';
export {
  type Busy,
  momentAt,
  betterTime,
  displaced,
  type Schedule,
  schedule,
  type ScheduleConflict,
  type ScheduledSitting,
  type ScheduleInput,
  SITTING_TIMES,
  sittingTime,
} from './plan/schedule.js';
export { LEAST_SHARE, shareOfDay, type ShareOfDay } from './plan/shareOfDay.js';
export {
  dueDays,
  isDueOn,
  type Scheduled,
  secondsOn,
  type TimeOnDays,
  weekdayOf,
  withDayMoved,
  withDayToggled,
} from './plan/due.js';
export {
  besideOf,
  besideText,
  type PatientExercise,
  patientPlan,
  stepsOf,
  type PatientPlan,
  type PatientPlanInput,
} from './plan/patientPlan.js';
export * from './discharge/exports.js';
export * from './forecast/exports.js';
export * from './progress/exports.js';
export { whyForecast } from './why/forecast.js';
export { normal, seededRandom } from './simulate/random.js';
export { simulateHomeLog, type SimulatedDay, type SimulatedHome } from './simulate/homeLog.js';
export {
  type Build,
  BUILDS,
  drawFigure,
  drawnFor,
  type FigureProblem,
  figureProblems,
} from './figure/draw.js';
export { type Drawing, type Shape, type Tone } from './figure/shapes.js';
export { FRONT_LIMITS, solveFront } from './figure/front.js';
export { JOINT_LIMITS, jointAngles, TOP_LIMITS } from './figure/limits.js';
export {
  type Anchor,
  type FigureDefinition,
  type FrontFigure,
  type FrontLeg,
  type FrontPose,
  type LegPose,
  type Prop,
  type SideFigure,
  type SidePose,
  type TopFigure,
  type TopPose,
} from './figure/pose.js';
export { type LegJoints, type Skeleton, solvePose } from './figure/skeleton.js';
export { betweenFront, betweenSide, outAndBack } from './figure/tween.js';
export { exerciseIn, textsOfExercise } from './exercise/inTongue.js';
export {
  isWalkRun,
  WALK_RUN_STEPS,
  walkRunAt,
  walkRunMove,
  type WalkRunMove,
  type WalkRunStep,
} from './dose/walkRun.js';
export { type AdjunctSpan, adjunctSpans, type StageStretch, stageStretches } from './progress/courseDates.js';
export {
  impactOfPlans,
  type Planned,
  weekLimits,
  type WeekLimits,
  type WeekLimitsOn,
} from './plan/weekLimits.js';
export * from './letter/exports.js';
export * from './outing/exports.js';
export { criterionLeaves, measuresRead } from './progress/criteriaRead.js';
export { SINCE_WHAT } from './progress/criteriaTypes.js';
export { LAB_QUANTITIES } from './lab/quantities.js';
export { type LabTask, LAB_TASKS, LAB_TASK_WORDS } from './lab/task.js';
export type { RecordingKind } from './recording/recording.js';
