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
