import { IsIn, IsInt, IsObject, IsString, IsUUID, Length, Matches, Max, Min } from 'class-validator';

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

  @IsIn(['session', 'morning', 'stop'])
  kind!: 'session' | 'morning' | 'stop';

  @Matches(/^\d{4}-\d{2}-\d{2}$/, { message: 'must be a day' })
  @IsString()
  day!: string;

  @IsObject()
  payload!: SessionPayload | MorningPayload | StopPayload;
}

export interface SessionPayload {
  readonly before: number;
  readonly during: number;
  readonly after: number;
  /** Null until an hour has passed and it was answered. */
  readonly hourAbove: boolean | null;
  readonly exercises: readonly {
    readonly exercise: string;
    readonly sets: number;
    readonly reps: number;
    /** 0 to 10; null when not asked. */
    readonly effort: number | null;
  }[];
}

export interface MorningPayload {
  readonly firstStep: number;
  /** Worst pain of the day before, where the stage asks for it. */
  readonly dayWorst?: number | null;
}

export interface StopPayload {
  readonly grade: 'emergency' | 'review' | 'pause';
  readonly sign: string;
  readonly exercise: string | null;
}
