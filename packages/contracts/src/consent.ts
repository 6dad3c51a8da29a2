import { phrase } from '@heathstep/core';
import { IsBoolean, IsIn, IsISO8601, IsString, IsUUID, Matches, MaxLength } from 'class-validator';

/** What someone agrees to, or does not. */
export const CONSENT_KINDS = ['treatment', 'pictures', 'letters', 'research'] as const;
export type ConsentKind = (typeof CONSENT_KINDS)[number];

export const CONSENT_WORDS: Readonly<Record<ConsentKind, string>> = {
  treatment: phrase('Assessment and treatment'),
  pictures: phrase('Pictures of the feet in the record'),
  letters: phrase('Letters to others who treat them'),
  research: phrase('Measurements without a name, for research'),
};

/** What a no means here. */
export const CONSENT_MEANS: Readonly<Record<ConsentKind, string>> = {
  treatment: phrase('a no stands above every visit'),
  pictures: phrase('after a no no picture is taken'),
  letters: phrase('after a no a letter asks before it is noted as sent'),
  research: phrase('after a no they are left out'),
};

export const CONSENT_WAYS = ['spoken', 'written', 'by-another'] as const;
export type ConsentWay = (typeof CONSENT_WAYS)[number];

export const CONSENT_WAY_WORDS: Readonly<Record<ConsentWay, string>> = {
  spoken: phrase('said'),
  written: phrase('in writing'),
  'by-another': phrase('by who may decide for them'),
};

export class ConsentBody {
  @IsUUID(undefined, { message: 'must be a UUID' })
  id!: string;

  @IsIn(CONSENT_KINDS, { message: 'Choose what it is about' })
  kind!: ConsentKind;

  @IsBoolean({ message: 'Choose yes or no' })
  given!: boolean;

  @IsIn(CONSENT_WAYS, { message: 'Choose how it was told' })
  way!: ConsentWay;

  @IsISO8601({ strict: true }, { message: 'There is no such day' })
  @Matches(/^\d{4}-\d{2}-\d{2}$/, { message: 'Type a day such as 2026-05-31' })
  on!: string;

  @MaxLength(200, { message: 'At most 200 characters' })
  @IsString({ message: 'At most 200 characters' })
  note!: string;
}

export interface ConsentView {
  readonly id: string;
  readonly kind: ConsentKind;
  readonly given: boolean;
  readonly way: ConsentWay;
  readonly on: string;
  readonly note: string;
  readonly at: string;
  readonly by: string;
}

/** What was told of consent, the newest first; of each kind the first stands. */
export interface ConsentsView {
  readonly told: readonly ConsentView[];
}

/** What stands of a kind: the newest that was told; null where nothing was. */
export const standingConsent = (told: readonly ConsentView[], kind: ConsentKind): ConsentView | null =>
  told.find((c) => c.kind === kind) ?? null;
