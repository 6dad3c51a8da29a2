import { IsString, IsUUID, Matches, MaxLength } from 'class-validator';

const QUESTION = 'Type a question of at most 500 characters';

/** The longest question, in characters. */
export const LONGEST_QUESTION = 500;
/** So many may wait for an answer at once. [convention] */
export const MOST_OPEN_QUESTIONS = 10;

/** What a patient asks the clinic from home; nothing urgent. */
export class QuestionBody {
  @IsUUID(undefined, { message: 'must be a UUID' })
  id!: string;

  @MaxLength(LONGEST_QUESTION, { message: QUESTION })
  @Matches(/\S/, { message: QUESTION })
  @IsString({ message: QUESTION })
  text!: string;
}

/** The answer, as the patient reads it on the phone. */
export class AnswerBody {
  @MaxLength(1000, { message: 'At most 1000 characters' })
  @Matches(/\S/, { message: 'Type what the patient is to read' })
  @IsString({ message: 'Type what the patient is to read' })
  answer!: string;
}

export interface QuestionView {
  readonly id: string;
  readonly day: string;
  readonly text: string;
  /** Null while nobody has answered. */
  readonly answer: { readonly text: string; readonly day: string; readonly by: string } | null;
}
