import type { DoseSides } from '../dose/dose.js';
import type { Counted, ExerciseDefinition } from '../exercise/definition.js';
import { type Prescription, variantOf } from './prescription.js';
import { shown } from '../quantity/statistics.js';

export type DoseField =
  | 'sets'
  | 'reps'
  | 'holdSeconds'
  | 'upSeconds'
  | 'topSeconds'
  | 'downSeconds'
  | 'restSeconds'
  | 'addedKg'
  | 'timesPerDay'
  | 'daysPerWeek';

/** A piece of the sentence: plain words, or a number that is edited in place. */
export type SentencePart =
  | { readonly kind: 'words'; readonly text: string }
  | { readonly kind: 'sides'; readonly text: string; readonly value: DoseSides }
  /** Which variant; empty words where it is done the usual way. */
  | { readonly kind: 'variant'; readonly text: string; readonly value: string | null }
  | { readonly kind: 'number'; readonly field: DoseField; readonly value: number; readonly text: string };

const SIDES: Record<DoseSides, string> = {
  left: 'Left',
  right: 'Right',
  together: 'Both feet together',
  'one-after-other': 'Left, then right',
  alternating: 'Left and right in turn',
};

const words = (text: string): SentencePart => ({ kind: 'words', text });

const number = (field: DoseField, value: number, text = shown(value, 2)): SentencePart => ({
  kind: 'number',
  field,
  value,
  text,
});

function days(perWeek: number): string {
  if (perWeek === 7) return 'every day';
  return perWeek === 1 ? '1 day a week' : `${perWeek} days a week`;
}

/** Minutes where they are whole or long, else seconds. */
const long = (seconds: number): string =>
  seconds >= 120 && seconds % 60 === 0 ? `${shown(seconds / 60)} min` : `${shown(seconds)} s`;

const NOUNS: Partial<Record<Counted, readonly [one: string, many: string]>> = {
  pulls: ['pull', 'pulls'],
  pieces: ['piece', 'pieces'],
  laps: ['lap', 'laps'],
  letters: ['letter', 'letters'],
  steps: ['step', 'steps'],
};

function work(p: Prescription, exercise: ExerciseDefinition): SentencePart[] {
  const holds = p.holdSeconds !== undefined;
  if (exercise.counted === 'minutes' && holds && p.sets === 1 && p.reps === 1)
    return [number('holdSeconds', p.holdSeconds, long(p.holdSeconds))];
  const noun = NOUNS[exercise.counted];
  const parts = [
    number('sets', p.sets),
    words(p.sets === 1 ? ' set of ' : ' sets of '),
    number('reps', p.reps),
    ...(noun === undefined ? [] : [words(` ${p.reps === 1 ? noun[0] : noun[1]}`)]),
  ];
  if (holds) {
    const [one, many] = noun === undefined ? [' hold of ', ' holds of '] : [', held ', ', held '];
    return [
      ...parts,
      words(p.reps === 1 ? one : many),
      number('holdSeconds', p.holdSeconds, `${shown(p.holdSeconds)} s`),
    ];
  }
  if (p.tempo === undefined) return parts;
  const { upSeconds, topSeconds, downSeconds } = p.tempo;
  const [out, back] = exercise.beats;
  return [
    ...parts,
    words(', '),
    number('upSeconds', upSeconds, `${shown(upSeconds)} s ${out}`),
    ...(topSeconds > 0 ? [words(', '), number('topSeconds', topSeconds, `${shown(topSeconds)} s hold`)] : []),
    words(', '),
    number('downSeconds', downSeconds, `${shown(downSeconds)} s ${back}`),
  ];
}

/** No one is told to lift 0 kg. */
const weightText = (kg: number): string => (kg > 0 ? `${shown(kg)} kg` : 'no weight');

/** Only for an exercise that has variants. */
function variantPart(p: Prescription, exercise: ExerciseDefinition): SentencePart[] {
  if (exercise.variants.length === 0) return [];
  const chosen = variantOf(p, exercise);
  const text = chosen === null ? '' : `, ${chosen.name.charAt(0).toLowerCase()}${chosen.name.slice(1)}`;
  return [{ kind: 'variant', text, value: chosen?.key ?? null }];
}

/** A prescription as one plain sentence in pieces; joined, they are what is printed and sent. */
export function doseSentence(p: Prescription, exercise: ExerciseDefinition): SentencePart[] {
  const weighted = exercise.range.addedKg !== undefined;
  return [
    { kind: 'sides', text: SIDES[p.sides], value: p.sides },
    ...variantPart(p, exercise),
    words(', '),
    ...work(p, exercise),
    ...(weighted ? [words(', with '), number('addedKg', p.addedKg ?? 0, weightText(p.addedKg ?? 0))] : []),
    ...(p.sets > 1 || p.restSeconds > 0
      ? [words(', rest '), number('restSeconds', p.restSeconds, `${shown(p.restSeconds)} s`)]
      : []),
    words(', '),
    number('timesPerDay', p.timesPerDay, p.timesPerDay === 1 ? 'once a day' : `${p.timesPerDay} times a day`),
    words(', '),
    number('daysPerWeek', p.daysPerWeek, days(p.daysPerWeek)),
    ...(exercise.when === null ? [] : [words(`, ${exercise.when}`)]),
  ];
}

/** The pieces of a dose as one printed sentence. */
export const sentenceText = (parts: readonly SentencePart[]): string =>
  `${parts.map((p) => p.text).join('')}.`;

/** Sets one number of a prescription, wherever it lives. */
export function withDoseField(p: Prescription, field: DoseField, value: number): Prescription {
  if (field === 'upSeconds' || field === 'topSeconds' || field === 'downSeconds') {
    return p.tempo === undefined ? p : { ...p, tempo: { ...p.tempo, [field]: value } };
  }
  return { ...p, [field]: value };
}

/** One number of a prescription, wherever it lives; undefined where it has none. */
export const doseFieldValue = (p: Prescription, field: DoseField): number | undefined =>
  field === 'upSeconds' || field === 'topSeconds' || field === 'downSeconds' ? p.tempo?.[field] : p[field];
