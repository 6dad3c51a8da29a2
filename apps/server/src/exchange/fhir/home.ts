import type { Observation, ObservationComponent } from 'fhir/r4.js';
import { type ProtocolDefinition, questionsByKey } from '@heathstep/core';
import type { HomeEntryBody, MorningPayload, SessionPayload, StopPayload } from '@heathstep/contracts';
import type { Row } from '../tables.js';
import { filled, type Sources, text } from './sources.js';
import { concept, own, quantity, records, ref } from './terms.js';

type Scores = SessionPayload['scores'];

/** Answers by question, each with its own name and unit. */
function scored({ bundle }: Sources, protocol: ProtocolDefinition, scores: Scores): ObservationComponent[] {
  return Object.entries(scores).flatMap(([key, answer]): ObservationComponent[] => {
    const question = questionsByKey(protocol)[key];
    const code = concept(own('home-question', key, question?.name));
    if (typeof answer === 'boolean') return [{ code, valueBoolean: answer }];
    return typeof answer === 'number'
      ? [{ code, valueQuantity: quantity(answer, 'points', bundle.codes) }]
      : [];
  });
}

const done = ({ library }: Sources, { exercises }: SessionPayload): ObservationComponent[] =>
  exercises.map((e) => ({
    code: concept(own('exercise', e.exercise, library.exercise(e.exercise)?.name)),
    valueString: `${String(e.sets)} sets, ${String(e.reps)} repetitions${e.effort === null ? '' : `, effort ${String(e.effort)} of 10`}`,
  }));

/** Versions of one thing that was logged at home, oldest first, as an observation by the patient. */
export function homeObservation(
  from: Sources,
  versions: readonly [Row, ...Row[]],
  episode: Row,
): Observation {
  const row = versions.at(-1) ?? versions[0];
  const kind = row['kind'] as HomeEntryBody['kind'];
  const protocol = from.protocolOf(episode);
  const patient = ref('Patient', episode['person_id']);
  const shared = {
    resourceType: 'Observation' as const,
    id: row.id,
    extension: records('home_entry', versions),
    status: versions.length > 1 ? ('corrected' as const) : ('final' as const),
    category: [
      {
        coding: [{ system: 'http://terminology.hl7.org/CodeSystem/observation-category', code: 'activity' }],
      },
    ],
    code: concept(own('home', kind)),
    subject: patient,
    performer: [patient],
    effectiveDateTime: text(row, 'day'),
    issued: text(row, 'at'),
  };
  if (kind === 'stop') {
    const { grade, sign } = row['payload'] as StopPayload;
    return filled<Observation>({ ...shared, valueString: `${grade}: ${sign}` });
  }
  const payload = row['payload'] as SessionPayload | MorningPayload;
  return filled<Observation>({
    ...shared,
    component: [
      ...scored(from, protocol, payload.scores),
      ...('exercises' in payload ? done(from, payload) : []),
    ],
  });
}
