import type { ExerciseDefinition, Tag } from '../exercise/definition.js';
import type { Adjunct, Stage } from '../protocol/definition.js';
import { exerciseIn } from '../exercise/inTongue.js';
import { criterionSentences, type SentenceOn } from '../progress/criterionSentence.js';
import type { PerSide } from '../quantity/side.js';
import { type Tongue, spoken } from '../quantity/tongue.js';
import { withinRange } from './prescribe.js';
import { type Prescription, variantOf } from './prescription.js';
import { roundSentence, stretches, tidyRounds } from './rounds.js';
import { heldBack, type LeftOut } from './safety.js';
import { doseSentence, sentenceText } from './sentence.js';
import { prescriptionTime } from './timing.js';

/** One exercise as the patient reads it, on paper, on the phone and in every other form. */
export interface PatientExercise {
  readonly key: string;
  readonly name: string;
  readonly item: Prescription;
  /** The dose as one sentence. */
  readonly dose: string;
  readonly daysPerWeek: number;
  readonly days?: readonly number[] | undefined;
  /** What is said before it where a round begins with it; empty text where none does. */
  readonly inTurn: string;
  /** On a day it falls due, all times of that day together. */
  readonly daySeconds: number;
  readonly steps: readonly string[];
  readonly feel: string;
  /** What to do about the faults seen when it was taught. */
  readonly cues: readonly string[];
  readonly watchFor: readonly { readonly fault: string; readonly fix: string }[];
  readonly needs: readonly string[];
}

export interface PatientPlan {
  readonly purpose: string;
  readonly exercises: readonly PatientExercise[];
  readonly beside: readonly Adjunct[];
  /** What must hold for the next stage, a sentence each without a full stop; empty where there is none to come. */
  readonly goesOnWhen: readonly string[];
  /** Held back by safety since it was given; not shown to the patient. */
  readonly held: readonly LeftOut[];
}

export interface PatientPlanInput {
  readonly items: readonly Prescription[];
  readonly exerciseOf: (key: string) => ExerciseDefinition | undefined;
  readonly stage: Pick<Stage, 'purpose' | 'adjuncts' | 'criteria' | 'minimumDays'> | null;
  /** What criteria are called; nothing is said of the next stage without it. */
  readonly saying?: Omit<SentenceOn, 'tongue'>;
  readonly schools: Readonly<Record<string, string>>;
  readonly tagsOff: PerSide<readonly Tag[]>;
  /** What is done only with someone beside. */
  readonly supervised: PerSide<readonly Tag[]>;
  /** Faults seen when an exercise was last taught, as the library calls them. */
  readonly seenFaults: (exercise: string) => readonly string[];
  /** What the patient reads it in; English where it is not said. */
  readonly tongue?: Tongue;
}

/** What stands beside the exercises under the schools chosen. */
export const besideOf = (
  stage: Pick<Stage, 'adjuncts'>,
  schools: Readonly<Record<string, string>>,
): readonly Adjunct[] =>
  stage.adjuncts.filter((a) => Object.entries(a.school ?? {}).every(([q, o]) => schools[q] === o));

/** Something beside the exercises as the patient reads it: what, how much, and how it ends. */
export const besideText = (a: Pick<Adjunct, 'text' | 'dose' | 'weaning'>, t: Tongue = spoken()): string => {
  const dose = a.dose === null ? '' : `: ${t.inside(a.dose)}`;
  return `${a.text}${dose}.${a.weaning === null ? '' : ` ${a.weaning.text}.`}`;
};

/** Something beside the exercises in a tongue. */
const adjunctIn = (t: Tongue, a: Adjunct): Adjunct => ({
  ...a,
  text: t.say(a.text),
  dose: a.dose === null ? null : t.say(a.dose),
  weaning: a.weaning === null ? null : { ...a.weaning, text: t.say(a.weaning.text) },
});

/** What must hold to go on to the next stage, as the patient reads it. */
function goesOnWhen({ stage, saying, tongue: t = spoken() }: PatientPlanInput): readonly string[] {
  if (stage === null || stage.criteria === null || saying === undefined) return [];
  const days = t.say('at least {{days}} days in this stage', { days: stage.minimumDays });
  const sentences = [
    ...criterionSentences(stage.criteria, { ...saying, tongue: t, forPatient: true }),
    ...(stage.minimumDays > 0 ? [days.charAt(0).toUpperCase() + days.slice(1)] : []),
  ];
  return [...new Set(sentences)];
}

/** How it is done, with what is minded first where someone has to be beside. */
export const stepsOf = (
  { beside }: Pick<Prescription, 'beside'>,
  { steps }: Pick<ExerciseDefinition, 'steps'>,
  t: Tongue = spoken(),
): readonly string[] => (beside === true ? [t.say('Only with someone beside you'), ...steps] : steps);

function patientExercise(
  item: Prescription,
  e: ExerciseDefinition,
  seen: readonly string[],
  t: Tongue,
): PatientExercise {
  const time = prescriptionTime(item, e);
  const variant = variantOf(item, e);
  return {
    key: e.key,
    name: e.name,
    item,
    dose: sentenceText(doseSentence(item, e, t)),
    daysPerWeek: item.daysPerWeek,
    days: item.days,
    inTurn: '',
    daySeconds: time.ok ? time.value.daySeconds : 0,
    steps: variant === null ? stepsOf(item, e, t) : [...stepsOf(item, e, t), variant.how],
    feel: e.feel,
    cues: e.faults.filter((f) => seen.includes(f.fault)).map((f) => f.fix),
    watchFor: e.faults.filter((f) => !seen.includes(f.fault)),
    needs: e.equipment,
  };
}

/** The content of everything a patient is given of a plan; what safety switches off now is not in it. */
export function patientPlan(input: PatientPlanInput): PatientPlan {
  const { kept, held } = heldBack(input.items, input.exerciseOf, input);
  const t = input.tongue ?? spoken();
  // Left alone by what is held back, an exercise is rested as it must be by itself.
  const alone = (item: Prescription): Prescription => {
    const exercise = input.exerciseOf(item.exercise);
    return exercise === undefined ? item : withinRange(item, exercise);
  };
  return {
    purpose: input.stage === null ? '' : t.say(input.stage.purpose.patient),
    exercises: stretches(tidyRounds(kept, alone)).flatMap((group) =>
      group.flatMap((item, i) => {
        const e = input.exerciseOf(item.exercise);
        const seen = input.seenFaults(item.exercise).map((fault) => t.say(fault));
        const inTurn = i === 0 ? roundSentence(group, t) : '';
        return e === undefined ? [] : [{ ...patientExercise(item, exerciseIn(t, e), seen, t), inTurn }];
      }),
    ),
    beside: input.stage === null ? [] : besideOf(input.stage, input.schools).map((a) => adjunctIn(t, a)),
    goesOnWhen: goesOnWhen(input),
    held,
  };
}
