import { IsBoolean, IsUUID } from 'class-validator';
import { MayBeLeftOut } from './validators.js';

export class MergeBody {
  @IsUUID(undefined, { message: 'must be a UUID' })
  id!: string;

  /** Whose record comes into the other and is no record of its own any more. */
  @IsUUID(undefined, { message: 'Choose the other record' })
  gone!: string;

  /** The two have dates of birth that differ, and it was looked at. */
  @MayBeLeftOut()
  @IsBoolean({ message: 'must be yes or no' })
  differs?: boolean;
}

/** Two records that were brought together; it can be undone. */
export interface MergeView {
  readonly id: string;
  readonly goneName: string;
  readonly goneBirthDate: string | null;
  readonly at: string;
  readonly by: string;
  readonly undoneAt: string | null;
}
