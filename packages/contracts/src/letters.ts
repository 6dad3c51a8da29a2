import {
  LETTER_KIND_WORDS,
  LETTER_KINDS,
  LETTER_PARTS,
  type LetterKind,
  type LetterPart,
  LONGEST_LETTER_TEXT,
  paragraphs,
  phrase,
  say,
} from '@heathstep/core';
import {
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsIn,
  IsISO8601,
  IsString,
  IsUUID,
  Matches,
  MaxLength,
} from 'class-validator';
import type { LetterContent } from './discharge.js';
import { IsVersion, MayBeLeftOut } from './validators.js';

/** How a letter went out. */
export const LETTER_WAYS = ['by-hand', 'post', 'secure-message', 'fax', 'other'] as const;
export type LetterWay = (typeof LETTER_WAYS)[number];

export const LETTER_WAY_WORDS: Readonly<Record<LetterWay, string>> = {
  'by-hand': phrase('handed over'),
  post: phrase('by post'),
  'secure-message': phrase('by secure message'),
  fax: phrase('by fax'),
  other: phrase('another way'),
};

/** As many drafts as a complaint can have at a time. [convention] */
export const MOST_LETTER_DRAFTS = 12;

const TEXT_WORDS = `At most ${LONGEST_LETTER_TEXT} characters`;

/** What is written by hand in a letter. */
export interface LetterText {
  readonly to: string;
  readonly opening: string;
  readonly closing: string;
  readonly shows: readonly LetterPart[];
}

export class LetterStartBody {
  @IsUUID(undefined, { message: 'must be a UUID' })
  id!: string;

  @IsIn(LETTER_KINDS, { message: 'Choose what the letter is for' })
  kind!: LetterKind;
}

class LetterTextBody implements LetterText {
  @MaxLength(400, { message: 'At most 400 characters' })
  @IsString({ message: 'At most 400 characters' })
  to!: string;

  @MaxLength(LONGEST_LETTER_TEXT, { message: TEXT_WORDS })
  @IsString({ message: TEXT_WORDS })
  opening!: string;

  @MaxLength(LONGEST_LETTER_TEXT, { message: TEXT_WORDS })
  @IsString({ message: TEXT_WORDS })
  closing!: string;

  @ArrayUnique({ message: 'Each part once' })
  @IsIn(LETTER_PARTS, { each: true, message: 'must be parts of a letter' })
  @IsArray({ message: 'must be a list of parts' })
  shows!: LetterPart[];
}

export class LetterBody extends LetterTextBody {
  @IsVersion(1, 'must be the version that was changed')
  version!: number;
}

export class LetterSentBody {
  @IsVersion(1, 'must be the version that was sent')
  version!: number;

  /** Of the content as it was shown, so that nothing goes out that nobody read. */
  @Matches(/^[0-9a-f]{64}$/, { message: 'must be the mark of what was shown' })
  @IsString({ message: 'must be the mark of what was shown' })
  mark!: string;

  @IsIn(LETTER_WAYS, { message: 'Choose how it went out' })
  way!: LetterWay;

  /** They do not agree to letters, and it goes out all the same. */
  @MayBeLeftOut()
  @IsBoolean({ message: 'must be yes or no' })
  allTheSame?: boolean;

  @IsISO8601({ strict: true }, { message: 'There is no such day' })
  @Matches(/^\d{4}-\d{2}-\d{2}$/, { message: 'Type a day such as 2026-05-31' })
  on!: string;
}

export class LetterTemplateBody {
  @IsVersion(0, 'must be the version that was changed')
  version!: number;

  @Matches(/\S/, { message: 'Write what the letter begins with' })
  @MaxLength(LONGEST_LETTER_TEXT, { message: TEXT_WORDS })
  @IsString({ message: TEXT_WORDS })
  opening!: string;

  @MaxLength(LONGEST_LETTER_TEXT, { message: TEXT_WORDS })
  @IsString({ message: TEXT_WORDS })
  closing!: string;

  @ArrayUnique({ message: 'Each part once' })
  @IsIn(LETTER_PARTS, { each: true, message: 'must be parts of a letter' })
  @IsArray({ message: 'must be a list of parts' })
  shows!: LetterPart[];
}

