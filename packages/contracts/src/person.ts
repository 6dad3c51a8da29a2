import {
  IsIn,
  IsISO8601,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  Matches,
  MaxLength,
  ValidateIf,
} from 'class-validator';
import { IsVersion } from './validators.js';

const NAME = 'Type a name of 1 to 80 characters';

export class PersonBody {
  /** Made by the client, so that a repeat creates nothing twice. */
  @IsUUID(undefined, { message: 'must be a UUID' })
  id!: string;

  @Matches(/\S/, { message: NAME })
  @Length(1, 80, { message: NAME })
  @IsString({ message: NAME })
  name!: string;

  @ValidateIf((p: PersonBody) => p.birthDate !== null)
  @Matches(/^\d{4}-\d{2}-\d{2}$/, { message: 'Type a date of birth such as 1979-05-31' })
  @IsISO8601({ strict: true }, { message: 'There is no such day' })
  birthDate!: string | null;

  @MaxLength(80, { message: 'At most 80 characters' })
  @IsString({ message: 'At most 80 characters' })
  occupation!: string;

  /** For published norms only; null when it was not said. */
  @IsOptional()
  @IsIn(['female', 'male'], { message: 'must be female, male or left out' })
  sex?: 'female' | 'male' | null;

  /** What they read in, ISO 639-1; English where it is left out. */
  @IsOptional()
  @Matches(/^[a-z]{2}$/, { message: 'must be one of the languages' })
  language?: string | null;
}

export class PersonPatch {
  @IsOptional()
  @Matches(/\S/, { message: NAME })
  @Length(1, 80, { message: NAME })
  @IsString({ message: NAME })
  name?: string;

  @IsOptional()
  @Matches(/^\d{4}-\d{2}-\d{2}$/, { message: 'Type a date of birth such as 1979-05-31' })
  @IsISO8601({ strict: true }, { message: 'There is no such day' })
  birthDate?: string;

  @IsOptional()
  @MaxLength(80, { message: 'At most 80 characters' })
  @IsString()
  occupation?: string;

  @IsOptional()
  @IsIn(['female', 'male'], { message: 'must be female, male or left out' })
  sex?: 'female' | 'male' | null;

  /** What they read in, ISO 639-1; English where it is left out. */
  @IsOptional()
  @Matches(/^[a-z]{2}$/, { message: 'must be one of the languages' })
  language?: string | null;

  @IsVersion(1, 'must be the version last read')
  version!: number;
}
