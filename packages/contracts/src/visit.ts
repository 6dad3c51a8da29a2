import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsIn,
  IsISO8601,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  Matches,
  ValidateNested,
} from 'class-validator';
import { IsVersion } from './validators.js';

export class VisitBody {
  @IsUUID(undefined, { message: 'must be a UUID' })
  id!: string;
}

export class EntryBody {
  @IsUUID(undefined, { message: 'must be a UUID' })
  id!: string;

  @Matches(/^[a-z]+(\.[a-z0-9-]+){1,3}$/, { message: 'must be an entry key such as story.worst' })
  @Length(3, 120)
  @IsString()
  key!: string;

  /** Version this edit was based on; 0 when there was none. */
  @IsVersion(0, 'must be the version last read, or 0')
  baseVersion!: number;

  @IsOptional()
  value!: unknown;
}

export class EntriesBody {
  @ValidateNested({ each: true })
  @Type(() => EntryBody)
  @ArrayMaxSize(200)
  @ArrayMinSize(1)
  @IsArray()
  entries!: EntryBody[];

  /** Why a signed visit is changed; without it a signed visit is not. */
  @IsOptional()
  @Matches(/\S/, { message: 'Say why the signed visit is changed' })
  @Length(3, 500, { message: 'Say why, in 3 to 500 characters' })
  @IsString({ message: 'Say why the signed visit is changed' })
  reason?: string;
}

export class ClosureBody {
  @IsUUID(undefined, { message: 'must be a UUID' })
  id!: string;

  /** `rule:KEY` or `stop:ID`. */
  @Matches(/^(rule:[a-z0-9-]+|stop:[0-9a-f-]{36})$/, { message: 'must name a rule or a stop' })
  @IsString()
  subject!: string;

  @IsIn(['left', 'right', 'none'], { message: 'must be left, right or none' })
  side!: 'left' | 'right' | 'none';

  @IsIn(['closed', 'overridden'], { message: 'must be closed or overridden' })
  kind!: 'closed' | 'overridden';

  @IsOptional()
  @Matches(/^\d{4}-\d{2}-\d{2}$/, { message: 'Type the date it was assessed' })
  @IsISO8601({ strict: true }, { message: 'There is no such day' })
  assessedOn?: string;

  @IsOptional()
  @Length(1, 120, { message: 'Say who assessed it, in up to 120 characters' })
  @IsString()
  assessedBy?: string;

  /** How it was assessed, where the rule says what clears it. */
  @IsOptional()
  @Matches(/^[a-z0-9-]{1,40}$/, { message: 'Choose what was done' })
  @IsString({ message: 'Choose what was done' })
  done?: string;

  @Matches(/\S/, { message: 'Say the result or the reason' })
  @Length(3, 2000, { message: 'Say the result or the reason, in 3 to 2000 characters' })
  @IsString({ message: 'Say the result or the reason' })
  text!: string;
}
