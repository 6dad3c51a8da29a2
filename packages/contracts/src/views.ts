import type { ConsentKind } from './consent.js';
import type { AppointmentView } from './day.js';
import type { ClinicDefaults } from './defaults.js';
import type { Outcome } from './episode.js';
import type { TaughtView } from './library.js';
import type {
  Adjunct,
  Affected,
  CatchUp,
  ComposedExercise,
  Prescription,
  CriterionPart,
  ExerciseDefinition,
  FigureDefinition,
  HeldTags,
  HomeQuestion,
  Impact,
  JudgedSession,
  EarlyOn,
  LeftOut,
  MeasuredFact,
  Morning,
  PainSchool,
  PatientExercise,
  PatientPlan,
  PerSide,
  ProtocolDefinition,
  ReviewResult,
  SafetyState,
  Sex,
  Stage,
  StopSign,
  Tag,
  StageKey,
  DoneRun,
  UpkeepEnd,
} from '@heathstep/core';
import type { MorningPayload, SessionPayload, StopPayload } from './home.js';
import type { CountedRun } from './outing.js';
import type { VisitClosure } from './safety.js';

/** RFC 9457 problem details; `errors` points at fields. */
export interface Problem {
  readonly type: string;
  readonly title: string;
  readonly status: number;
  readonly detail?: string;
  readonly errors?: readonly { readonly pointer: string; readonly detail: string }[];
}

export interface ConflictProblem extends Problem {
  /** What stands on the server now. */
  readonly current?: unknown;
}

export interface SessionView {
  readonly user: {
    readonly id: string;
    readonly name: string;
    readonly role: 'lead' | 'clinician' | 'assistant';
    readonly initials: string;
    /** Number of the register they are in; stands under letters and signed visits. */
    readonly registration: string | null;
    /** Signing in asks for a code beside the password. */
    readonly secondStep: boolean;
    /** The clinic asks everyone for one and they have none: nothing else is open until they do. */
    readonly stepMissing: boolean;
    readonly email: string;
  };
  /** Tries with a wrong password since they last signed in; told once, at signing in. */
  readonly wrongTries?: number;
  readonly clinic: {
    readonly id: string;
    readonly name: string;
    readonly locale: string;
    readonly timeZone: string;
    readonly phone: string;
    readonly emergencyNumber: string;
    readonly defaults: ClinicDefaults;
  };
  /** Where the clinic's instruments speak on this machine; null when no service was started. */
  readonly devicesUrl: string | null;
}

/** A device that is signed in. */
export interface DeviceView {
  readonly id: string;
  readonly since: string;
  readonly until: string;
  /** What the browser says it is, as it came; empty where it says nothing. */
  readonly agent: string;
  /** The one that asks. */
  readonly here: boolean;
}

/** How and when the treatment of a complaint ended. */
export interface Ended {
  readonly at: string;
  /** Name of who closed it. */
  readonly by: string;
  readonly outcome: Outcome;
  readonly note: string;
}

/** A complaint of a person, as far as a list shows it. */
export interface EpisodeSummary {
  readonly id: string;
  readonly condition: string;
  readonly affected: Affected;
  readonly stage: StageKey | null;
  /** In the protocol version the episode is on; null before there is a stage. */
  readonly stageName: string | null;
  readonly startedAt: string;
  readonly status: 'open' | 'closed';
  /** Null while it is open. */
  readonly ended: Ended | null;
  /** Where it begins again when it comes back, and what the protocol says of that; null while it is open. */
  readonly again: { readonly stageName: string | null; readonly text: string } | null;
  readonly version: number;
}

/** How many people a list brings at once. */
export const PEOPLE_AT_ONCE = 200;

export interface PersonRow {
  readonly id: string;
  readonly name: string;
  readonly birthDate: string | null;
  readonly occupation: string;
  readonly sex: Sex | null;
  /** What they read in; null is English. */
  readonly language: string | null;
  readonly version: number;
  /** The newest first. */
  readonly episodes: readonly EpisodeSummary[];
}

export type PersonView = PersonRow;

export interface EntryView {
  readonly key: string;
  readonly version: number;
  readonly value: unknown;
  readonly at: string;
  readonly author: string;
}

