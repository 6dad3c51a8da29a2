import type { Evidence } from '../why/evidence.js';
import type { Tempo } from '../dose/dose.js';

/** What an exercise asks of the body; safety answers switch these off. */
export const TAGS = [
  'weight-bearing',
  'calf-load',
  'push-off',
  'barefoot',
  'forced-extension',
  'impact',
  'deep-dorsiflexion',
  'standing-unsupported',
  'pressure-on-sole',
  'skin-pressure',
  'compression',
  'heat',
  'scraping',
  'heavy-load',
  'single-leg-raise',
  'end-range',
  'prone',
  'floor-transfer',
  'step-edge',
  'eyes-closed',
] as const;

export type Tag = (typeof TAGS)[number];

export type Aim =
  | 'skill'
  | 'endurance'
  | 'strength'
  | 'eccentric'
  | 'range-static'
  | 'range-loaded'
  | 'isometric'
  | 'balance'
  | 'impact'
  | 'relief'
  /** Something worn or done through the day, such as a spacer between the toes. */
  | 'aid';

/** What one rung asks more of than the one before. */
export const CHANGES = [
  'support',
  'legs',
  'range',
  'load',
  'speed',
  'surface',
  'knee angle',
  'position',
  'precision',
  'direction',
  'senses',
  'time',
  'impact',
] as const;

export type Change = (typeof CHANGES)[number];

export const EXERCISE_PARTS = [
  'toes',
  'big toe',
  'arch',
  'sole',
  'forefoot',
  'heel',
  'ankle',
  'calf',
  'shin',
  'knee',
  'hip',
  'whole body',
] as const;

export type ExercisePart = (typeof EXERCISE_PARTS)[number];

/** What is counted while it is done. */
export const COUNTED = ['reps', 'holds', 'minutes', 'pulls', 'pieces', 'laps', 'letters', 'steps'] as const;

export type Counted = (typeof COUNTED)[number];

export const LOAD_KINDS = ['none', 'body', 'band', 'knee weight', 'hand weight', 'towel weight'] as const;

export type LoadKind = (typeof LOAD_KINDS)[number];

/** The same exercise with one setting changed. */
export interface Variant {
  readonly key: string;
  readonly name: string;
  /** What is done differently, as said to the patient. */
  readonly how: string;
}

/** Lowest and highest a clinician can set in place. */
export type Span = readonly [min: number, max: number];

export interface DoseRanges {
  readonly sets: Span;
  readonly reps: Span;
  readonly holdSeconds?: Span | undefined;
  readonly upSeconds?: Span | undefined;
  readonly topSeconds?: Span | undefined;
  readonly downSeconds?: Span | undefined;
  readonly restSeconds: Span;
  readonly addedKg?: Span | undefined;
  readonly timesPerDay: Span;
  readonly daysPerWeek: Span;
}

export interface ExerciseDose {
  readonly sets: number;
  readonly reps: number;
  readonly holdSeconds?: number | undefined;
  readonly releaseSeconds?: number | undefined;
  readonly tempo?: Tempo | undefined;
  readonly restSeconds: number;
  readonly addedKg?: number | undefined;
  readonly timesPerDay: number;
  readonly daysPerWeek: number;
}

export interface ExerciseDefinition {
  readonly key: string;
  /** What clinicians call it beside its plain name: terms, abbreviations, eponyms. */
  readonly also?: readonly string[] | undefined;
  readonly name: string;
  readonly aim: Aim;
  readonly ladder: string;
  /** Place on the ladder from 1, the easiest. */
  readonly rung: number;
  /** What is harder here than one rung down. */
  readonly change: string;
  /** The kinds of that change; none on a first rung. */
  readonly changes: readonly Change[];
  /** Exercises of other ladders that are mastered before this one. */
  readonly after: readonly string[];
  /** What measures must show on every side it is done on; someone measured below it starts on an easier rung. */
  readonly abilities?: readonly { readonly measure: string; readonly atLeast: number }[] | undefined;
  /** Both feet at once, or one after the other. */
  readonly laterality: 'together' | 'per-side';
  readonly position: string;
  readonly equipment: readonly string[];
  /** Any surface, chair or wall that most homes have. */
  readonly place: string;
  readonly surface: string;
  /** Room it takes. */
  readonly space: string;
  readonly parts: readonly ExercisePart[];
  /** What moves, and what stays still. */
  readonly moves: string;
  readonly steps: readonly string[];
  /** When to breathe in and out; null where it does not matter. */
  readonly breathing: string | null;
  readonly feel: string;
  readonly faults: readonly { readonly fault: string; readonly fix: string }[];
  /** Signs to stop at once. */
  readonly stops: readonly string[];
  readonly tags: readonly Tag[];
  readonly drivers: readonly string[];
  readonly setupSeconds: number;
  readonly dose: ExerciseDose;
  readonly range: DoseRanges;
  readonly counted: Counted;
  /** What the two halves of a repetition are called: up and down, out and back. */
  readonly beats: readonly [out: string, back: string];
  readonly loadKind: LoadKind;
  readonly variants: readonly Variant[];
  /** The lever of a heel raise; null where it is none. */
  readonly load: { readonly legs: 1 | 2; readonly footPitchDeg: number } | null;
  /** Load of other tissues by one repetition, in body weights on the working side, by tissue. */
  readonly loads: Readonly<Record<string, number>>;
  /** When of the day it is done, as the patient reads it; such exercises stand first. Null where it does not matter. */
  readonly when: string | null;
  readonly evidence: Evidence;
}

/** The first words of a position, by which exercises are found: standing on a step is standing. */
export const mainPosition = (e: Pick<ExerciseDefinition, 'position'>): string =>
  e.position.split(/,| on | or /)[0] ?? e.position;
