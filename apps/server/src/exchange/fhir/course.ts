import type {
  Appointment,
  Basic,
  CarePlan,
  CarePlanActivity,
  ClinicalImpression,
  Communication,
  Condition,
  Consent,
  DetectedIssue,
  DocumentReference,
  EpisodeOfCare,
  Goal,
  Media,
  Observation,
  Patient,
  Procedure,
  ServiceRequest,
  Timing,
} from 'fhir/r4.js';
import { createHash } from 'node:crypto';
import {
  type Affected,
  criterionSentences,
  momentOf,
  doseSentence,
  type Prescription,
  questionsByKey,
  sentenceText,
  type Stage,
  type StageKey,
  stageOf,
} from '@heathstep/core';
import type { Row } from '../tables.js';
import { letterWords } from './letterWords.js';
import { bodySite, concept, own, quantity, records, ref } from './terms.js';
import { filled, maybe, type Sources, text } from './sources.js';

/** An id that is always the same for the same thing, where the thing has none of its own. */
export function madeId(...parts: readonly unknown[]): string {
  const hex = createHash('sha256').update(JSON.stringify(parts)).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-a${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}

export function patient({ rows, clinic }: Sources, person: Row): Patient {
  const names = text(person, 'name').trim().split(/\s+/);
  return filled<Patient>({
    resourceType: 'Patient',
    id: person.id,
    extension: records('person', rows.person),
    active: true,
    name: [filled({ text: text(person, 'name'), family: names.at(-1), given: names.slice(0, -1) })],
    gender: (maybe(person, 'sex') ?? 'unknown') as 'female' | 'male' | 'unknown',
    birthDate: maybe(person, 'birth_date'),
    communication:
      person['language'] === null
        ? undefined
        : [
            {
              language: { coding: [{ system: 'urn:ietf:bcp:47', code: text(person, 'language') }] },
              preferred: true,
            },
          ],
    managingOrganization: ref('Organization', clinic.id),
  });
}

export function condition({ bundle, rows }: Sources, episode: Row): Condition {
  const key = text(episode, 'condition');
  const name = bundle.pathways.find((p) => p.key === key)?.name;
  return filled<Condition>({
    resourceType: 'Condition',
    id: madeId('condition', episode.id),
    clinicalStatus: {
      coding: [
        {
          system: 'http://terminology.hl7.org/CodeSystem/condition-clinical',
          code: episode['status'] === 'closed' ? 'inactive' : 'active',
        },
      ],
    },
    category: [
      {
        coding: [
          { system: 'http://terminology.hl7.org/CodeSystem/condition-category', code: 'problem-list-item' },
        ],
      },
    ],
    code: concept(own('condition', key, name), bundle.codes.conditions[key]),
    bodySite: [bodySite(episode['affected'])].flatMap((s) => s ?? []),
    subject: ref('Patient', rows.person[0]?.id),
    recordedDate: text(episode, 'started_at'),
  });
}

export function episodeOfCare({ rows, clinic }: Sources, episode: Row): EpisodeOfCare {
  return filled<EpisodeOfCare>({
    resourceType: 'EpisodeOfCare',
    id: episode.id,
    extension: [
      ...records('episode', [episode]),
      ...records(
        'stage_span',
        rows.stage_span.filter((s) => s['episode_id'] === episode.id),
      ),
    ],
    status: episode['status'] === 'closed' ? 'finished' : 'active',
    diagnosis: [{ condition: ref('Condition', madeId('condition', episode.id)) }],
    patient: ref('Patient', episode['person_id']),
    managingOrganization: ref('Organization', clinic.id),
    period: filled({ start: text(episode, 'started_at'), end: maybe(episode, 'ended_at') }),
  });
}

const DAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const;
const PARTS = { morning: 'MORN', midday: 'NOON', evening: 'EVE' } as const;

const timing = (p: Prescription): Timing => ({
  repeat: filled({
    frequency: p.timesPerDay,
    period: 1,
    periodUnit: 'd' as const,
    dayOfWeek: (p.days ?? []).flatMap((d) => DAYS[d] ?? []),
    when: p.part === undefined ? [] : [PARTS[p.part]],
  }),
  code: { text: `${String(p.timesPerDay)} a day, ${String(p.daysPerWeek)} days a week` },
});

const SIDES: Readonly<Record<string, string>> = { left: 'left', right: 'right' };

const itemsOf = (plan: Row): readonly Prescription[] => (plan['items'] ?? []) as readonly Prescription[];

/** An exercise of a plan as others read it: a code, a sentence, when. */
function exercise({ library }: Sources, p: Prescription) {
  const found = library.exercise(p.exercise);
  return {
    code: concept(own('exercise', p.exercise, found?.name)),
    says: found === undefined ? p.exercise : sentenceText(doseSentence(p, found)),
  };
}

const PLAN_STATUS = { draft: 'draft', now: 'active', before: 'revoked' } as const;

/** The plan that holds of an episode is the last that was given. */
const stateOf = ({ rows }: Sources, plan: Row): keyof typeof PLAN_STATUS => {
  if (plan['status'] === 'draft') return 'draft';
  const last = rows.plan
    .filter((p) => p['episode_id'] === plan['episode_id'] && p['status'] === 'given')
    .at(-1);
  return last?.id === plan.id ? 'now' : 'before';
};

/** The stage of a plan as it stood when it was made. */
const stageFor = (from: Sources, plan: Row, episode: Row): Stage | null =>
  (plan['made_of'] as Stage | null) ?? stageOf(from.protocolOf(episode), plan['stage'] as StageKey) ?? null;

export function carePlan(from: Sources, plan: Row, episode: Row): CarePlan {
  const stage = stageFor(from, plan, episode);
  return filled<CarePlan>({
    resourceType: 'CarePlan',
    id: plan.id,
    extension: records('plan', [plan]),
    status: PLAN_STATUS[stateOf(from, plan)],
    intent: 'plan',
    title: stage?.name ?? text(plan, 'stage'),
    subject: ref('Patient', episode['person_id']),
    period: filled({ start: maybe(plan, 'given_at') ?? text(plan, 'created_at') }),
    created: text(plan, 'created_at'),
    author: ref('Practitioner', plan['given_by'] ?? plan['created_by']),
    addresses: [ref('Condition', madeId('condition', episode.id))],
    goal: stage?.criteria == null ? [] : [ref('Goal', madeId('goal', plan.id))],
    activity: itemsOf(plan).map((p): CarePlanActivity => {
      const { code, says } = exercise(from, p);
      return {
        detail: {
          kind: 'ServiceRequest',
          code,
          status: 'in-progress',
          description: says,
          scheduledTiming: timing(p),
        },
      };
    }),
  });
}

/** What of a plan has to be met for the next stage. */
export function goals(from: Sources, plan: Row, episode: Row): Goal[] {
  const stage = stageFor(from, plan, episode);
  if (stage?.criteria == null) return [];
  const said = criterionSentences(stage.criteria, {
    lookup: (key) => from.measures.find((m) => m.key === key),
    affected: episode['affected'] as Affected,
    questions: questionsByKey(from.protocolOf(episode)),
  });
  return [
    filled<Goal>({
      resourceType: 'Goal',
      id: madeId('goal', plan.id),
      lifecycleStatus: stateOf(from, plan) === 'draft' ? 'proposed' : 'active',
      description: { text: `Next stage: ${said.join('; ')}` },
      subject: ref('Patient', episode['person_id']),
      startDate: (maybe(plan, 'given_at') ?? text(plan, 'created_at')).slice(0, 10),
    }),
  ];
}

export const serviceRequests = (from: Sources, plan: Row, episode: Row): ServiceRequest[] =>
  itemsOf(plan).map((p, i) => {
    const { code, says } = exercise(from, p);
    return filled<ServiceRequest>({
      resourceType: 'ServiceRequest',
      id: madeId('exercise', plan.id, i),
      basedOn: [ref('CarePlan', plan.id)],
      status:
        stateOf(from, plan) === 'draft' ? 'draft' : stateOf(from, plan) === 'now' ? 'active' : 'revoked',
      intent: 'order',
      code,
      subject: ref('Patient', episode['person_id']),
      occurrenceTiming: timing(p),
      authoredOn: maybe(plan, 'given_at') ?? text(plan, 'created_at'),
      requester: ref('Practitioner', plan['given_by'] ?? plan['created_by']),
      bodySite: [bodySite(SIDES[p.sides] ?? 'both')].flatMap((s) => s ?? []),
      patientInstruction: says,
    });
  });

export const decision = (row: Row, episode: Row): ClinicalImpression =>
  filled<ClinicalImpression>({
    resourceType: 'ClinicalImpression',
    id: row.id,
    extension: records('decision', [row]),
    status: 'completed',
    code: concept(own('decision', text(row, 'decision'))),
    description: `Suggested: ${text(row, 'suggested')}. Decided: ${text(row, 'decision')}.`,
    subject: ref('Patient', episode['person_id']),
    date: text(row, 'at'),
    assessor: ref('Practitioner', row['author_id']),
    problem: [ref('Condition', madeId('condition', episode.id))],
    summary: maybe(row, 'reason'),
  });

export const closure = (row: Row, episode: Row): DetectedIssue =>
  filled<DetectedIssue>({
    resourceType: 'DetectedIssue',
    id: row.id,
    extension: records('closure', [row]),
    status: 'final',
    code: concept(own('stop', text(row, 'subject'))),
    patient: ref('Patient', episode['person_id']),
    identifiedDateTime: text(row, 'at'),
    author: ref('Practitioner', row['author_id']),
    mitigation: [
      filled({
        action: { coding: [own('closure', text(row, 'kind'))], text: text(row, 'text') },
        date: text(row, 'at'),
        author: ref('Practitioner', row['author_id']),
      }),
    ],
  });

export const taught = (row: Row, episode: Row, { library }: Sources): Procedure =>
  filled<Procedure>({
    resourceType: 'Procedure',
    id: row.id,
    extension: records('taught_exercise', [row]),
    status: 'completed',
    code: concept(own('exercise', text(row, 'exercise'), library.exercise(text(row, 'exercise'))?.name)),
    subject: ref('Patient', episode['person_id']),
    performedDateTime: text(row, 'at'),
    performer: [{ actor: ref('Practitioner', row['author_id']) }],
    bodySite: [bodySite(row['side'])].flatMap((s) => s ?? []),
  });

const BOOKED = { planned: 'booked', came: 'fulfilled', missed: 'noshow', cancelled: 'cancelled' } as const;

/** In the clinic's own day and time. */
export function appointment({ clinic }: Sources, row: Row): Appointment {
  const start = momentOf(`${text(row, 'day')}T${text(row, 'time')}:00`, clinic.timeZone);
  const minutes = Number(row['minutes']);
  return filled<Appointment>({
    resourceType: 'Appointment',
    id: row.id,
    extension: records('appointment', [row]),
    status: BOOKED[row['state'] as keyof typeof BOOKED],
    start: start.toISOString(),
    end: new Date(start.getTime() + minutes * 60_000).toISOString(),
    minutesDuration: minutes,
    comment: maybe(row, 'note'),
    participant: [{ actor: ref('Patient', row['person_id']), status: 'accepted' }],
  });
}

export const question = (row: Row, episode: Row): Communication =>
  filled<Communication>({
    resourceType: 'Communication',
    id: row.id,
    extension: records('home_question', [row]),
    status: row['answer'] === null ? 'in-progress' : 'completed',
    subject: ref('Patient', episode['person_id']),
    sent: text(row, 'at'),
    received: maybe(row, 'answered_at'),
    sender: ref('Patient', episode['person_id']),
    recipient: row['answered_by'] === null ? [] : [ref('Practitioner', row['answered_by'])],
    payload: [
      { contentString: text(row, 'text') },
      ...(row['answer'] === null ? [] : [{ contentString: text(row, 'answer') }]),
    ],
  });

const CONSENT_SCOPE = { treatment: 'treatment', research: 'research' } as const;

/** What someone agreed to or did not. */
export const consent = ({ rows, clinic }: Sources, row: Row): Consent => {
  const kind = text(row, 'kind');
  return filled<Consent>({
    resourceType: 'Consent',
    id: row.id,
    extension: records('consent', [row]),
    status: row['given'] === true ? 'active' : 'rejected',
    scope: {
      coding: [
        {
          system: 'http://terminology.hl7.org/CodeSystem/consentscope',
          code: CONSENT_SCOPE[kind as keyof typeof CONSENT_SCOPE] ?? 'patient-privacy',
        },
      ],
    },
    category: [concept(own('consent', kind))],
    patient: ref('Patient', rows.person[0]?.id),
    dateTime: text(row, 'on'),
    organization: [ref('Organization', clinic.id)],
    policyRule: { text: 'As told to the clinic' },
    provision: { type: row['given'] === true ? 'permit' : 'deny' },
  });
};

/** A recorded run or walk: how far, how long, how much of it run, how far up. */
export const outing = ({ bundle, rows }: Sources, row: Row): Observation =>
  filled<Observation>({
    resourceType: 'Observation',
    id: row.id,
    extension: records('outing', [row]),
    status: row['removed_at'] === null ? 'final' : 'entered-in-error',
    category: [
      {
        coding: [{ system: 'http://terminology.hl7.org/CodeSystem/observation-category', code: 'activity' }],
      },
    ],
    code: concept(own('activity', 'outing', 'Recorded run or walk')),
    subject: ref('Patient', rows.person[0]?.id),
    effectivePeriod: {
      start: text(row, 'started_at'),
      end: new Date(Date.parse(text(row, 'started_at')) + Number(row['seconds']) * 1000).toISOString(),
    },
    component: (
      [
        ['distance', 'Distance', Number(row['metres']) / 1000, 'km'],
        ['duration', 'Time', Number(row['seconds']) / 60, 'min'],
        ['running', 'Time at the speed of running', Number(row['run_seconds']) / 60, 'min'],
      ] as const
    ).map(([key, name, value, unit]) => ({
      code: concept(own('activity', key, name)),
      valueQuantity: quantity(value, unit, bundle.codes),
    })),
  });

/** A letter: as it went out, or as far as it is written. */
export function letter(row: Row, episode: Row): DocumentReference {
  const sent = row['content'] !== null;
  return filled<DocumentReference>({
    resourceType: 'DocumentReference',
    id: row.id,
    extension: records('letter', [row]),
    status: row['dropped_at'] === null ? 'current' : 'entered-in-error',
    docStatus: sent ? 'final' : 'preliminary',
    type: concept(own('letter', text(row, 'kind'))),
    subject: ref('Patient', episode['person_id']),
    date: text(row, 'at'),
    author: [ref('Practitioner', row['author_id'])],
    content: [
      {
        attachment: {
          contentType: 'text/plain; charset=utf-8',
          data: Buffer.from(letterWords(row)).toString('base64'),
          title: text(row, 'kind'),
          creation: text(row, 'at'),
        },
      },
    ],
    context: { related: [ref('Condition', madeId('condition', episode.id))] },
  });
}

/** A picture or a capture with its bytes. */
export const media = (
  row: Row,
  episode: Row,
  of: { readonly table: 'photo' | 'lab_capture'; readonly type: string; readonly more: Media['extension'] },
): Media =>
  filled<Media>({
    resourceType: 'Media',
    id: row.id,
    extension: [...records(of.table, [row]), ...(of.more ?? [])],
    status: 'completed',
    modality: concept(own('media', of.table === 'photo' ? text(row, 'measure') : text(row, 'kind'))),
    subject: ref('Patient', episode['person_id']),
    createdDateTime: text(row, 'at'),
    operator: ref('Practitioner', row['author_id']),
    bodySite: bodySite(row['side']),
    content: { contentType: of.type, data: text(row, 'bytes'), creation: text(row, 'at') },
  });

/** What FHIR has no resource for. */
export const basic = (
  table: string,
  row: Row,
  about: { readonly personId?: unknown; readonly created?: string | undefined },
): Basic =>
  filled<Basic>({
    resourceType: 'Basic',
    id: row.id,
    extension: records(table, [row]),
    code: { coding: [own('record', table)] },
    subject: about.personId === undefined ? undefined : ref('Patient', about.personId),
    created: about.created?.slice(0, 10),
    author: row['author_id'] === undefined ? undefined : ref('Practitioner', row['author_id']),
  });