/** A change to a signed visit: both values stay, with who changed it, when and why. */
export interface AmendmentView {
  readonly key: string;
  readonly before: unknown;
  readonly value: unknown;
  readonly reason: string;
  readonly at: string;
  readonly author: string;
}

/** Who else is writing in a visit, and what has been saved since. */
export interface PresenceView {
  readonly others: readonly { readonly name: string; readonly step: string }[];
  readonly entries: readonly EntryView[];
  readonly newest: number;
  readonly signed: boolean;
}

export interface VisitView {
  readonly id: string;
  readonly episodeId: string;
  readonly kind: 'first' | 'review';
  readonly number: number;
  readonly startedAt: string;
  /** It came from a table: what was measured before the first visit here, and nothing else. */
  readonly imported?: boolean;
  readonly signedAt: string | null;
  readonly signedBy: string | null;
  /** Number in the register of who signed; left out or null where it is not known. */
  readonly registration?: string | null;
  readonly entries: readonly EntryView[];
  readonly amendments: readonly AmendmentView[];
}

export interface StageSpan {
  readonly stage: StageKey;
  readonly since: string;
  readonly reason: string;
}

export interface PlanView {
  readonly id: string;
  readonly episodeId: string;
  readonly number: number;
  readonly stage: StageKey;
  /** That stage as it stood when the plan was made. */
  readonly madeOf: Stage;
  readonly status: 'draft' | 'given';
  readonly version: number;
  readonly items: readonly ComposedExercise[];
  readonly left: readonly LeftOut[];
  readonly contentVersion: string;
  readonly givenAt: string | null;
  readonly givenBy: string | null;
}

/** Another open complaint of the same person: what it blocks counts here too. */
export interface ComplaintView {
  readonly episodeId: string;
  readonly condition: string;
  readonly affected: Affected;
  /** Name of its stage; null before there is one. */
  readonly stageName: string | null;
  /** Open signs of it that let nothing be given here either, in words. */
  readonly blocks: readonly string[];
  /** Grades of stop signs reported at home for it that are still open. */
  readonly openGrades: readonly string[];
  /** Every stop sign ever reported for it. */
  readonly stopIds: readonly string[];
  /** What was given for it and still stands; null where nothing was. */
  readonly plan: PatientPlan | null;
}

export interface EpisodeView {
  readonly id: string;
  readonly person: {
    readonly id: string;
    readonly name: string;
    readonly birthDate: string | null;
    readonly ageYears: number | null;
    readonly occupation: string;
    readonly sex: Sex | null;
    readonly language: string | null;
    readonly version: number;
  };
  readonly condition: string;
  readonly protocol: string;
  readonly affected: Affected;
  readonly schools: Readonly<Record<string, string>>;
  readonly equipment: readonly string[];
  readonly weightsKg: readonly number[];
  readonly minutesPerDay: number;
  /** When of the day the person exercises, `HH:MM`; null is the usual time. */
  readonly exerciseTime: string | null;
  readonly stage: StageKey | null;
  readonly stages: readonly StageSpan[];
  readonly startedAt: string;
  readonly status: string;
  /** Null while it is open. */
  readonly ended: Ended | null;
  /** When it came back after it was closed; null where it never did. What was given before that counts no more. */
  readonly cameBackAt: string | null;
  readonly version: number;
  readonly today: string;
  /** The clinic's; days of visits and stages are days there. */
  readonly timeZone: string;
  /** What tables brought from before the first visit: shown, and judged by nothing. */
  readonly earlier: readonly VisitView[];
  /** What the person said no to and has not said yes to since. */
  readonly refuses: readonly ConsentKind[];
  readonly bodyMassKg: number | null;
  readonly visits: readonly VisitView[];
  readonly closures: readonly (VisitClosure & { readonly at: string; readonly by: string })[];
  readonly safety: SafetyState | null;
  /** Tags off on each side, by safety and by what it is thought to be. */
  readonly tagsOff: PerSide<readonly Tag[]>;
  /** What may be done only with someone beside, by every open complaint of the person. */
  readonly supervised: PerSide<readonly Tag[]>;
  /** What the ideas in view hold back, and why. */
  readonly held: readonly HeldTags[];
  readonly openStops: readonly {
    readonly id: string;
    readonly day: string;
    readonly grade: string;
    readonly sign: string;
  }[];
  /** Other open complaints of this person. */
  readonly elsewhere: readonly ComplaintView[];
  /** Why what was given is held back now: open signs, here or in another complaint. */
  readonly heldBack: readonly string[];
  /** Why nothing can be prescribed now, answers still missing included; empty when something can. */
  readonly notPrescribed: readonly string[];
  readonly plan: PlanView | null;
  readonly draft: PlanView | null;
  /** Exercises taught in the room, the first first. */
  readonly taught: readonly TaughtView[];
  readonly homeLink: {
    readonly createdAt: string;
    readonly locked: boolean;
    readonly expiresAt: string;
  } | null;
}

