import { say } from '../quantity/tongue.js';
import type { Aim, ExerciseDose } from '../exercise/definition.js';
import type { Criterion } from '../progress/criteriaTypes.js';
import type { PainSchool } from '../progress/painRule.js';
import type { Evidence } from '../why/evidence.js';
import type { HomeQuestion } from './homeQuestions.js';

/** A place in a stage to be filled for this patient. */
export interface Slot {
  readonly key: string;
  readonly purpose: string;
  readonly aim: Aim;
  readonly ladder: string;
  /** Exercise to start from; the highest `rungs` entry whose criterion is met replaces it. */
  readonly start: string;
  /** The easiest exercise that still is what the slot is for; the first rung where left out. */
  readonly least?: string | undefined;
  readonly rungs?: readonly { readonly exercise: string; readonly when: Criterion }[] | undefined;
  /** 1 is filled first. */
  readonly priority: number;
  readonly sideRule: 'treated' | 'both';
  readonly dose?: Partial<ExerciseDose> | undefined;
  /** The dose is the point: it is filled before all else, and its sets are cut only where the day's minutes cannot hold them. */
  readonly whole?: boolean | undefined;
  /** Numbers by week of the stage, from 1, in place of `dose`: the last row that has begun holds. */
  readonly table?: readonly { readonly fromWeek: number; readonly dose: Partial<ExerciseDose> }[] | undefined;
  /** Drivers that move the slot up. */
  readonly drivers?: readonly string[] | undefined;
  /** Filled only where one of its drivers was found: what is treated is what was seen, whatever it may be called. */
  readonly onlyForDriver?: boolean | undefined;
  /** Only under this choice of a school, e.g. `{ lengthening: "stretch-led" }`. */
  readonly school?: Readonly<Record<string, string>> | undefined;
}

/** Something beside the exercises: worn, done or left off, with its own dose and how it ends. */
export interface Adjunct {
  readonly key: string;
  readonly text: string;
  readonly reason: string;
  /** Hours, height or how often, in words; null where the text says it. */
  readonly dose: string | null;
  /** When it grows less, counted in weeks from the start of the protocol, and how; null where it stays. */
  readonly weaning: {
    readonly fromWeek: number;
    readonly goneByWeek?: number | undefined;
    readonly text: string;
  } | null;
  readonly school?: Readonly<Record<string, string>> | undefined;
}

declare const keyOfStage: unique symbol;

/** A stage's key. It says which stage only with its protocol (`stageOf`): two protocols may have stages of one key. */
export type StageKey = string & { readonly [keyOfStage]: true };

/** A text from outside (a request, a file, the command line) taken as a stage's key; `stageOf` says whether there is such a stage. */
export const stageKey = (text: string): StageKey => text as StageKey;

export interface Stage {
  readonly key: StageKey;
  readonly name: string;
  readonly purpose: { readonly clinician: string; readonly patient: string };
  /** For planning only, never a criterion. */
  readonly usualWeeks: { readonly min: number; readonly max: number };
  /** Progress waits at least this long. */
  readonly minimumDays: number;
  /** What must hold to start here at a first visit; null for the first stage. */
  readonly entry: Criterion | null;
  /** What must hold to leave; null for upkeep. */
  readonly criteria: Criterion | null;
  readonly slots: readonly Slot[];
  readonly adjuncts: readonly Adjunct[];
  /** A larger rise of a week's load over the last 7 days warns. */
  readonly loadRisePercent: number;
  /** The same of contacts and run minutes, which are counted apart. */
  readonly impactRisePercent: number;
  /** More in a week warns; null where the stage sets no limit. */
  readonly contactsPerWeek: number | null;
  readonly runMinutesPerWeek: number | null;
  readonly painSchool: PainSchool;
  readonly remeasure: readonly string[];
  readonly skills: readonly string[];
  readonly reviewEveryDays: number;
  readonly leadingMeasure: string;
  readonly evidence: Evidence;
}

export interface School {
  readonly key: string;
  readonly question: string;
  readonly default: string;
  readonly options: readonly { readonly key: string; readonly label: string; readonly reason: string }[];
}

