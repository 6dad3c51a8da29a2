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
  'compression',
  'heat',
  'scraping',
  'heavy-load',
  'end-range',
  'prone',
  'floor-transfer',
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
  | 'relief';

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
  readonly name: string;
  readonly aim: Aim;
  readonly ladder: string;
  /** Place on the ladder from 1, the easiest. */
  readonly rung: number;
  /** What is harder here than one rung down. */
  readonly change: string;
  /** Both feet at once, or one after the other. */
  readonly laterality: 'together' | 'per-side';
  readonly position: string;
  readonly equipment: readonly string[];
  /** Any surface, chair or wall that most homes have. */
  readonly place: string;
  readonly steps: readonly string[];
  readonly feel: string;
  readonly faults: readonly { readonly fault: string; readonly fix: string }[];
  readonly tags: readonly Tag[];
  readonly drivers: readonly string[];
  readonly setupSeconds: number;
  readonly dose: ExerciseDose;
  readonly range: DoseRanges;
  /** Calf load estimate; null where there is none. */
  readonly load: { readonly legs: 1 | 2; readonly footPitchDeg: number } | null;
  /** Relief never counts toward criteria. */
  readonly when: 'any' | 'before-first-step';
  readonly evidence: Evidence;
}
