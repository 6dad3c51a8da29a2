import { shown } from './statistics.js';

/** What stands in the gaps of a text, by name. */
export type Gaps = Readonly<Record<string, string | number>>;

/**
 * A language. Every text is written in English where it is made, with gaps as `{{name}}`; a tongue says
 * it. `count` among the gaps chooses the form where a language has several, `context` the meaning where a word has
 * several: a step that is counted, a step to stand on.
 */
export interface Tongue {
  readonly say: (text: string, gaps?: Gaps) => string;
  /** A text that stands by itself, as it stands within a sentence: English begins it small, German leaves it. */
  readonly inside: (text: string) => string;
  /** A number with at most so many decimals, as it is written there. */
  readonly number: (value: number, decimals?: number) => string;
}

/** A text with its gaps filled; a gap without a value stays as it is. */
export const filled = (text: string, gaps?: Gaps): string =>
  gaps === undefined
    ? text
    : text.replace(/\{\{(\w+)\}\}/g, (whole, name: string) => String(gaps[name] ?? whole));

export const ENGLISH: Tongue = {
  say: filled,
  inside: (text) => text.charAt(0).toLowerCase() + text.slice(1),
  number: shown,
};

let spokenBy: () => Tongue = () => ENGLISH;

/** Sets who says in which language what clinicians read: the page once, the server for each request. */
export const speakBy = (which: () => Tongue): void => {
  spokenBy = which;
};

/** The language in which what clinicians read is said now. What a patient reads is said by the tongue that is handed on for it. */
export const spoken = (): Tongue => spokenBy();

/** A text in the language of who reads it now. */
export const say = (text: string, gaps?: Gaps): string => spokenBy().say(text, gaps);

/** The same of a text that may not be there. */
export const sayIf = (text: string | null): string | null => (text === null ? null : say(text));

/** A key that is a word, such as `not-tested`, in the language of who reads it now. */
export const sayKey = (key: string): string => say(key.replaceAll('-', ' '));

/** Marks a text that is written before anyone reads it, and said where it is shown. */
export const phrase = (text: string): string => text;
