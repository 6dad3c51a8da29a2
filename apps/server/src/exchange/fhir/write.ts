import type { Basic, Bundle, DomainResource, FhirResource, Organization, Practitioner } from 'fhir/r4.js';
import type { Row } from '../tables.js';
import {
  appointment,
  basic,
  carePlan,
  closure,
  consent,
  condition,
  decision,
  episodeOfCare,
  goals,
  madeId,
  letter,
  media,
  outing,
  patient,
  question,
  serviceRequests,
  taught,
} from './course.js';
import { homeObservation } from './home.js';
import { type Author, filled, OWN_CONTENT_TABLES, type Sources, text } from './sources.js';
import { OURS, own, records, sealed } from './terms.js';
import { visitResources } from './visits.js';

const organization = ({ clinic }: Sources): Organization =>
  filled<Organization>({
    resourceType: 'Organization',
    id: clinic.id,
    name: clinic.name,
    telecom: clinic.phone.trim() === '' ? [] : [{ system: 'phone', value: clinic.phone }],
  });

const practitioner = (author: Author): Practitioner =>
  filled<Practitioner>({
    resourceType: 'Practitioner',
    id: author.id,
    extension: records('app_user', [{ ...author }]),
    name: [{ text: author.name }],
    qualification:
      author.registration === null
        ? []
        : [{ code: { text: 'Registration' }, identifier: [{ value: author.registration }] }],
  });

/** The clinic's own exercises, measures and kept protocols that the record hangs on. */
const ownContent = ({ ownContent: content }: Sources): Basic[] =>
  OWN_CONTENT_TABLES.flatMap((table) =>
    content[table].map((row) => ({
      resourceType: 'Basic' as const,
      id: madeId(table, row['key'], row['version']),
      extension: records(table, [row]),
      code: { coding: [own('record', table, `${text(row, 'key')} ${text(row, 'version')}`)] },
    })),
  );

function grouped(rows: readonly Row[]): [Row, ...Row[]][] {
  const byId = new Map<string, [Row, ...Row[]]>();
  for (const row of rows) {
    const known = byId.get(row.id);
    if (known === undefined) byId.set(row.id, [row]);
    else known.push(row);
  }
  return [...byId.values()].map((versions) =>
    versions.sort((a, b) => Number(a['version']) - Number(b['version'])),
  );
}

/** Everything of one complaint. */
function episodeResources(from: Sources, episode: Row): FhirResource[] {
  const { rows } = from;
  const own_ = (list: readonly Row[]) => list.filter((r) => r['episode_id'] === episode.id);
  const visits = own_(rows.visit);
  const photos = rows.photo.filter((p) => visits.some((v) => v.id === p['visit_id']));
  return [
    condition(from, episode),
    episodeOfCare(from, episode),
    ...visits.flatMap((v) => visitResources(from, v, episode)),
    ...photos.map((p) =>
      media(p, episode, {
        table: 'photo',
        type: text(p, 'type'),
        more: records(
          'photo_placement',
          rows.photo_placement.filter((l) => l['photo_id'] === p.id),
        ),
      }),
    ),
    ...own_(rows.lab_capture).map((c) =>
      media(c, episode, { table: 'lab_capture', type: 'application/gzip', more: [] }),
    ),
    ...own_(rows.plan).flatMap((p) => [
      carePlan(from, p, episode),
      ...goals(from, p, episode),
      ...serviceRequests(from, p, episode),
    ]),
    ...own_(rows.decision).map((d) => decision(d, episode)),
    ...own_(rows.closure).map((c) => closure(c, episode)),
    ...own_(rows.taught_exercise).map((t) => taught(t, episode, from)),
    ...grouped(own_(rows.home_entry)).map((versions) => homeObservation(from, versions, episode)),
    ...own_(rows.home_question).map((q) => question(q, episode)),
    ...own_(rows.letter).map((l) => letter(l, episode)),
    ...own_(rows.course_event).map((e) =>
      basic('course_event', e, { personId: episode['person_id'], created: text(e, 'day') }),
    ),
  ];
}

/** What came from elsewhere goes on as it came, beside a line of ours that says whose it is and when it was taken. */
const kept = (row: Row): FhirResource[] => [
  sealed(basic('kept_resource', row, { personId: row['person_id'], created: text(row, 'at') })),
  row['resource'] as FhirResource,
];

/** The record of a person as FHIR R4: each resource with the rows it was written from, so that it comes back as it was. */
export function writeBundle(from: Sources, at: Date): Bundle {
  const [person] = from.rows.person;
  if (person === undefined) throw new Error('There is no person to write');
  const resources: FhirResource[] = [
    patient(from, person),
    organization(from),
    ...from.authors.map(practitioner),
    ...ownContent(from),
    ...from.rows.episode.flatMap((e) => episodeResources(from, e)),
    ...from.rows.outing.map((o) => outing(from, o)),
    ...from.rows.appointment.map((a) => appointment(from, a)),
    ...from.rows.consent.map((c) => consent(from, c)),
    ...from.rows.set_aside.map((s) => basic('set_aside', s, { personId: person.id, created: text(s, 'at') })),
  ];
  return {
    resourceType: 'Bundle',
    id: madeId('bundle', person.id),
    type: 'collection',
    timestamp: at.toISOString(),
    entry: [
      ...resources.map((r) => sealed(r as DomainResource) as FhirResource),
      ...from.rows.kept_resource.flatMap(kept),
    ].map((resource) => ({ fullUrl: `${OURS}/${resource.resourceType}/${String(resource.id)}`, resource })),
  };
}
