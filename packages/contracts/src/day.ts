import {
  IsIn,
  IsInt,
  IsISO8601,
  IsOptional,
  IsString,
  IsUUID,
  Matches,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateIf,
} from 'class-validator';
import { IsVersion, MayBeLeftOut } from './validators.js';
import type { DayItem } from './views.js';

const DAY = 'Type a day such as 2026-05-31';
const TIME = 'Type a time such as 09:30';
const MINUTES = 'From 5 to 240 minutes';
const NOTE = 'At most 200 characters';

/** What became of a visit that was planned. */
export const APPOINTMENT_STATES = ['planned', 'came', 'missed', 'cancelled'] as const;
export type AppointmentState = (typeof APPOINTMENT_STATES)[number];

/** A visit planned for someone, in the clinic's own time. */
export class AppointmentBody {
  @IsUUID(undefined, { message: 'must be a UUID' })
  id!: string;

  @IsUUID(undefined, { message: 'Choose someone' })
  personId!: string;

  @IsISO8601({ strict: true }, { message: 'There is no such day' })
  @Matches(/^\d{4}-\d{2}-\d{2}$/, { message: DAY })
  day!: string;

  @Matches(/^([01]\d|2[0-3]):[0-5]\d$/, { message: TIME })
  time!: string;

  @Max(240, { message: MINUTES })
  @Min(5, { message: MINUTES })
  @IsInt({ message: MINUTES })
  minutes!: number;

  @MaxLength(200, { message: NOTE })
  @IsString({ message: NOTE })
  note!: string;

  /** Of the event of a calendar it was taken from: the same event is taken once. */
  @IsOptional()
  @MaxLength(300, { message: 'At most 300 characters' })
  @IsString()
  uid?: string | null;
}

export class AppointmentPatch {
  @IsVersion(1, 'must be the version last read')
  version!: number;

  @MayBeLeftOut()
  @IsISO8601({ strict: true }, { message: 'There is no such day' })
  @Matches(/^\d{4}-\d{2}-\d{2}$/, { message: DAY })
  day?: string;

  @MayBeLeftOut()
  @Matches(/^([01]\d|2[0-3]):[0-5]\d$/, { message: TIME })
  time?: string;

  @MayBeLeftOut()
  @Max(240, { message: MINUTES })
  @Min(5, { message: MINUTES })
  @IsInt({ message: MINUTES })
  minutes?: number;

  @MayBeLeftOut()
  @MaxLength(200, { message: NOTE })
  @IsString({ message: NOTE })
  note?: string;

  @MayBeLeftOut()
  @IsIn(APPOINTMENT_STATES, { message: `must be one of ${APPOINTMENT_STATES.join(', ')}` })
  state?: AppointmentState;
}

export interface AppointmentView {
  readonly id: string;
  readonly personId: string;
  readonly name: string;
  readonly day: string;
  /** `HH:MM` where the clinic is. */
  readonly time: string;
  readonly minutes: number;
  readonly note: string;
  readonly state: AppointmentState;
  /** Of the event of a calendar it was taken from; null for one that was typed. */
  readonly uid: string | null;
  readonly version: number;
}

/** What may be set aside: never a stop, what blocks a prescription, or someone to be referred. */
export const MAY_BE_SET_ASIDE = [
  'flare',
  'ready',
  'look-again',
  'upkeep-over',
  'review-due',
  'slipping',
  'asked',
  'silent',
  'new',
  'unplanned',
] as const satisfies readonly DayItem['kind'][];

/** The longest that something is set aside, in days. [convention] */
export const LONGEST_ASIDE_DAYS = 28;

/** Sets a row of the day aside until a day, with the reason. It comes back sooner when it gets worse or becomes something else. */
export class AsideBody {
  @IsUUID(undefined, { message: 'must be a UUID' })
  id!: string;

  @IsUUID(undefined, { message: 'must be a UUID' })
  personId!: string;

  @ValidateIf((b: AsideBody) => b.episodeId !== null)
  @IsUUID(undefined, { message: 'must be a UUID' })
  episodeId!: string | null;

  /** What it was when it was set aside. */
  @IsIn(MAY_BE_SET_ASIDE, { message: `must be one of ${MAY_BE_SET_ASIDE.join(', ')}` })
  kind!: (typeof MAY_BE_SET_ASIDE)[number];

  @IsVersion(0, 'must be a whole number')
  weight!: number;

  @IsISO8601({ strict: true }, { message: 'There is no such day' })
  @Matches(/^\d{4}-\d{2}-\d{2}$/, { message: DAY })
  until!: string;

  @MaxLength(200, { message: NOTE })
  @MinLength(3, { message: 'Say why, in a few words' })
  @IsString({ message: 'Say why, in a few words' })
  reason!: string;
}
