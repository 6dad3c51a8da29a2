import type {
  ExerciseDefinition,
  MeasureDefinition,
  ProtocolDefinition,
  SafetyQuestion,
  SafetyRule,
} from '@heathstep/core';

export interface Ladder {
  readonly key: string;
  readonly name: string;
  readonly purpose: string;
}

export interface Condition {
  readonly key: string;
  readonly name: string;
  readonly gloss: string;
  readonly protocol: string;
}

/** All clinical knowledge, checked and frozen. */
export interface ContentBundle {
  /** Changes whenever any content file changes. */
  readonly version: string;
  readonly measures: readonly MeasureDefinition[];
  readonly ladders: readonly Ladder[];
  readonly exercises: readonly ExerciseDefinition[];
  readonly conditions: readonly Condition[];
  readonly safetyQuestions: readonly SafetyQuestion[];
  readonly safetyRules: readonly SafetyRule[];
  readonly protocols: readonly ProtocolDefinition[];
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
