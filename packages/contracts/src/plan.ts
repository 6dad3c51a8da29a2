import { DAY_PARTS, type DayPart, type StageKey } from '@heathstep/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Matches,
  MaxLength,
  ValidateNested,
} from 'class-validator';
import { IsVersion, MayBeLeftOut } from './validators.js';

export class DoseTempo {
  @IsNumber() upSeconds!: number;
  @IsNumber() topSeconds!: number;
  @IsNumber() downSeconds!: number;
  @IsNumber() bottomSeconds!: number;
}

export class InRoundBody {
  @Matches(/^[a-g]$/, { message: 'must be the key of a round' })
  @IsString()
  key!: string;

  @IsIn(['each', 'through'], { message: 'must be each or through' })
  feet!: 'each' | 'through';
}

/** One exercise with its dose; the safe range is checked by the core. */
export class PlanItem {
  @MaxLength(60) @IsString() exercise!: string;
  @MaxLength(60) @IsString() slot!: string;
  @IsIn(['left', 'right', 'together', 'one-after-other', 'alternating'], {
    message: 'must be a way of doing both sides',
  })
  sides!: 'left' | 'right' | 'together' | 'one-after-other' | 'alternating';
  @MayBeLeftOut() @MaxLength(60) @IsString() variant?: string;
  @IsNumber() sets!: number;
  @IsNumber() reps!: number;
  @MayBeLeftOut() @IsNumber() holdSeconds?: number;
  @MayBeLeftOut() @IsNumber() releaseSeconds?: number;
  @MayBeLeftOut() @ValidateNested() @Type(() => DoseTempo) @IsObject() tempo?: DoseTempo;
  @IsNumber() restSeconds!: number;
  @MayBeLeftOut() @IsNumber() addedKg?: number;
  @IsNumber() timesPerDay!: number;
  @IsNumber() daysPerWeek!: number;
  /** Weekdays it is done on, 0 Monday; left out where they are spread evenly. */
  @MayBeLeftOut() @IsInt({ each: true }) @ArrayMaxSize(7) @IsArray() days?: number[];
  /** When of the day it is done; left out for the person's usual time. */
  @MayBeLeftOut() @IsIn(DAY_PARTS, { message: 'must be morning, midday or evening' }) part?: DayPart;
  /** Done in turn with others of the plan. */
  @MayBeLeftOut() @ValidateNested() @Type(() => InRoundBody) @IsObject() round?: InRoundBody;
  /** Someone stands beside while it is done. */
  @MayBeLeftOut() @IsBoolean({ message: 'must be yes or no' }) beside?: boolean;
  /** Why the dose goes beyond the usual range. */
  @MayBeLeftOut()
  @MaxLength(200, { message: 'At most 200 characters' })
  @IsString()
  beyond?: string;
  @MayBeLeftOut()
  @MaxLength(400, { each: true })
  @IsString({ each: true })
  @ArrayMaxSize(12)
  @IsArray()
  why?: string[];
}

/** Other choices of a protocol's schools, to see what they would change before they are taken. */
export class PlanIfBody {
  @IsObject({ message: 'must be choices by question' })
  schools!: Record<string, string>;
}

export class PlanDraftBody {
  @IsUUID(undefined, { message: 'must be a UUID' })
  id!: string;

  /** Stage to plan for; the episode's own when left out. */
  @IsOptional()
  @MaxLength(60)
  @IsString()
  stage?: StageKey;

  /** `stage` fills the stage's slots anew; `current` copies what the patient has now. */
  @IsIn(['stage', 'current'], { message: 'must be stage or current' })
  from!: 'stage' | 'current';
}

export class PlanBody {
  @IsVersion(1, 'must be the version last read')
  version!: number;

  @ValidateNested({ each: true })
  @Type(() => PlanItem)
  @ArrayMaxSize(12, { message: 'At most 12 exercises' })
  @IsArray()
  items!: PlanItem[];
}

export class GivePlanBody {
  @IsVersion(1, 'must be the version last read')
  version!: number;
}
