import type { ContentBundle } from '@heathstep/content';
import type { HandoutContent, HandoutExercise, HandoutPart } from '@heathstep/contracts';
import {
  type Affected,
  besideText,
  isDueOn,
  PAIN_ALL_RIGHT,
  type PatientExercise,
  type PatientPlan,
  signsText,
  type Tongue,
} from '@heathstep/core';
import { defaultsOf, painSchoolOn } from '../clinic/defaults.js';
import { type EpisodeRecord, patientPlanOf } from '../episodes/record.js';

const WEEK = [0, 1, 2, 3, 4, 5, 6];
const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

/** What was seen comes before what might be. */
function cueOf(e: PatientExercise, t: Tongue): HandoutExercise['cue'] {
  if (e.cues.length > 0) return { label: t.say('Your cue:'), text: e.cues.join('; ') };
  const [watch] = e.watchFor;
  return {
    label: t.say('Mind:'),
    text: watch === undefined ? '' : `${t.inside(watch.fault)}: ${t.inside(watch.fix)}`,
  };
}

const partOf = (title: string, plan: PatientPlan, t: Tongue): HandoutPart => ({
  title,
  purpose: plan.purpose,
  exercises: plan.exercises.map((e) => ({
    key: e.key,
    sides: e.item.sides,
    name: e.name,
    inTurn: e.inTurn,
    dose: e.dose,
    steps: `${e.steps.join('. ')}.`,
    feel: t.inside(e.feel),
    cue: cueOf(e, t),
    needs: e.needs.join(', '),
    days: WEEK.map((day) => isDueOn(e, day)),
  })),
  beside: plan.beside.map((a) => besideText(a, t)),
  goesOnWhen: plan.goesOnWhen,
});

/** A day in words, where the clinic is and as the reader writes it. */
const dayText = (iso: string, { locale, clinic }: EpisodeRecord): string =>
  new Intl.DateTimeFormat(locale, {
    day: 'numeric',
    month: 'long',
    year: 'numeric',
    timeZone: clinic.timeZone,
  }).format(new Date(iso));

const SIDES: Readonly<Record<Affected, string>> = {
  left: 'left',
  right: 'right',
  both: 'both sides',
  none: '',
};

/** The name of a complaint as the clinic says it. */
function complaintTitle(
  content: ContentBundle,
  c: { readonly condition: string; readonly affected: Affected },
  t: Tongue,
): string {
  const name = content.pathways.find((p) => p.key === c.condition)?.name ?? '';
  return `${t.say(name)}, ${t.say(SIDES[c.affected])}`;
}

function versionText(
  record: EpisodeRecord,
  plan: { readonly number: number; readonly givenAt: string | null },
) {
  const version = record.tongue.say('Version {{number}}', { number: plan.number });
  return plan.givenAt === null ? version : `${version}, ${dayText(plan.givenAt, record)}`;
}

/** What the patient is given on paper, in the language of the person; null when there is nothing that may be given now. */
export function handoutContent(record: EpisodeRecord, content: ContentBundle): HandoutContent | null {
  const { view, clinic, protocol, tongue: t } = record;
  if (view.plan === null || view.heldBack.length > 0) return null;
  const plan = patientPlanOf(record, view.plan);
  const others = view.elsewhere.flatMap((c) =>
    c.plan === null || c.blocks.length > 0 ? [] : [partOf(complaintTitle(content, c, t), c.plan, t)],
  );
  const signs = (grade: string) =>
    signsText(
      content.stopSigns.filter((s) => s.grade === grade).map((s) => s.text),
      t,
    );
  const school = painSchoolOn(clinic, view.plan.madeOf.painSchool, view.safety?.acts.school ?? null);
  const title = t.say('{{name}}, your plan', { name: view.person.name.split(/\s+/)[0] ?? '' });
  const usually = protocol.usually === '' ? '' : ` ${t.say(protocol.usually)}.`;
  return {
    language: view.person.language ?? 'en',
    title,
    clinic: clinic.name,
    version: versionText(record, view.plan),
    parts: [partOf('', plan, t), ...others],
    allRight: { title: t.say('Is this pain all right?'), text: t.say(PAIN_ALL_RIGHT[school]) },
    stop: {
      title: t.say('Stop'),
      emergency: {
        label: t.say('Stop and call {{number}}:', { number: clinic.emergencyNumber }),
        signs: signs('emergency'),
      },
      review: {
        label: t.say('Stop for today and tell us, {{phone}}:', { phone: clinic.phone }),
        signs: signs('review'),
      },
      notes: [defaultsOf(clinic).emergency, defaultsOf(clinic).contact].filter((n) => n !== ''),
    },
    notice: `${t.say('Made for you by your physiotherapist. It does not replace their advice.')}${usually}`,
    labels: {
      feel: t.say('You should feel:'),
      needs: t.say('You need:'),
      beside: t.say('Beside the exercises'),
      goesOn: t.say('You go on to the next stage when'),
      page: t.say('your page'),
      footer: t.say('{{title}}, page {{page}} of {{pages}}', { title }),
      weekdays: WEEK.map((day) => t.say(WEEKDAYS[day] ?? '')),
    },
    held: plan.held.map((h) => record.library.exercise(h.exercise)?.name ?? h.exercise),
  };
}
