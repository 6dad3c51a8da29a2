import type {
  AllergyIntolerance,
  CodeableConcept,
  Encounter,
  FhirResource,
  MedicationStatement,
  Observation,
  Provenance,
  QuestionnaireResponse,
  QuestionnaireResponseItem,
  QuestionnaireResponseItemAnswer,
} from 'fhir/r4.js';
import { type MeasureEntry, readKey } from '@heathstep/contracts';
import { combineTrials, type SafetyAnswer } from '@heathstep/core';
import type { Row } from '../tables.js';
import { madeId } from './course.js';
import { filled, maybe, type Sources, text } from './sources.js';
import { bodySite, concept, own, quantity, records, ref } from './terms.js';

/** Versions of one entry of a visit, oldest first. */
type Versions = readonly [Row, ...Row[]];

const newest = (versions: Versions): Row => versions.at(-1) ?? versions[0];

function entriesOf({ rows }: Sources, visit: Row): Versions[] {
  const byKey = new Map<string, [Row, ...Row[]]>();
  for (const row of rows.visit_entry) {
    if (row['visit_id'] !== visit.id) continue;
    const known = byKey.get(text(row, 'key'));
    if (known === undefined) byKey.set(text(row, 'key'), [row]);
    else known.push(row);
  }
  return [...byKey.values()];
}

const encounter = (visit: Row, episode: Row): Encounter =>
  filled<Encounter>({
    resourceType: 'Encounter',
    id: visit.id,
    extension: records('visit', [visit]),
    status: visit['signed_at'] === null ? 'in-progress' : 'finished',
    class: { system: 'http://terminology.hl7.org/CodeSystem/v3-ActCode', code: 'AMB', display: 'ambulatory' },
    type: [concept(own('visit', text(visit, 'kind')))],
    subject: ref('Patient', episode['person_id']),
    episodeOfCare: [ref('EpisodeOfCare', episode.id)],
    participant: visit['signed_by'] === null ? [] : [{ individual: ref('Practitioner', visit['signed_by']) }],
    period: filled({ start: text(visit, 'started_at'), end: maybe(visit, 'signed_at') }),
  });

/** Who signed a visit, and what that stands for. */
const signature = (visit: Row, of: readonly FhirResource[]): Provenance[] =>
  visit['signed_at'] === null
    ? []
    : [
        {
          resourceType: 'Provenance',
          id: madeId('signed', visit.id),
          target: [ref('Encounter', visit.id), ...of.map((r) => ref(r.resourceType, r.id))],
          recorded: text(visit, 'signed_at'),
          activity: {
            coding: [{ system: 'http://terminology.hl7.org/CodeSystem/v3-DocumentCompletion', code: 'LA' }],
          },
          agent: [{ who: ref('Practitioner', visit['signed_by']) }],
        },
      ];

const NOT_TAKEN: Readonly<Record<string, string>> = {
  'not-done': 'not-performed',
  unable: 'not-performed',
  'stopped-by-pain': 'not-performed',
};

/** Why there is no value. */
const absent = (entry: MeasureEntry): CodeableConcept => ({
  coding: [
    {
      system: 'http://terminology.hl7.org/CodeSystem/data-absent-reason',
      code: entry.simulated === true ? 'not-performed' : (NOT_TAKEN[entry.status] ?? 'unknown'),
    },
    own('measure-status', entry.status),
  ],
  ...(entry.simulated === true
    ? { text: 'Only simulated, no measurement' }
    : entry.reason === undefined
      ? {}
      : { text: entry.reason }),
});

/** What every entry of a visit says of itself as an observation. */
const observed = (from: Sources, versions: Versions, visit: Row) => {
  const row = newest(versions);
  return {
    resourceType: 'Observation' as const,
    id: row.id,
    extension: records('visit_entry', versions),
    status: versions.some((v) => v['reason'] !== null)
      ? ('amended' as const)
      : visit['signed_at'] === null
        ? ('preliminary' as const)
        : ('final' as const),
    subject: ref('Patient', from.rows.person[0]?.id),
    encounter: ref('Encounter', visit.id),
    effectiveDateTime: text(visit, 'started_at'),
    issued: text(row, 'at'),
    performer: [ref('Practitioner', row['author_id'])],
  };
};

