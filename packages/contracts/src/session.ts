import { IsEmail, IsString, MaxLength, MinLength } from 'class-validator';

export class SignInBody {
  @IsEmail({}, { message: 'Type an e-mail address such as name@clinic.example' })
  @MaxLength(200)
  @IsString()
  email!: string;

  @MinLength(1, { message: 'Type your password' })
  @MaxLength(200)
  @IsString({ message: 'Type your password' })
  password!: string;
}

/** What someone says of themselves. */
export class AccountPatch {
  @MaxLength(60, { message: 'At most 60 characters' })
  @IsString({ message: 'must be a text' })
  registration!: string;
}
