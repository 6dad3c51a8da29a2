import { randomUUID } from 'node:crypto';
import { CAPTURE, type Caller, entry, packedCapture, today } from './harness.js';

/** One of each record of a clinic, by its id. */
export type Ids = Readonly<
  Record<
    | 'person'
    | 'episode'
    | 'visit'
    | 'plan'
    | 'photo'
    | 'routine'
    | 'device'
    | 'appointment'
    | 'aside'
    | 'question'
    | 'event'
    | 'capture'
    | 'member'
    | 'program'
    | 'letter'
    | 'outing'
    | 'merge'
    | 'erasure'
    | 'table'
    | 'passkey'
    | 'measured',
    string
  >
>;

/** Every route that names a record, as someone of another clinic would call it. */
export const routesOf = (ids: () => Ids): [string, (who: Caller) => Promise<{ status: number }>][] => [
  ['GET person', (who) => who.get(`/api/people/${ids().person}`)],
  ['GET person as a file', (who) => who.get(`/api/people/${ids().person}/fhir`)],
  ['GET what came with a person', (who) => who.get(`/api/people/${ids().person}/kept`)],
  [
    'POST erasure',
    (who) => who.post(`/api/people/${ids().person}/erase`, { name: 'Bram Sedge', reason: 'not theirs' }),
  ],
  [
    'POST undo of a table of measurements',
    (who) => who.post(`/api/exchange/measurements/imports/${ids().measured}/undo`),
  ],
  ['POST undo of a table', (who) => who.post(`/api/exchange/people/imports/${ids().table}/undo`)],
  ['GET when it may be erased', (who) => who.get(`/api/people/${ids().person}/erasure`)],
  ['DELETE key of a program', (who) => who.del(`/api/clinic/programs/${ids().program}`)],
  ['PATCH person', (who) => who.patch(`/api/people/${ids().person}`, { version: 1, name: 'Taken' })],
  [
    'POST episode of a person',
    (who) =>
      who.post(`/api/people/${ids().person}/episodes`, {
        id: randomUUID(),
        condition: 'plantar-heel-pain',
        affected: 'left',
      }),
  ],
  ['GET episode', (who) => who.get(`/api/episodes/${ids().episode}`)],
  ['PATCH episode', (who) => who.patch(`/api/episodes/${ids().episode}`, { version: 1, minutesPerDay: 9 })],
  [
    'POST closure',
    (who) =>
      who.post(`/api/episodes/${ids().episode}/closures`, {
        id: randomUUID(),
        subject: 'rule:clot',
        side: 'none',
        kind: 'overridden',
        text: 'because',
      }),
  ],
  ['POST visit', (who) => who.post(`/api/episodes/${ids().episode}/visits`, { id: randomUUID() })],
  ['GET visit', (who) => who.get(`/api/visits/${ids().visit}`)],
  [
    'PUT entries',
    (who) => who.put(`/api/visits/${ids().visit}/entries`, { entries: [entry('story.worst', 3)] }),
  ],
  ['POST presence', (who) => who.post(`/api/visits/${ids().visit}/presence`, { step: 'look', since: 0 })],
  ['GET photos', (who) => who.get(`/api/episodes/${ids().episode}/photos`)],
  [
    'PUT photo',
    (who) =>
      who
        .put(`/api/visits/${ids().visit}/photos/${randomUUID()}?measure=hallux-angle&side=left`)
        .type('application/octet-stream')
        .send(Buffer.from('picture')),
  ],
  ['GET captures', (who) => who.get(`/api/episodes/${ids().episode}/captures`)],
  [
    'PUT capture',
    (who) =>
      who
        .put(`/api/episodes/${ids().episode}/captures/${randomUUID()}?${CAPTURE}`)
        .type('application/octet-stream')
        .send(packedCapture()),
  ],
  ['GET recording', (who) => who.get(`/api/captures/${ids().capture}/recording`)],
  ['GET lab page', (who) => who.get(`/api/captures/${ids().capture}/page.pdf`)],
  ['DELETE capture', (who) => who.del(`/api/captures/${ids().capture}`)],
  ['POST keep capture', (who) => who.post(`/api/captures/${ids().capture}/keep`, {})],
  ['GET photo', (who) => who.get(`/api/photos/${ids().photo}`)],
  [
    'POST placement',
    (who) => who.post(`/api/photos/${ids().photo}/placements`, { id: randomUUID(), landmarks: {} }),
  ],
  ['POST sign', (who) => who.post(`/api/visits/${ids().visit}/sign`)],
  [
    'POST plan',
    (who) => who.post(`/api/episodes/${ids().episode}/plans`, { id: randomUUID(), from: 'stage' }),
  ],
  ['PUT plan', (who) => who.put(`/api/plans/${ids().plan}`, { version: 1, items: [] })],
  ['GET calendar', (who) => who.get(`/api/episodes/${ids().episode}/plan.ics`)],
  ['GET handout', (who) => who.get(`/api/episodes/${ids().episode}/handout`)],
  ['GET handout as text', (who) => who.get(`/api/episodes/${ids().episode}/handout.txt`)],
  ['GET handout as a PDF', (who) => who.get(`/api/episodes/${ids().episode}/handout.pdf`)],
  ['GET appointments of a person', (who) => who.get(`/api/people/${ids().person}/appointments`)],
  ['GET events', (who) => who.get(`/api/episodes/${ids().episode}/events`)],
  [
    'POST event',
    (who) =>
      who.post(`/api/episodes/${ids().episode}/events`, {
        id: randomUUID(),
        kind: 'travel',
        day: '2026-01-05',
        note: '',
      }),
  ],
  ['DELETE event', (who) => who.del(`/api/events/${ids().event}`)],
  ['GET letter', (who) => who.get(`/api/episodes/${ids().episode}/letter`)],
  ['GET letter as a PDF', (who) => who.get(`/api/episodes/${ids().episode}/letter.pdf`)],
  ['GET consents', (who) => who.get(`/api/people/${ids().person}/consents`)],
  [
    'POST consent',
    (who) =>
      who.post(`/api/people/${ids().person}/consents`, {
        id: randomUUID(),
        kind: 'letters',
        given: true,
        way: 'spoken',
        on: '2026-01-05',
        note: '',
      }),
  ],
  ['GET merges', (who) => who.get(`/api/people/${ids().person}/merges`)],
  [
    'POST merge',
    (who) => who.post(`/api/people/${ids().person}/merge`, { id: randomUUID(), gone: randomUUID() }),
  ],
  ['POST undo of a merge', (who) => who.post(`/api/merges/${ids().merge}/undo`, {})],
  ['GET certificate', (who) => who.get(`/api/clinic/erasures/${ids().erasure}/certificate.pdf`)],
  ['GET outings', (who) => who.get(`/api/people/${ids().person}/outings`)],
  [
    'POST outings',
    (who) =>
      who
        .post(`/api/people/${ids().person}/outings`)
        .type('application/octet-stream')
        .send(
          Buffer.from(
            '<gpx><trk><trkseg><trkpt lat="54" lon="2"><time>2026-01-05T08:00:00Z</time></trkpt><trkpt lat="54.001" lon="2"><time>2026-01-05T08:01:00Z</time></trkpt></trkseg></trk></gpx>',
          ),
        ),
  ],
  ['DELETE outing', (who) => who.del(`/api/outings/${ids().outing}`)],
  ['POST outing back', (who) => who.post(`/api/outings/${ids().outing}/back`, {})],
  ['GET letters', (who) => who.get(`/api/episodes/${ids().episode}/letters`)],
  [
    'POST letter',
    (who) => who.post(`/api/episodes/${ids().episode}/letters`, { id: randomUUID(), kind: 'referral' }),
  ],
  ['GET written letter', (who) => who.get(`/api/letters/${ids().letter}`)],
  [
    'PUT letter',
    (who) =>
      who.put(`/api/letters/${ids().letter}`, { version: 1, to: '', opening: '', closing: '', shows: [] }),
  ],
  ['DELETE letter', (who) => who.del(`/api/letters/${ids().letter}`)],
  [
    'POST sent',
    (who) =>
      who.post(`/api/letters/${ids().letter}/sent`, {
        version: 1,
        mark: '0'.repeat(64),
        way: 'post',
        on: today(),
      }),
  ],
  ['POST letter back', (who) => who.post(`/api/letters/${ids().letter}/back`, {})],
  ['GET written letter as a PDF', (who) => who.get(`/api/letters/${ids().letter}/letter.pdf`)],
  [
    'PATCH appointment',
    (who) => who.patch(`/api/appointments/${ids().appointment}`, { version: 1, note: 'x' }),
  ],
  ['GET questions', (who) => who.get(`/api/episodes/${ids().episode}/questions`)],
  ['POST answer', (who) => who.post(`/api/questions/${ids().question}/answer`, { answer: 'Yes' })],
  ['DELETE aside', (who) => who.del(`/api/day/asides/${ids().aside}`)],
  ['POST account link', (who) => who.post(`/api/clinic/staff/${ids().member}/link`)],
  ['PATCH member', (who) => who.patch(`/api/clinic/staff/${ids().member}`, { role: 'lead' })],
  ['DELETE sessions of a member', (who) => who.del(`/api/clinic/staff/${ids().member}/sessions`)],
  ['DELETE second step of a member', (who) => who.del(`/api/clinic/staff/${ids().member}/second-step`)],
  ['DELETE passkey', (who) => who.del(`/api/session/passkeys/${ids().passkey}`)],
  ['DELETE device', (who) => who.del(`/api/session/devices/${ids().device}`)],
  ['PUT routine', (who) => who.put(`/api/library/routines/${ids().routine}`, { retired: true })],
  ['GET brings', (who) => who.get(`/api/plans/${ids().plan}/brings`)],
  ['POST if', (who) => who.post(`/api/plans/${ids().plan}/if`, { schools: {} })],
  ['POST give', (who) => who.post(`/api/plans/${ids().plan}/give`, { version: 1 })],
  ['GET log', (who) => who.get(`/api/episodes/${ids().episode}/log.csv`)],
  ['GET course', (who) => who.get(`/api/episodes/${ids().episode}/course`)],
  [
    'POST decision',
    (who) =>
      who.post(`/api/episodes/${ids().episode}/decisions`, {
        id: randomUUID(),
        decision: 'hold',
        on: { stage: null, planId: null, suggested: 'hold' },
        reason: 'because',
      }),
  ],
  [
    'POST taught',
    (who) =>
      who.post(`/api/episodes/${ids().episode}/taught`, {
        id: randomUUID(),
        exercise: 'pogo',
        side: 'both',
        reps: 3,
        faults: [],
      }),
  ],
  ['POST home link', (who) => who.post(`/api/episodes/${ids().episode}/home-link`)],
  ['DELETE home link', (who) => who.del(`/api/episodes/${ids().episode}/home-link`)],
];
