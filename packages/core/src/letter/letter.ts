import { phrase } from '../quantity/tongue.js';

/** What a letter is for. */
export const LETTER_KINDS = ['referral', 'progress', 'discharge'] as const;
export type LetterKind = (typeof LETTER_KINDS)[number];

/** What of the record a letter can show beside what is written in it; open signs are in every letter. */
export const LETTER_PARTS = [
  'measured',
  'charts',
  'activities',
  'course',
  'cautions',
  'goesOn',
  'relapse',
] as const;
export type LetterPart = (typeof LETTER_PARTS)[number];

/** Gaps a template may leave; each is filled from the record when a letter is begun. */
export const LETTER_GAPS = [
  'person',
  'born',
  'complaint',
  'from',
  'visits',
  'stage',
  'clinic',
  'phone',
  'author',
] as const;
export type LetterGap = (typeof LETTER_GAPS)[number];

/** What a clinic begins its letters of a kind with. */
export interface LetterTemplate {
  readonly letter: LetterKind;
  /** Text above what is shown of the record, with gaps such as `{{person}}`. */
  readonly opening: string;
  /** Text below it. */
  readonly closing: string;
  readonly shows: readonly LetterPart[];
}

/** Longest text above or below what the record shows, in characters. [convention] */
export const LONGEST_LETTER_TEXT = 6000;

const GAP = /\{\{\s*([^{}]*?)\s*\}\}/g;

/** Gaps of a text that nothing fills, as they stand in it; each once. */
export const unknownGaps = (text: string): string[] => [
  ...new Set(
    [...text.matchAll(GAP)].flatMap(([, name = '']) =>
      (LETTER_GAPS as readonly string[]).includes(name) ? [] : [name],
    ),
  ),
];

/** A template's text with its gaps filled; what is unknown stays to be seen. */
export const fillLetter = (text: string, values: Readonly<Record<LetterGap, string>>): string =>
  text.replace(GAP, (whole, name: string) => values[name as LetterGap] ?? whole);

/** A gap that was left in a text that is to be sent. */
export const openGaps = (text: string): string[] => [
  ...new Set([...text.matchAll(GAP)].map(([whole]) => whole)),
];

/** Paragraphs of a text: an empty line parts them, single ends of lines stay. */
export const paragraphs = (text: string): string[] =>
  text
    .replaceAll('\r\n', '\n')
    .split(/\n[ \t]*\n+/)
    .map((p) => p.trim())
    .filter((p) => p !== '');

/** Kinds and parts as they are called. */
export const LETTER_KIND_WORDS: Readonly<Record<LetterKind, string>> = {
  referral: phrase('Referral'),
  progress: phrase('How it goes'),
  discharge: phrase('Discharge'),
};
export const LETTER_PART_WORDS: Readonly<Record<LetterPart, string>> = {
  measured: phrase('What was measured, first to last'),
  charts: phrase('Charts'),
  activities: phrase('What mattered most'),
  course: phrase('The course'),
  cautions: phrase('To mind'),
  goesOn: phrase('Exercises at home'),
  relapse: phrase('If it comes back'),
};
