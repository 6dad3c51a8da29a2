import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsString,
  IsUUID,
  Length,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { IsVersion } from './validators.js';
import { PlanItem } from './plan.js';
import { type Band, type BandPoint, BANDS } from '@heathstep/core';

/** An exercise of the clinic's own, new or changed; `file` is checked like a shipped one. */
export class OwnExerciseBody {
  @IsUUID(undefined, { message: 'must be a UUID' })
  id!: string;

  /** Version this edit was based on; 0 for a new one. */
  @IsVersion(0, 'must be the version last read, or 0')
  version!: number;

  /** Put aside: kept in plans that have it, offered to no new one. */
  @IsBoolean()
  retired!: boolean;

  @IsObject({ message: 'must be an exercise file' })
  file!: object;
}

export const ownExerciseKey = (id: string): string => `own-${id.slice(0, 8)}`;

/** Exercises of a plan kept as a ready set of the clinic's own. */
export class RoutineBody {
  @IsUUID(undefined, { message: 'must be a UUID' })
  id!: string;

  @Length(1, 80, { message: 'Give it a name of at most 80 characters' })
  @IsString({ message: 'Give it a name' })
  name!: string;

  @ValidateNested({ each: true })
  @Type(() => PlanItem)
  @ArrayMaxSize(10, { message: 'At most 10 exercises' })
  @ArrayMinSize(1, { message: 'At least one exercise' })
  @IsArray()
  items!: PlanItem[];
}

export class RetiredBody {
  @IsBoolean({ message: 'must be true or false' })
  retired!: boolean;
}

/** A routine of the clinic's own beside the shipped ones. */
export interface OwnRoutineView {
  readonly key: string;
  readonly id: string;
  readonly at: string;
  readonly by: string;
}

export const ownRoutineKey = (id: string): string => `own-${id.slice(0, 8)}`;

export class FavouriteBody {
  @IsBoolean()
  on!: boolean;
}

export class NoteBody {
  /** Version last read; 0 when there was none. */
  @IsVersion(0, 'must be the version last read, or 0')
  version!: number;

  @MaxLength(1000, { message: 'At most 1000 characters' })
  @IsString()
  text!: string;
}

/** Marks one version of an item of the content as looked at and accepted for this clinic. */
export class ReviewBody {
  @Length(3, 100)
  @IsString()
  item!: string;

  @IsVersion(1, 'must be a version')
  version!: number;
}

class BandPointBody implements BandPoint {
  @IsNumber({}, { message: 'a stretch in percent' })
  stretchPercent!: number;

  @IsNumber({}, { message: 'Type a number of newtons' })
  newtons!: number;
}

export class BandBody {
  @IsUUID(undefined, { message: 'must be a UUID' })
  id!: string;

  @IsIn(BANDS, { message: `must be ${BANDS.join(', ')}` })
  band!: Band;

  @ValidateNested({ each: true })
  @Type(() => BandPointBody)
  @ArrayMinSize(2, { message: 'Measure at least two stretches' })
  @ArrayMaxSize(4)
  @IsArray()
  points!: BandPointBody[];
}

/** What was seen when an exercise was taught in the room. */
export class TaughtBody {
  @IsUUID(undefined, { message: 'must be a UUID' })
  id!: string;

  @MaxLength(60)
  @IsString()
  exercise!: string;

  @IsIn(['left', 'right', 'both'], { message: 'must be left, right or both' })
  side!: 'left' | 'right' | 'both';

  @Max(300)
  @Min(0)
  @IsInt({ message: 'A whole number of repetitions' })
  reps!: number;

  /** Faults of the exercise, as it names them. */
  @MaxLength(400, { each: true })
  @IsString({ each: true })
  @ArrayMaxSize(20)
  @IsArray()
  faults!: string[];
}

export interface TaughtView {
  readonly id: string;
  readonly exercise: string;
  readonly side: 'left' | 'right' | 'both';
  readonly reps: number;
  readonly faults: readonly string[];
  readonly at: string;
  readonly by: string;
}

/** An exercise of the clinic's own, its newest version. */
export interface OwnExerciseView {
  readonly key: string;
  readonly id: string;
  readonly version: number;
  readonly retired: boolean;
  readonly at: string;
  readonly by: string;
}

export interface ExerciseVersionView {
  readonly version: number;
  readonly retired: boolean;
  readonly name: string;
  readonly at: string;
  readonly by: string;
}

export interface NoteView {
  readonly text: string;
  readonly version: number;
  readonly at: string;
  readonly by: string;
}

export interface BandView {
  readonly band: Band;
  readonly points: readonly BandPoint[];
  readonly at: string;
  readonly by: string;
}

/** Faults seen when an exercise was last taught. */
export const lastFaults = (taught: readonly TaughtView[], exercise: string): readonly string[] =>
  taught.filter((t) => t.exercise === exercise).at(-1)?.faults ?? [];
