import { PAIN_SCHOOLS_BY_STRICTNESS, type PainSchool, phrase, type WeekHours } from '@heathstep/core';
import { ArrayMaxSize, IsArray, IsBoolean, IsIn, IsString, MaxLength } from 'class-validator';

/** After how long without a key or a touch a clinician's page is locked, in minutes; 0 is never. [convention] */
export const LOCK_MINUTES = [0, 5, 10, 15, 30, 60] as const;
export type LockMinutes = (typeof LOCK_MINUTES)[number];

/** Pain rules a clinic can hold every protocol to at least; `none`: each by its own. */
export const LEAST_PAIN_SCHOOLS = [
  'none',
  ...PAIN_SCHOOLS_BY_STRICTNESS.filter((s) => s !== 'next-morning'),
] as const;
export type LeastPainSchool = 'none' | Exclude<PainSchool, 'next-morning'>;

export const LEAST_PAIN_WORDS: Readonly<Record<LeastPainSchool, string>> = {
  none: phrase('each protocol by its own rule'),
  comfort: phrase('nothing beyond comfort'),
  bone: phrase('no pain at all, as for bone'),
};

/** What a clinic has decided for all of its work. */
export interface ClinicDefaults {
  readonly lockMinutes: LockMinutes;
  /** Signing in asks everyone for a second step. */
  readonly secondStep: boolean;
  readonly painSchool: LeastPainSchool;
  /** Lines under the name on letters. */
  readonly letterhead: string;
  /** Beside the telephone on handout and phone. */
  readonly contact: string;
  /** Beside the emergency number on handout and phone. */
  readonly emergency: string;
  /** Monday first; empty where none were told. */
  readonly hours: WeekHours;
}

/** As long as a clinic has decided nothing. */
export const UNDECIDED: ClinicDefaults = {
  lockMinutes: 30,
  secondStep: false,
  painSchool: 'none',
  letterhead: '',
  contact: '',
  emergency: '',
  hours: [],
};

const LINES = 'At most 400 characters';
const LINE = 'At most 160 characters';

export class ClinicDefaultsBody implements ClinicDefaults {
  @IsIn(LOCK_MINUTES, { message: 'must be one of the minutes that can be chosen' })
  lockMinutes!: LockMinutes;

  @IsBoolean({ message: 'must be yes or no' })
  secondStep!: boolean;

  @IsIn(LEAST_PAIN_SCHOOLS, { message: 'must be a pain rule that can be chosen' })
  painSchool!: LeastPainSchool;

  @MaxLength(400, { message: LINES })
  @IsString({ message: LINES })
  letterhead!: string;

  @MaxLength(160, { message: LINE })
  @IsString({ message: LINE })
  contact!: string;

  @MaxLength(160, { message: LINE })
  @IsString({ message: LINE })
  emergency!: string;

  /** Seven days, or none. */
  @ArrayMaxSize(7, { message: 'must be the hours of seven days' })
  @IsArray({ message: 'must be the hours of seven days' })
  hours!: WeekHours;
}
