import type { ContentBundle } from '@heathstep/content';
import { lastFaults } from '@heathstep/contracts';
import {
  type Affected,
  besideText,
  figureSvg,
  isDueOn,
  PAIN_ALL_RIGHT,
  patientPlan,
  type PatientPlan,
  signsText,
  stricterSchool,
} from '@heathstep/core';
import type { EpisodeRecord } from '../episodes/record.js';

/** One exercise of the paper. */
export interface HandoutExercise {
  readonly name: string;
  readonly dose: string;
  readonly steps: string;
  readonly feel: string;
  /** What was seen when it was taught and what to do, else what to watch for; empty where nothing is. */
  readonly cue: string;
  readonly needs: string;
  /** The picture as SVG; null where there is none. */
  readonly figure: string | null;
  /** Whether it is done on each weekday, from Monday. */
  readonly days: readonly boolean[];
}

export interface HandoutPart {
  /** Name of the complaint; empty for the first, which has the paper's own title. */
  readonly title: string;
  readonly purpose: string;
  readonly exercises: readonly HandoutExercise[];
  readonly beside: readonly string[];
}

/** Everything the paper says, in its order. */
export interface HandoutContent {
  readonly title: string;
  readonly clinic: string;
  readonly version: string;
  readonly parts: readonly HandoutPart[];
  readonly allRight: string;
  readonly emergency: { readonly call: string; readonly signs: string };
  readonly review: { readonly call: string; readonly signs: string };
  readonly usually: string;
}

const WEEK = [0, 1, 2, 3, 4, 5, 6];

const lowerFirst = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

function partOf(title: string, plan: PatientPlan, record: EpisodeRecord): HandoutPart {
  return {
    title,
    purpose: plan.purpose,
    exercises: plan.exercises.map((e): HandoutExercise => {
      const figure = record.library.figure(e.key);
      const [watch] = e.watchFor;
      return {
        name: e.name,
        dose: e.dose,
        steps: `${e.steps.join('. ')}.`,
        feel: lowerFirst(e.feel),
        cue:
          e.cues.length > 0
            ? e.cues.join('; ')
            : watch === undefined
              ? ''
              : `${lowerFirst(watch.fault)}: ${lowerFirst(watch.fix)}`,
        needs: e.needs.join(', '),
        figure: figure === undefined ? null : figureSvg(figure, e.item.sides),
        days: WEEK.map((day) => isDueOn(e, day)),
      };
    }),
    beside: plan.beside.map(besideText),
  };
}

/** A day in words, by the clinic's own calendar. */
const dayText = (iso: string, { locale, timeZone }: EpisodeRecord['clinic']): string =>
  new Intl.DateTimeFormat(locale, { day: 'numeric', month: 'long', year: 'numeric', timeZone }).format(
    new Date(iso),
  );

/** The name of a complaint as the clinic says it. */
function complaintTitle(
  content: ContentBundle,
  c: { readonly condition: string; readonly affected: Affected },
): string {
  const name = content.pathways.find((p) => p.key === c.condition)?.name ?? '';
  return `${name}, ${c.affected === 'both' ? 'both sides' : c.affected}`;
}

/** What the patient is given on paper; null when there is nothing that may be given now. */
export function handoutContent(record: EpisodeRecord, content: ContentBundle): HandoutContent | null {
  const { view, clinic, library, protocol } = record;
  if (view.plan === null || view.heldBack.length > 0) return null;
  const stage = view.plan.madeOf;
  const plan = patientPlan({
    items: view.plan.items,
    exerciseOf: (key) => library.exercise(key),
    stage,
    schools: view.schools,
    tagsOff: view.tagsOff,
    seenFaults: (exercise) => lastFaults(view.taught, exercise),
  });
  const others = view.elsewhere.flatMap((c) =>
    c.plan === null || c.blocks.length > 0 ? [] : [partOf(complaintTitle(content, c), c.plan, record)],
  );
  const signs = (grade: string) =>
    signsText(content.stopSigns.filter((s) => s.grade === grade).map((s) => s.text));
  return {
    title: `${view.person.name.split(/\s+/)[0] ?? ''}, your plan`,
    clinic: clinic.name,
    version: `Version ${view.plan.number}${view.plan.givenAt === null ? '' : `, ${dayText(view.plan.givenAt, clinic)}`}`,
    parts: [partOf('', plan, record), ...others],
    allRight: PAIN_ALL_RIGHT[stricterSchool(stage.painSchool, view.safety?.acts.school ?? null)],
    emergency: { call: clinic.emergencyNumber, signs: signs('emergency') },
    review: { call: clinic.phone, signs: signs('review') },
    usually: protocol.usually,
  };
}
