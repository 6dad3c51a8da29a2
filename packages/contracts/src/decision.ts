import { Type } from 'class-transformer';
import {
  IsIn,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  MaxLength,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import type { StageKey } from '@heathstep/core';

export const DECISIONS = [
  'refer',
  'ease-back',
  'adjust-dose',
  'hold-and-retest',
  'progress',
  'hold',
  'look-again',
] as const;

/** What someone decided about: a decision is carried out only where it still stands. */
export class DecidedOn {
  @ValidateIf((d: DecidedOn) => d.stage !== null)
  @MaxLength(60)
  @IsString({ message: 'must be the stage that was looked at' })
  stage!: StageKey | null;

  /** The plan the patient had. */
  @ValidateIf((d: DecidedOn) => d.planId !== null)
  @IsUUID(undefined, { message: 'must be the plan that was looked at' })
  planId!: string | null;

  /** What the rules suggested. */
  @IsIn(DECISIONS, { message: `must be one of ${DECISIONS.join(', ')}` })
  suggested!: (typeof DECISIONS)[number];
}

export class DecisionBody {
  @IsUUID(undefined, { message: 'must be a UUID' })
  id!: string;

  @IsIn(DECISIONS, { message: `must be one of ${DECISIONS.join(', ')}` })
  decision!: (typeof DECISIONS)[number];

  @ValidateNested()
  @IsObject({ message: 'must say what was decided about' })
  @Type(() => DecidedOn)
  on!: DecidedOn;

  /** Needed when it differs from what the rules suggest. */
  @IsOptional()
  @MaxLength(2000, { message: 'At most 2000 characters' })
  @IsString()
  reason?: string;
}
