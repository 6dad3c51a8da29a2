import type { LetterPart } from '@heathstep/core';

/** One measure on one side, from first to last, as the letter says it. */
export interface LetterRow {
  readonly measure: string;
  readonly side: 'left' | 'right' | 'none';
  readonly sideText: string;
  /** Value and day; empty text where nothing comparable was taken before. */
  readonly first: string;
  readonly last: string;
  /** By how much, and whether it is more than the error of the measurement. */
  readonly change: string;
  readonly direction: 'better' | 'worse' | 'same' | null;
  /** The other side's newest value; empty text where there is none. */
  readonly other: string;
}

/** A picture of the letter: what it shows, in words for who does not see it, and the drawing. */
export interface LetterChart {
  readonly title: string;
  readonly alt: string;
  readonly svg: string;
}

/** Everything the letter of a course says, in its order; shown and set as a PDF from this alone. */
export interface LetterContent {
  readonly title: string;
  /** To whom it goes, a line each; none where it is for whoever reads it. */
  readonly to: readonly string[];
  /** What is written above and below what the record shows, a paragraph each. */
  readonly opening: readonly string[];
  readonly closing: readonly string[];
  readonly clinic: string;
  /** Lines under it. */
  readonly letterhead?: readonly string[];
  readonly day: string;
  readonly person: string;
  /** What it is about, what was done: a label and its words each. */
  readonly about: readonly { readonly label: string; readonly text: string }[];
  /** Signs that are open: the first thing that is read. */
  readonly open: readonly string[];
  readonly rows: readonly LetterRow[];
  /** How many measures more are in the record. */
  readonly more: number;
  readonly charts: readonly LetterChart[];
  readonly parts: readonly {
    readonly key: LetterPart;
    readonly title: string;
    readonly lines: readonly string[];
  }[];
  readonly signed: string;
  readonly notice: string;
  readonly labels: {
    readonly open: string;
    readonly measured: string;
    readonly measure: string;
    readonly side: string;
    readonly first: string;
    readonly last: string;
    readonly change: string;
    readonly other: string;
    readonly more: string;
    readonly footer: string;
  };
}
