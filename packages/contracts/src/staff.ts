import { phrase } from '@heathstep/core';
import { IsEmail, IsIn, IsOptional, IsString, IsUUID, Length, Matches, MaxLength } from 'class-validator';
import { MayBeLeftOut } from './validators.js';

export const ROLES = ['lead', 'clinician', 'assistant'] as const;
export type StaffRole = (typeof ROLES)[number];

export const ROLE_WORDS: Readonly<Record<StaffRole, string>> = {
  lead: phrase('lead'),
  clinician: phrase('clinician'),
  assistant: phrase('assistant'),
};

/** What someone of each role does. */
export const ROLE_MEANS: Readonly<Record<StaffRole, string>> = {
  lead: phrase('everything a clinician does, and the clinic itself'),
  clinician: phrase('assesses, prescribes, decides'),
  assistant: phrase('measures and teaches; prescribes nothing'),
};

const NAME = 'Type a name of 1 to 80 characters';
const EMAIL = 'Type an e-mail address such as name@clinic.example';
const PLACE = 'Type a name of 1 to 120 characters';
const PHONE = 'Type a telephone number: digits, spaces, + ( ) - only';
const EMERGENCY = 'Type an emergency number of 2 to 12 digits';

/** The shortest password that is looked at; what makes it good is how hard it is to guess. [convention] */
const SHORTEST_PASSWORD = 10;
const PASSWORD = 'At least 10 characters';

/** Someone new of the clinic; they choose their password by a link. */
export class MemberBody {
  /** Made by the client, so that a repeat creates nothing twice. */
  @IsUUID(undefined, { message: 'must be a UUID' })
  id!: string;

  @Matches(/\S/, { message: NAME })
  @Length(1, 80, { message: NAME })
  @IsString({ message: NAME })
  name!: string;

  @IsEmail({}, { message: EMAIL })
  @MaxLength(200, { message: EMAIL })
  @IsString({ message: EMAIL })
  email!: string;

  @IsIn(ROLES, { message: 'must be lead, clinician or assistant' })
  role!: StaffRole;
}

export class MemberPatch {
  @MayBeLeftOut()
  @Matches(/\S/, { message: NAME })
  @Length(1, 80, { message: NAME })
  @IsString({ message: NAME })
  name?: string;

  @MayBeLeftOut()
  @IsIn(ROLES, { message: 'must be lead, clinician or assistant' })
  role?: StaffRole;

  /** True: they leave, and are signed out everywhere. False: they are back, and choose a password anew. */
  @IsOptional()
  @IsIn([true, false], { message: 'must be yes or no' })
  left?: boolean;
}

/** What a link was made for. */
export class AccountLinkBody {
  @Length(1, 200, { message: 'must be the end of a link' })
  @IsString({ message: 'must be the end of a link' })
  token!: string;
}

export class ChosenPasswordBody extends AccountLinkBody {
  @Length(SHORTEST_PASSWORD, 200, { message: PASSWORD })
  @IsString({ message: PASSWORD })
  password!: string;
}

export class OwnPasswordBody {
  @Length(1, 200, { message: 'Type the password you have' })
  @IsString({ message: 'Type the password you have' })
  current!: string;

  @Length(SHORTEST_PASSWORD, 200, { message: PASSWORD })
  @IsString({ message: PASSWORD })
  password!: string;
}

/** What a clinic says of itself. */
export class ClinicBody {
  @Matches(/\S/, { message: PLACE })
  @Length(1, 120, { message: PLACE })
  @IsString({ message: PLACE })
  name!: string;

  /** Stands on every paper and phone. */
  @Matches(/^\+?[\d ()-]{3,30}$/, { message: PHONE })
  @IsString({ message: PHONE })
  phone!: string;

  @Matches(/^\d{2,12}$/, { message: EMERGENCY })
  @IsString({ message: EMERGENCY })
  emergencyNumber!: string;

  /** How days and numbers are written, BCP 47. */
  @MaxLength(35)
  @IsString({ message: 'must be a language tag such as en-GB' })
  locale!: string;

  /** IANA name; days of visits and stages are days there. */
  @MaxLength(60)
  @IsString({ message: 'must be a time zone such as Europe/London' })
  timeZone!: string;
}

/** A clinic that is made, and the first who leads it. */
export class NewClinicBody extends ClinicBody {
  @Matches(/\S/, { message: NAME })
  @Length(1, 80, { message: NAME })
  @IsString({ message: NAME })
  lead!: string;

  @IsEmail({}, { message: EMAIL })
  @MaxLength(200, { message: EMAIL })
  @IsString({ message: EMAIL })
  email!: string;
}

/** Someone of the clinic, as the lead sees them. */
export interface MemberView {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly role: StaffRole;
  readonly registration: string | null;
  /** Invited: has no password yet. */
  readonly state: 'invited' | 'here' | 'left';
  readonly leftAt: string | null;
  readonly secondStep: boolean;
  readonly lastSignIn: string | null;
  /** Devices that are signed in now. */
  readonly devices: number;
  /** Devices that sign in by themselves. */
  readonly passkeys: number;
  /** Until when a link that is not used yet stands. */
  readonly linkUntil: string | null;
}

/** A link as it is told once. */
export interface AccountLinkView {
  /** Path and fragment; the fragment goes to no server and no log. */
  readonly path: string;
  readonly until: string;
}

/** For whom a link is. */
export interface AccountLinkFor {
  readonly name: string;
  readonly email: string;
  readonly clinic: string;
}

/** A secret as an authenticator takes it: typed, or read from a picture of the address. */
export interface SecondStepView {
  readonly secret: string;
  readonly uri: string;
}

/** Codes for when the authenticator is lost; each is used once. */
export interface RecoveryCodesView {
  readonly codes: readonly string[];
}
