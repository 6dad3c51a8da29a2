import { say } from '@heathstep/core';
import { TextField } from './fields.js';

interface Props {
  readonly label?: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly error: string | null;
  readonly autoFocus?: boolean;
}

/** The password someone has, typed to show that it is still they who act. */
export const PasswordField = ({ label = say('Password'), ...field }: Props) => (
  <TextField {...field} label={label} type="password" autoComplete="current-password" maxLength={200} />
);