export interface LetterTemplateView {
  readonly letter: LetterKind;
  readonly opening: string;
  readonly closing: string;
  readonly shows: readonly LetterPart[];
  /** 0 is the one that comes with the application. */
  readonly version: number;
  readonly by: string | null;
  readonly at: string | null;
}

/** A letter of a complaint as a list shows it. */
export interface LetterView {
  readonly id: string;
  readonly episodeId: string;
  readonly kind: LetterKind;
  readonly to: string;
  readonly version: number;
  readonly startedAt: string;
  readonly at: string;
  readonly by: string;
  readonly sent: { readonly on: string; readonly way: LetterWay; readonly by: string } | null;
  /** A draft that was thrown away; it can be taken back. */
  readonly dropped: boolean;
}

/** What a kind of letter cannot be begun for now, in words; null where it can. */
export type LettersOpen = Readonly<Record<LetterKind, string | null>>;

export interface LettersView {
  readonly letters: readonly LetterView[];
  readonly open: LettersOpen;
}

/** A letter with what the record shows in it: of a draft as it stands now, of one that was sent as it went out. */
export interface LetterPageView {
  readonly letter: LetterView;
  readonly text: LetterText;
  /** All that the record has for it; which parts are shown, the text says. */
  readonly content: LetterContent;
  /** Of what is shown of a draft now; null of one that was sent. */
  readonly mark: string | null;
  /** They do not agree to letters: it goes out only where one says so. */
  readonly refused: boolean;
  /** Why it cannot go out as it is; null where it can. */
  readonly not: string | null;
  readonly person: { readonly id: string; readonly name: string };
}

/** A letter as it is read and printed: what is written in it around what of the record is chosen. Open signs always stand. */
export function composeLetter(content: LetterContent, kind: LetterKind, text: LetterText): LetterContent {
  const shows = new Set(text.shows);
  return {
    ...content,
    title: say(LETTER_KIND_WORDS[kind]),
    to: text.to
      .split('\n')
      .map((line) => line.trim())
      .filter((line) => line !== ''),
    opening: paragraphs(text.opening),
    closing: paragraphs(text.closing),
    rows: shows.has('measured') ? content.rows : [],
    more: shows.has('measured') ? content.more : 0,
    charts: shows.has('charts') ? content.charts : [],
    parts: content.parts.filter((p) => shows.has(p.key)),
  };
}

const isText = (value: unknown): value is string => typeof value === 'string';

const isObject = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const textsIn = (value: unknown, ...fields: readonly string[]): boolean =>
  isObject(value) && fields.every((f) => isText(value[f]));

const listOf = (value: unknown, is: (one: unknown) => boolean): boolean =>
  Array.isArray(value) && value.every(is);

/** Whether something can be read as what is written in a letter. */
export const isLetterText = (value: unknown): value is LetterText =>
  textsIn(value, 'to', 'opening', 'closing') &&
  listOf((value as LetterText).shows, (s) => (LETTER_PARTS as readonly unknown[]).includes(s));

/** Whether something can be read and printed as a letter that went out. */
export const isLetterContent = (value: unknown): value is LetterContent =>
  textsIn(value, 'title', 'clinic', 'day', 'person', 'signed', 'notice') &&
  isObject(value) &&
  ['to', 'opening', 'closing', 'open'].every((f) => listOf(value[f], isText)) &&
  typeof value['more'] === 'number' &&
  listOf(value['about'], (a) => textsIn(a, 'label', 'text')) &&
  listOf(value['rows'], (r) =>
    textsIn(r, 'measure', 'side', 'sideText', 'first', 'last', 'change', 'other'),
  ) &&
  listOf(value['charts'], (c) => textsIn(c, 'title', 'alt', 'svg')) &&
  listOf(value['parts'], (p) => textsIn(p, 'title') && isObject(p) && listOf(p['lines'], isText)) &&
  textsIn(
    value['labels'],
    ...['open', 'measured', 'measure', 'side', 'first', 'last', 'change', 'other', 'more', 'footer'],
  );