/**
 * Something that must be known before a protocol starts, not older than so many days: what must be absent is all absent, of
 * the rest one is enough. With nothing in `by` no answer of a visit shows it, and who gives the plan makes sure of it.
 */
export interface Confirmation {
  readonly key: string;
  readonly text: string;
  readonly by: readonly (
    | { readonly finding: string; readonly is: 'present' | 'absent' }
    | {
        readonly measure: string;
        readonly atLeast?: number | undefined;
        readonly atMost?: number | undefined;
      }
  )[];
  readonly validDays: number;
}

export interface ProtocolDefinition {
  readonly key: string;
  readonly name: string;
  readonly version: number;
  /** Conditions it is for. */
  readonly conditions: readonly string[];
  /** From this age on; no adult protocol opens under 16. */
  readonly fromAge: number;
  /** Up to this age; null where there is no end. */
  readonly toAge: number | null;
  /** What is confirmed before it starts. */
  readonly confirm: readonly Confirmation[];
  /** Who is not for it, in words. */
  readonly excludes: readonly string[];
  /** Safety rules that end it, once they are triggered. */
  readonly endsOn: readonly string[];
  /** What to think of when someone looks again. */
  readonly lookAgain: string;
  /** When it is handed on. */
  readonly refer: readonly string[];
  /** What is otherwise when both sides are affected, and when a test cannot be done. */
  readonly bothSides: string;
  readonly cannotTest: string;
  /** What to do when it comes back. */
  readonly relapse: string;
  /** Where it begins again when it comes back: at the first stage, or one before the one it was left in. */
  readonly relapseTo: 'first' | 'before';
  /** Weeks without real change in the leading measure until someone looks again, and until it is referred. */
  readonly lookAgainWeeks: number;
  readonly referWeeks: number;
  readonly schools: readonly School[];
  /** Tissues whose load is counted, the most important first. */
  readonly tissues: readonly string[];
  /** Measures drawn over time, the first first. */
  readonly charts: readonly string[];
  /** Someone unable to do this measure on a treated side starts no further than this stage; null where nothing says so. */
  readonly unableAt: { readonly measure: string; readonly stage: StageKey; readonly because: string } | null;
  /** How long it usually takes, as the patient reads it. */
  readonly usually: string;
  /** What the patient is asked at home beside what the pain rule needs. */
  readonly home: readonly HomeQuestion[];
  readonly stages: readonly Stage[];
  readonly evidence: Evidence;
}

/** Why a protocol does not open for a person of this age; null when it does. An age that is not known is asked for. */
export function ageProblem(
  protocol: Pick<ProtocolDefinition, 'name' | 'fromAge' | 'toAge'>,
  ageYears: number | null,
): string | null {
  const { toAge } = protocol;
  if (protocol.fromAge === 0 && toAge === null) return null;
  if (ageYears === null)
    return say('The date of birth is missing: {{name}} is for people from {{fromAge}} years on', {
      name: protocol.name,
      fromAge: protocol.fromAge,
    });
  if (toAge !== null && ageYears > toAge)
    return say('{{name}} is for people up to {{toAge}} years', { name: protocol.name, toAge });
  return ageYears < protocol.fromAge
    ? say('{{name}} is for people from {{fromAge}} years on; there is none for {{ageYears}} yet', {
        name: protocol.name,
        fromAge: protocol.fromAge,
        ageYears,
      })
    : null;
}

/** Where a complaint that came back begins again; null where it never had a stage. */
export function relapseStage(
  { stages, relapseTo }: Pick<ProtocolDefinition, 'stages' | 'relapseTo'>,
  left: StageKey | null,
): Stage | null {
  if (left === null) return null;
  const at = stages.findIndex((s) => s.key === left);
  return stages[relapseTo === 'first' ? 0 : Math.max(0, at - 1)] ?? null;
}

/** The one way to a stage: by its own protocol. Null where that protocol has none of that key. */
export const stageOf = (protocol: Pick<ProtocolDefinition, 'stages'>, key: StageKey | null): Stage | null =>
  protocol.stages.find((s) => s.key === key) ?? null;
