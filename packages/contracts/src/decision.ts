import { IsIn, IsOptional, IsString, IsUUID, MaxLength } from 'class-validator';

export const DECISIONS = [
  'refer',
  'ease-back',
  'adjust-dose',
  'hold-and-retest',
  'progress',
  'hold',
  'look-again',
] as const;

export class DecisionBody {
  @IsUUID(undefined, { message: 'must be a UUID' })
  id!: string;

  @IsIn(DECISIONS, { message: `must be one of ${DECISIONS.join(', ')}` })
  decision!: (typeof DECISIONS)[number];

  /** Needed when it differs from what the rules suggest. */
  @IsOptional()
  @MaxLength(2000, { message: 'At most 2000 characters' })
  @IsString()
  reason?: string;
}
