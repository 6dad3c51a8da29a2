import { IsEmail, IsOptional, IsString, Matches, MaxLength, MinLength } from 'class-validator';

export class SignInBody {
  @IsEmail({}, { message: 'Type an e-mail address such as name@clinic.example' })
  @MaxLength(200)
  @IsString()
  email!: string;

  @MinLength(1, { message: 'Type your password' })
  @MaxLength(200)
  @IsString({ message: 'Type your password' })
  password!: string;

  /** Of an authenticator, or one kept for when it is lost; only where the account has a second step. */
  @IsOptional()
  @MaxLength(40)
  @IsString({ message: 'Type the code' })
  code?: string;
}

/** What is only done by who knows the password. */
export class ByPasswordBody {
  @MinLength(1, { message: 'Type the password you have' })
  @MaxLength(200)
  @IsString({ message: 'Type the password you have' })
  current!: string;
}

/** The first code an authenticator shows. */
export class FirstCodeBody {
  @Matches(/^\s*\d{3}\s?\d{3}\s*$/, { message: 'Type the six digits that the authenticator shows' })
  @IsString({ message: 'Type the six digits that the authenticator shows' })
  code!: string;
}

/** What someone says of themselves. */
export class AccountPatch {
  @MaxLength(60, { message: 'At most 60 characters' })
  @IsString({ message: 'must be a text' })
  registration!: string;
}
