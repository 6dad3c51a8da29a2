import { IsObject, IsString, IsUUID, Length, Matches } from 'class-validator';
import { ByPasswordBody } from './session.js';

/** As many as one person has. [convention] */
export const MOST_PASSKEYS = 10;

const NAME = 'Name the device, in up to 60 characters';

/** What a device answered to a challenge, as the browser gives it. */
export class PasskeyBody {
  @Matches(/\S/, { message: NAME })
  @Length(1, 60, { message: NAME })
  @IsString({ message: NAME })
  name!: string;

  @IsObject({ message: 'must be what the device answered' })
  response!: object;
}

export class PasskeyOptionsBody extends ByPasswordBody {}

export class PasskeySignInBody {
  /** Of the challenge that was answered. */
  @IsUUID(undefined, { message: 'must be a UUID' })
  id!: string;

  @IsObject({ message: 'must be what the device answered' })
  response!: object;
}

/** A challenge for a device; what it holds is for the browser. */
export interface PasskeyChallenge {
  readonly id: string;
  readonly options: Readonly<Record<string, unknown>>;
}

/** A device that signs in without a password. */
export interface PasskeyView {
  readonly id: string;
  readonly name: string;
  readonly createdAt: string;
  readonly usedAt: string | null;
}