function measureObservation(from: Sources, versions: Versions, visit: Row): Observation {
  const row = newest(versions);
  const { name = '', side } = readKey(text(row, 'key')) ?? {};
  const measure = from.measures.find((m) => m.key === name);
  const entry = row['value'] as MeasureEntry | null;
  // What a simulated device said is no measurement, and goes out as none.
  const real = entry !== null && entry.simulated !== true;
  const trials = real ? entry.trials.filter((t) => t !== null) : [];
  const unit = measure?.unit ?? 'points';
  const value =
    measure === undefined || entry?.status !== 'taken' ? null : combineTrials(measure, trials).value;
  const components = trials.map((t, i) => ({
    code: concept(own('trial', String(i + 1), `Trial ${String(i + 1)}`)),
    valueQuantity: quantity(t, unit, from.bundle.codes),
  }));
  const pain =
    real && typeof entry.pain === 'number'
      ? [
          {
            code: concept(own('entry', 'pain', 'Pain during it'), from.bundle.codes.answers['story.now']),
            valueQuantity: quantity(entry.pain, 'points', from.bundle.codes),
          },
        ]
      : [];
  return filled<Observation>({
    ...observed(from, versions, visit),
    code: concept(own('measure', name, measure?.label), from.bundle.codes.measures[name]),
    bodySite: bodySite(side),
    valueQuantity: value === null ? undefined : quantity(value, unit, from.bundle.codes),
    dataAbsentReason: value === null && entry !== null && trials.length === 0 ? absent(entry) : undefined,
    method: {
      coding: [own('method', entry?.method ?? measure?.methods[0] ?? 'usual')],
      ...(entry?.position === undefined ? {} : { text: entry.position }),
    },
    device: measure?.device == null ? undefined : { display: measure.device },
    component: [...components, ...pain],
  });
}

/** A value as an answer of a questionnaire; what has no simpler form goes as text. */
function answers(value: unknown): QuestionnaireResponseItemAnswer[] {
  if (typeof value === 'boolean') return [{ valueBoolean: value }];
  if (typeof value === 'number')
    return [Number.isInteger(value) ? { valueInteger: value } : { valueDecimal: value }];
  if (typeof value === 'string') return value.trim() === '' ? [] : [{ valueString: value }];
  if (Array.isArray(value))
    return value.flatMap((v) => (typeof v === 'string' && v !== '' ? [{ valueString: v }] : answers(v)));
  return value === null || value === undefined ? [] : [{ valueString: JSON.stringify(value) }];
}

/** Entries of a visit of one kind as answers, each by its own key. */
function response(
  from: Sources,
  visit: Row,
  about: string,
  entries: readonly Versions[],
): QuestionnaireResponse[] {
  if (entries.length === 0) return [];
  return [
    filled<QuestionnaireResponse>({
      resourceType: 'QuestionnaireResponse',
      id: madeId('answers', visit.id, about),
      extension: entries.flatMap((versions) => records('visit_entry', versions)),
      identifier: { system: 'https://heathstep.example/fhir/answers', value: about },
      status: visit['signed_at'] === null ? 'in-progress' : 'completed',
      subject: ref('Patient', from.rows.person[0]?.id),
      encounter: ref('Encounter', visit.id),
      authored: text(visit, 'started_at'),
      item: entries.map((versions): QuestionnaireResponseItem => {
        const row = newest(versions);
        const asked = from.bundle.safetyQuestions.find((q) => `safety.${q.key}` === row['key']);
        return filled<QuestionnaireResponseItem>({
          linkId: text(row, 'key'),
          text: asked?.text,
          answer: answers(row['value']),
        });
      }),
    }),
  ];
}

const YES = new Set<string>(['yes', 'left', 'right', 'both'] satisfies SafetyAnswer[]);

/** What was answered yes of medicines and allergies, as statements of them. */
function statements(
  { bundle, rows }: Sources,
  visit: Row,
  entries: readonly Versions[],
): (MedicationStatement | AllergyIntolerance)[] {
  const subject = ref('Patient', rows.person[0]?.id);
  return entries.flatMap((versions): (MedicationStatement | AllergyIntolerance)[] => {
    const row = newest(versions);
    const stated = bundle.codes.statements[text(row, 'key').replace(/^safety\./, '')];
    if (stated === undefined || !YES.has(String(row['value']))) return [];
    const id = madeId('stated', row.id);
    if (stated.as === 'allergy')
      return [{ resourceType: 'AllergyIntolerance', id, code: { text: stated.text }, patient: subject }];
    return [
      {
        resourceType: 'MedicationStatement',
        id,
        status: stated.when === 'now' ? 'active' : 'completed',
        medicationCodeableConcept: { text: stated.text },
        subject,
        context: ref('Encounter', visit.id),
        dateAsserted: text(row, 'at'),
      },
    ];
  });
}

/** Everything that was recorded at a visit. */
export function visitResources(from: Sources, visit: Row, episode: Row) {
  const entries = entriesOf(from, visit);
  const kindOf = (versions: Versions): string => {
    const [first = ''] = text(versions[0], 'key').split('.');
    return first;
  };
  const measured = entries.filter((v) => kindOf(v) === 'measure');
  const others = entries.filter((v) => kindOf(v) !== 'measure');
  const kinds = [...new Set(others.map(kindOf))];
  const own = [
    ...measured.map((v) => measureObservation(from, v, visit)),
    ...kinds.flatMap((kind) =>
      response(
        from,
        visit,
        kind,
        others.filter((v) => kindOf(v) === kind),
      ),
    ),
  ];
  return [encounter(visit, episode), ...own, ...statements(from, visit, others), ...signature(visit, own)];
}