export interface DecisionView {
  readonly id: string;
  readonly at: string;
  readonly by: string;
  readonly suggested: string;
  readonly decision: string;
  readonly agreed: boolean;
  readonly reason: string;
  readonly because: readonly string[];
}

export interface CourseView {
  readonly episode: EpisodeView;
  /** In the version the episode is on. */
  readonly protocol: ProtocolDefinition;
  readonly measures: readonly MeasuredFact[];
  readonly sessions: readonly (JudgedSession & Impact & { readonly tensionMinutes: number })[];
  /** Days a week that the plan asks for, and on how many of each week since it was given something was done, oldest first. */
  readonly done: { readonly planned: number | null; readonly weeks: readonly number[] };
  readonly mornings: readonly Morning[];
  /** The pain rule that holds now. */
  readonly painSchool: PainSchool;
  /** Runs and walks that were recorded. */
  readonly recorded: readonly CountedRun[];
  readonly criteria: readonly CriterionPart[];
  readonly review: ReviewResult | null;
  /** When the next review is due: so many days after the last visit, by the stage; null without a plan. */
  readonly nextReview: { readonly due: string; readonly everyDays: number } | null;
  /** How upkeep stands toward its end; null in any other stage. */
  readonly upkeep: UpkeepEnd | null;
  /** What the plan drafted by the suggestion would have otherwise than the patient's; null where it drafts none. */
  readonly drafted: Drafted | null;
  readonly decisions: readonly DecisionView[];
  readonly plans: readonly PlanView[];
  /** What was found on a treated side that a plan works on. */
  readonly drivers: readonly { readonly key: string; readonly label: string; readonly because: string }[];
  /** Exercises that ask for more than was measured, by side. */
  readonly tooEarly: readonly EarlyOn[];
  /** Load actually done in the last 7 days, by tissue of the protocol and exercise, on the treated side. */
  readonly loadDone: readonly { readonly tissue: string; readonly exercise: string; readonly load: number }[];
  /** Landings on a foot and minutes of running of the last 7 days, as logged and as recorded. */
  readonly impactDone: Impact;
  /** Runs logged or recorded in the last 30 days. */
  readonly runsDone: readonly DoneRun[];
  readonly loggedDays: number;
}

/** What a plan drafted by a decision would have otherwise than the one before, exercise by exercise with its dose. */
export interface Drafted {
  readonly come: readonly { readonly name: string; readonly dose: string }[];
  readonly gone: readonly { readonly name: string }[];
  readonly otherwise: readonly { readonly name: string; readonly dose: string; readonly before: string }[];
}

/** What a draft filled anew under other choices would have and not have any more, by exercise. */
export interface PlanIf {
  readonly come: readonly string[];
  readonly gone: readonly string[];
  /** With another dose. */
  readonly otherwise: readonly string[];
}

