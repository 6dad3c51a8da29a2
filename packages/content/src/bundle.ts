import type {
  ConditionDefinition,
  DriverDefinition,
  ExaminedPart,
  ExerciseDefinition,
  FigureDefinition,
  FindingDefinition,
  FootRiskSign,
  LetterTemplate,
  MeasureDefinition,
  ProtocolDefinition,
  RoutineDefinition,
  SafetyQuestion,
  SafetyRule,
  SkillDefinition,
  StopSign,
  TissueDefinition,
} from '@heathstep/core';
import type { ForeignCodes } from './codes.js';

export interface Ladder {
  readonly key: string;
  readonly name: string;
  readonly purpose: string;
  /** Its members stand side by side, none harder than another. */
  readonly set?: boolean;
}

export type LookPanel = 'pain' | 'points' | 'toes' | 'callus' | 'wear' | 'numb' | 'tender';

/** What a visit of one kind looks at and measures, and the protocol that follows; an episode is opened on one. */
export interface Pathway {
  readonly key: string;
  readonly name: string;
  readonly gloss: string;
  /** What clinicians call it: terms, abbreviations, eponyms. Searched with the name. */
  readonly also: readonly string[];
  /** The part of the body as a patient says it, for sentences: one, and both of them. */
  readonly place: { readonly one: string; readonly both: string };
  /** The measure the story asks for before the worst pain, the words it stands in, and what is set aside by it. */
  readonly storyAsks: { readonly measure: string; readonly words: string; readonly aside: string } | null;
  /** Skills looked at on a first visit. */
  readonly skills: readonly string[];
  /** Null while there is none; then the visit is taken and judged, and no plan is made. */
  readonly protocol: string | null;
  /** Measures of a first visit, in the order of taking them. */
  readonly firstVisit: readonly string[];
  /** Parts of the body it concerns: what is to be felt, squeezed and measured there is asked. */
  readonly parts: readonly string[];
  /** Drawings to mark at a first visit. */
  readonly look: readonly LookPanel[];
}

/** A sign a patient can report at home, and what it means for the exercises. */
export interface StopSignText {
  readonly grade: StopSign;
  readonly text: string;
}

/** A thing of the household that can serve where the equipment is not there. */
export interface StandIn {
  readonly key: string;
  readonly name: string;
  /** The equipment it stands in for. */
  readonly serves: string;
  /** Typical weight from and to in kg, approximate; null where it is no weight. */
  readonly kg: readonly [from: number, to: number] | null;
  readonly note: string;
}

/** All clinical knowledge, checked and frozen. */
export interface ContentBundle {
  /** Changes whenever any content file changes. */
  readonly version: string;
  readonly measures: readonly MeasureDefinition[];
  readonly ladders: readonly Ladder[];
  readonly exercises: readonly ExerciseDefinition[];
  readonly pathways: readonly Pathway[];
  /** Parts of the body, in the order they are felt. */
  readonly bodyParts: readonly ExaminedPart[];
  readonly safetyQuestions: readonly SafetyQuestion[];
  readonly safetyRules: readonly SafetyRule[];
  readonly protocols: readonly ProtocolDefinition[];
  readonly findings: readonly FindingDefinition[];
  readonly conditions: readonly ConditionDefinition[];
  readonly drivers: readonly DriverDefinition[];
  readonly standIns: readonly StandIn[];
  readonly skills: readonly SkillDefinition[];
  readonly tissues: readonly TissueDefinition[];
  /** Ready short sets without stages. */
  readonly routines: readonly RoutineDefinition[];
  /** What a patient stops for at home, the most serious first. */
  readonly stopSigns: readonly StopSignText[];
  /** What else than an answer makes a factor of the foot risk class present. */
  readonly footRisk: readonly FootRiskSign[];
  /** The drawn figure of an exercise. */
  readonly figures: readonly (FigureDefinition & { readonly exercise: string })[];
  /** What letters begin with until a clinic writes them anew. */
  readonly letters: readonly LetterTemplate[];
  /** What patients can read in beside English. */
  readonly languages: readonly Language[];
  /** How others code it, for exchange. */
  readonly codes: ForeignCodes;
}

/** A language patients can choose: every text that is written in English, said in it. */
export interface Language {
  /** ISO 639-1. */
  readonly code: string;
  /** Its own name. */
  readonly name: string;
  /** For numbers and dates. */
  readonly locale: string;
  /** Whether what begins with a capital is written small within a sentence. */
  readonly smallWithin: boolean;
  /** Whether it says what clinicians read as well; else only what patients read. */
  readonly clinicians?: boolean;
  readonly texts: Readonly<Record<string, string>>;
}

export interface ContentCounts {
  readonly measures: number;
  readonly exercises: number;
  readonly ladders: number;
  readonly findings: number;
  readonly conditions: number;
  readonly drivers: number;
  readonly protocols: number;
  readonly safetyRules: number;
}

/** One thing wrong with the content: which file, where in it, and why. */
export class ContentProblem {
  constructor(
    readonly file: string,
    readonly path: string,
    readonly reason: string,
  ) {}

  toString(): string {
    return `${this.file}${this.path === '' ? '' : ` at ${this.path}`}: ${this.reason}`;
  }
}
