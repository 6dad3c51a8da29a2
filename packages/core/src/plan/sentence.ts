import type { DoseSides } from '../dose/dose.js';
import type { Counted, ExerciseDefinition } from '../exercise/definition.js';
import { type DayPart, type Prescription, variantOf } from './prescription.js';
import { isWalkRun } from '../dose/walkRun.js';
import { type Tongue, spoken } from '../quantity/tongue.js';

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

function days(perWeek: number, t: Tongue): string {
  if (perWeek === 7) return t.say('every day');
  return t.say(perWeek === 1 ? '{{count}} day a week' : '{{count}} days a week', { count: perWeek });
}

/** Minutes where they are whole or long, else seconds. */
const long = (seconds: number, t: Tongue): string =>
  seconds >= 120 && seconds % 60 === 0
    ? t.say('{{n}} min', { n: t.number(seconds / 60) })
    : t.say('{{n}} s', { n: t.number(seconds) });

const NOUNS: Partial<Record<Counted, readonly [one: string, many: string]>> = {
  pulls: ['pull', 'pulls'],
  pieces: ['piece', 'pieces'],
  laps: ['lap', 'laps'],
  letters: ['letter', 'letters'],
  steps: ['step', 'steps'],
};

const setsOf = ({ sets, round }: Prescription, t: Tongue): string =>
  round === undefined
    ? t.say(sets === 1 ? 'set of' : 'sets of', { count: sets })
    : t.say(sets === 1 ? 'round of' : 'rounds of', { count: sets });

const IN_PART: Readonly<Record<DayPart, string>> = {
  morning: 'in the morning',
  midday: 'at midday',
  evening: 'in the evening',
};

/** What is done in one session: sets of repetitions at a tempo, sets of holds, or minutes. */
function work(p: Prescription, exercise: ExerciseDefinition, t: Tongue): SentencePart[] {
  const number = (field: DoseField, value: number, text = t.number(value, 2)): SentencePart => ({
    kind: 'number',
    field,
    value,
    text,
  });
  const seconds = (n: number, does: string): string =>
    n >= 60 && n % 60 === 0
      ? t.say('{{n}} min {{does}}', { n: t.number(n / 60), does })
      : t.say('{{n}} s {{does}}', { n: t.number(n), does });
  const holds = p.holdSeconds !== undefined;
  if (exercise.counted === 'minutes' && holds && p.sets === 1 && p.reps === 1 && p.round === undefined)
    return [number('holdSeconds', p.holdSeconds, long(p.holdSeconds, t))];
  const noun = NOUNS[exercise.counted];
  const parts = [
    number('sets', p.sets),
    words(` ${setsOf(p, t)} `),
    number('reps', p.reps),
    ...(noun === undefined
      ? []
      : [words(` ${t.say(p.reps === 1 ? noun[0] : noun[1], { count: p.reps, context: 'counted' })}`)]),
  ];
  if (holds) {
    const held =
      noun === undefined
        ? ` ${t.say(p.reps === 1 ? 'hold of' : 'holds of', { count: p.reps })} `
        : `, ${t.say('held')} `;
    return [
      ...parts,
      words(held),
      number('holdSeconds', p.holdSeconds, t.say('{{n}} s', { n: t.number(p.holdSeconds) })),
    ];
  }
  if (p.tempo === undefined) return parts;
  const { upSeconds, topSeconds, downSeconds } = p.tempo;
  const [out, back] = exercise.beats;
  if (isWalkRun(exercise))
    return [
      number('reps', p.reps),
      words(` ${t.say('times', { count: p.reps })} `),
      number('upSeconds', upSeconds, seconds(upSeconds, out)),
      words(', '),
      number('downSeconds', downSeconds, seconds(downSeconds, back)),
    ];
  return [
    ...parts,
    words(', '),
    number('upSeconds', upSeconds, seconds(upSeconds, out)),
    ...(topSeconds > 0
      ? [words(', '), number('topSeconds', topSeconds, seconds(topSeconds, t.say('hold')))]
      : []),
    words(', '),
    number('downSeconds', downSeconds, seconds(downSeconds, back)),
  ];
}

/** Walked or run with both feet in turn: no one asks on which foot. */
const goesAlong = (exercise: ExerciseDefinition): boolean =>
  exercise.laterality === 'together' &&
  exercise.variants.length === 0 &&
  /^(walking|running)/.test(exercise.position);

/** No one is told to lift 0 kg. */
const weightText = (kg: number, t: Tongue): string =>
  kg > 0 ? t.say('{{n}} kg', { n: t.number(kg) }) : t.say('no weight');

/** Only for an exercise that has variants. */
function variantPart(p: Prescription, exercise: ExerciseDefinition, t: Tongue): SentencePart[] {
  if (exercise.variants.length === 0) return [];
  const chosen = variantOf(p, exercise);
  const text = chosen === null ? '' : `, ${t.inside(chosen.name)}`;
  return [{ kind: 'variant', text, value: chosen?.key ?? null }];
}

/**
 * A prescription as one plain sentence in pieces; joined, they are what is printed and sent.
 * @param exercise in the same tongue, by `exerciseIn`
 */
export function doseSentence(
  p: Prescription,
  exercise: ExerciseDefinition,
  t: Tongue = spoken(),
): SentencePart[] {
  const weighted = exercise.range.addedKg !== undefined;
  const { timesPerDay, restSeconds, addedKg = 0 } = p;
  const once =
    timesPerDay === 1 ? t.say('once a day') : t.say('{{count}} times a day', { count: timesPerDay });
  return [
    ...(goesAlong(exercise)
      ? []
      : [
          { kind: 'sides', text: t.say(SIDES[p.sides]), value: p.sides } as const,
          ...variantPart(p, exercise, t),
          words(', '),
        ]),
    ...work(p, exercise, t),
    ...(weighted
      ? [
          words(`, ${t.say('with')} `),
          { kind: 'number', field: 'addedKg', value: addedKg, text: weightText(addedKg, t) } as const,
        ]
      : []),
    ...(p.sets > 1 || restSeconds > 0
      ? [
          words(`, ${t.say('rest')} `),
          {
            kind: 'number',
            field: 'restSeconds',
            value: restSeconds,
            text: t.say('{{n}} s', { n: t.number(restSeconds) }),
          } as const,
        ]
      : []),
    words(', '),
    { kind: 'number', field: 'timesPerDay', value: timesPerDay, text: once },
    words(', '),
    { kind: 'number', field: 'daysPerWeek', value: p.daysPerWeek, text: days(p.daysPerWeek, t) },
    ...(exercise.when === null ? [] : [words(`, ${exercise.when}`)]),
    ...(p.part === undefined ? [] : [words(`, ${t.say(IN_PART[p.part])}`)]),
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
  const next = { ...p, [field]: value };
  // What is done several times a day is spread over it.
  if (field !== 'timesPerDay' || value === 1) return next;
  const { part: _, ...spread } = next;
  return spread;
}

/** One number of a prescription, wherever it lives; undefined where it has none. */
export const doseFieldValue = (p: Prescription, field: DoseField): number | undefined =>
  field === 'upSeconds' || field === 'topSeconds' || field === 'downSeconds' ? p.tempo?.[field] : p[field];