export interface DayItem {
  readonly personId: string;
  readonly episodeId: string | null;
  readonly name: string;
  /** `unplanned`: measured and signed, and no protocol to plan by. `steady` is only ever said of a plan that is followed. */
  readonly kind:
    | 'stop'
    | 'blocked'
    | 'refer'
    | 'flare'
    | 'ready'
    | 'look-again'
    | 'upkeep-over'
    | 'review-due'
    | 'slipping'
    | 'asked'
    | 'silent'
    | 'new'
    | 'unplanned'
    | 'steady';
  /** What is treated and where; null while nothing is recorded. */
  readonly complaint: { readonly condition: string; readonly affected: Affected } | null;
  readonly headline: string;
  readonly detail: string;
  /** How much of it, of the same kind: red sessions running, days without a log, days past the review; 0 where it is not counted. */
  readonly weight: number;
  readonly stageName: string | null;
  /** Where in how many stages, and the pain of the last mornings; null before there is a stage. */
  readonly line: { readonly stage: number; readonly stages: number; readonly pain: readonly number[] } | null;
  /** When they were last seen or last logged, whichever is later; null where neither was. */
  readonly lastContact: { readonly day: string; readonly by: 'visit' | 'log' } | null;
  /** What a criterion of the stage wants that is not known, and which exercises of the plan nobody has taught. */
  readonly toMeasure: readonly string[];
  readonly toTeach: readonly string[];
  /** The oldest question from home that waits for an answer; null where none does. */
  readonly asked: { readonly day: string; readonly text: string } | null;
  /** Until when someone set it aside, and why; null where nobody did, or it has changed since. */
  readonly aside: {
    readonly id: string;
    readonly until: string;
    readonly reason: string;
    readonly by: string;
  } | null;
}

export interface DayView {
  readonly today: string;
  readonly items: readonly DayItem[];
  /** People who are not worked out yet: nothing can be said of them until the day is asked for again. */
  readonly pending: number;
  /** The visits planned for today, by time. */
  readonly appointments: readonly AppointmentView[];
}

export interface HomeEntryView {
  readonly id: string;
  readonly version: number;
  readonly kind: 'session' | 'morning' | 'stop';
  readonly day: string;
  /** The plan version it was done by; null for one from before there was a plan. */
  readonly planId: string | null;
  readonly payload: SessionPayload | MorningPayload | StopPayload;
  readonly at: string;
}

export interface HomeView {
  /** The complaints of the person whose link is open, this one among them. */
  readonly complaints: readonly { readonly episodeId: string; readonly name: string }[];
  /** Stop signs of all its complaints that the clinic knows of; another one on the phone locks it. */
  readonly knownStops: readonly string[];
  /** What waits on a phone is kept and sent under the episode it was logged for. */
  readonly episodeId: string;
  readonly firstName: string;
  /** What all of this is in, and the page is read in; null is English. */
  readonly language: string | null;
  readonly clinic: {
    readonly name: string;
    readonly phone: string;
    readonly emergencyNumber: string;
    /** What the clinic says beside its telephone and beside the emergency number. */
    readonly contact?: string;
    readonly emergency?: string;
  };
  readonly today: string;
  /** Set when nothing may be done until the clinic has spoken with the patient. */
  readonly stopped: string | null;
  readonly purpose: string;
  /** What must hold for the next stage, as the patient reads it. */
  readonly goesOnWhen: readonly string[];
  readonly affected: Affected;
  /** What is asked in this stage. */
  readonly questions: readonly HomeQuestion[];
  /** The version the items are of; it goes with what is logged. */
  readonly planId: string | null;
  /** What the patient can report, the most serious first. */
  readonly stopSigns: readonly {
    readonly grade: StopSign;
    /** As it is reported to the clinic. */
    readonly text: string;
    /** As the patient reads it. */
    readonly shown: string;
  }[];
  /** How pain is judged now. */
  readonly painSchool: PainSchool;
  readonly items: readonly {
    readonly prescription: Prescription;
    readonly exercise: ExerciseDefinition;
    /** Left out in a view kept on the phone from before there were figures. */
    readonly figure?: FigureDefinition | null;
    /** Faults seen when it was taught; their fixes come first. */
    readonly cues?: readonly string[];
  }[];
  /** The same exercises in words, with the minutes of a day. */
  readonly plan: readonly PatientExercise[];
  readonly beside: readonly Adjunct[];
  /** Missed in the last days and good to do today; left out in a view kept on the phone from before there was such a thing. */
  readonly catchUp?: readonly CatchUp[];
  readonly entries: readonly HomeEntryView[];
  readonly mornings: readonly Morning[];
}
