import type { DoseSides } from '@heathstep/core';

/** One exercise of the paper, in the language of who reads it. */
export interface HandoutExercise {
  readonly key: string;
  readonly sides: DoseSides;
  readonly name: string;
  /** Said before it where a round begins with it; empty text where none does. */
  readonly inTurn: string;
  readonly dose: string;
  readonly steps: string;
  readonly feel: string;
  /** What was seen when it was taught and what to do, else what to watch for; empty text where nothing is. */
  readonly cue: { readonly label: string; readonly text: string };
  readonly needs: string;
  /** Whether it is done on each weekday, from Monday. */
  readonly days: readonly boolean[];
}

export interface HandoutPart {
  /** Name of the complaint; empty for the first, which has the paper's own title. */
  readonly title: string;
  readonly purpose: string;
  readonly exercises: readonly HandoutExercise[];
  readonly beside: readonly string[];
  /** What must hold for the next stage. */
  readonly goesOnWhen: readonly string[];
}

/** Everything the paper says, in its order; printed, set as a PDF and written as text from this alone. */
export interface HandoutContent {
  /** ISO 639-1. */
  readonly language: string;
  readonly title: string;
  readonly clinic: string;
  readonly version: string;
  readonly parts: readonly HandoutPart[];
  readonly allRight: { readonly title: string; readonly text: string };
  readonly stop: {
    readonly title: string;
    readonly emergency: { readonly label: string; readonly signs: string };
    readonly review: { readonly label: string; readonly signs: string };
    /** What the clinic says beside its numbers. */
    readonly notes: readonly string[];
  };
  readonly notice: string;
  readonly labels: {
    readonly feel: string;
    readonly needs: string;
    readonly beside: string;
    readonly goesOn: string;
    readonly page: string;
    readonly footer: string;
    readonly weekdays: readonly string[];
  };
  /** Exercises of the plan that safety holds back now; for who prints it, never on the paper. */
  readonly held: readonly string[];
}

const sentence = (label: string, text: string): string => (text === '' ? '' : `${label} ${text}.`);

/** The paper as plain text, for a message or a screen reader. */
export function handoutText(paper: HandoutContent): string {
  const { labels } = paper;
  let count = 0;
  const parts = paper.parts.flatMap((part) => [
    ...(part.title === '' ? [] : [part.title.toUpperCase(), '']),
    ...(part.purpose === '' ? [] : [`${part.purpose}.`, '']),
    ...part.exercises.flatMap((e) => {
      count += 1;
      return [
        e.inTurn,
        `${count}. ${e.name}`,
        e.dose,
        e.days.every((d) => d) ? '' : labels.weekdays.filter((_, i) => e.days[i] === true).join(', '),
        e.steps,
        sentence(labels.feel, e.feel),
        sentence(e.cue.label, e.cue.text),
        sentence(labels.needs, e.needs),
      ]
        .filter((line) => line !== '')
        .concat('');
    }),
    ...(part.beside.length === 0 ? [] : [labels.beside, ...part.beside.map((b) => `- ${b}`), '']),
    ...(part.goesOnWhen.length === 0 ? [] : [labels.goesOn, ...part.goesOnWhen.map((c) => `- ${c}.`), '']),
  ]);
  return [
    paper.title,
    paper.clinic,
    paper.version,
    '',
    ...parts,
    paper.allRight.title,
    paper.allRight.text,
    '',
    paper.stop.title,
    sentence(paper.stop.emergency.label, paper.stop.emergency.signs),
    sentence(paper.stop.review.label, paper.stop.review.signs),
    ...paper.stop.notes,
    '',
    paper.notice,
    '',
  ].join('\n');
}
