import {
  ArrayMaxSize,
  IsArray,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Matches,
  Max,
  MaxLength,
  Min,
} from 'class-validator';
import { phrase } from '@heathstep/core';
import { IsVersion } from './validators.js';

/** How the treatment of a complaint ended. */
export const OUTCOMES = ['goals-reached', 'goes-on-alone', 'referred', 'stopped-coming', 'other'] as const;
export type Outcome = (typeof OUTCOMES)[number];

/** The same in words. */
export const OUTCOME_WORDS: Readonly<Record<Outcome, string>> = {
  'goals-reached': phrase('goals reached'),
  'goes-on-alone': phrase('goes on alone'),
  referred: phrase('referred on'),
  'stopped-coming': phrase('stopped coming'),
  other: phrase('ended otherwise'),
};

/** Why a closed complaint is opened again: it came back, or it was closed too early. */
export const REOPENED = ['came-back', 'closed-too-early'] as const;
export type Reopened = (typeof REOPENED)[number];

export const EQUIPMENT = [
  'towel',
  'belt',
  'ball',
  'step',
  'band',
  'hand weight',
  'roller',
  'cushion',
  'small objects',
  'rope',
  'spoon',
  'toe spacers',
  'wide shoes',
  'insoles',
  'tape',
  'night splint',
  'crutches',
] as const;

export class EpisodeBody {
  @IsUUID(undefined, { message: 'must be a UUID' })
  id!: string;

  @MaxLength(60)
  @IsString()
  condition!: string;

  @IsIn(['left', 'right', 'both'], { message: 'must be left, right or both' })
  affected!: 'left' | 'right' | 'both';
}

export class EpisodePatch {
  @IsVersion(1, 'must be the version last read')
  version!: number;

  /** Another pathway to go on with, once it is known what it is. */
  @IsOptional()
  @MaxLength(60)
  @IsString()
  condition?: string;

  @IsOptional()
  @IsIn(['left', 'right', 'both'], { message: 'must be left, right or both' })
  affected?: 'left' | 'right' | 'both';

  @IsOptional()
  @IsObject()
  schools?: Record<string, string>;

  @IsOptional()
  @IsIn(EQUIPMENT, { each: true, message: `must be some of ${EQUIPMENT.join(', ')}` })
  @ArrayMaxSize(EQUIPMENT.length)
  @IsArray()
  equipment?: string[];

  /** Weights the person has at home, in kg. */
  @IsOptional()
  @Max(100, { each: true, message: 'At most 100 kg' })
  @Min(0.1, { each: true, message: 'At least 0.1 kg' })
  @IsNumber({}, { each: true, message: 'Type a number of kilograms' })
  @ArrayMaxSize(20, { message: 'At most 20 weights' })
  @IsArray()
  weightsKg?: number[];

  @IsOptional()
  @Max(90, { message: 'At most 90 minutes a day' })
  @Min(3, { message: 'At least 3 minutes a day' })
  @IsInt({ message: 'A whole number of minutes' })
  minutesPerDay?: number;

  /** When of the day the person exercises; null is the usual time. */
  @IsOptional()
  @Matches(/^([01]\d|2[0-3]):[0-5]\d$/, { message: 'Type a time such as 18:30' })
  exerciseTime?: string | null;

  /** Closed when it is treated no more; it can be opened again. */
  @IsOptional()
  @IsIn(['open', 'closed'], { message: 'must be open or closed' })
  status?: 'open' | 'closed';

  /** Why it is opened again; needed to open what is closed. */
  @IsOptional()
  @IsIn(REOPENED, { message: `must be one of ${REOPENED.join(', ')}` })
  reopened?: Reopened;

  /** How it ended; needed to close it. */
  @IsOptional()
  @IsIn(OUTCOMES, { message: `must be one of ${OUTCOMES.join(', ')}` })
  outcome?: Outcome;

  /** What else is to be known of the end. */
  @IsOptional()
  @MaxLength(2000, { message: 'At most 2000 characters' })
  @IsString()
  note?: string;
}
