import {
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  Matches,
  Max,
  Min,
} from 'class-validator';
import type { HomeScores, LoggedExercise } from '@heathstep/core';

export class HomeOpenBody {
  @Length(10, 60, { message: 'This link does not work' })
  @IsString({ message: 'This link does not work' })
  token!: string;

  @Matches(/^\d{6}$/, { message: 'Type the 6 digits' })
  @IsString({ message: 'Type the 6 digits' })
  code!: string;
}

export class HomeEntryBody {
  @IsUUID(undefined, { message: 'must be a UUID' })
  id!: string;

  /** 1 for a new entry, the next number for a correction. */
  @Max(50)
  @Min(1)
  @IsInt()
  version!: number;

  /** The episode it was logged for; a phone that was handed on never sends it under another. */
  @IsOptional()
  @IsUUID(undefined, { message: 'must be a UUID' })
  episodeId?: string;

  @IsIn(['session', 'morning', 'stop'])
  kind!: 'session' | 'morning' | 'stop';

  @Matches(/^\d{4}-\d{2}-\d{2}$/, { message: 'must be a day' })
  @IsString()
  day!: string;

  /** The plan version that was on the phone; a session is read by its doses. */
  @IsOptional()
  @IsUUID(undefined, { message: 'must be a UUID' })
  planId?: string;

  @IsObject()
  payload!: SessionPayload | MorningPayload | StopPayload;
}

export interface SessionPayload {
  /** Answers by question; null until it was answered. */
  readonly scores: HomeScores;
  readonly exercises: readonly LoggedExercise[];
}

export interface MorningPayload {
  readonly scores: HomeScores;
}

export interface StopPayload {
  readonly grade: 'emergency' | 'review' | 'pause';
  readonly sign: string;
  readonly exercise: string | null;
}
