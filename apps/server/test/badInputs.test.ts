import { randomUUID } from 'node:crypto';
import { addDays } from '@heathstep/core';
import fc from 'fast-check';
import request from 'supertest';
import { loadContent, writeExercise } from '@heathstep/content';
import { BAD_PARTS, badInputs } from './badInputs.js';
import {
  addEpisode,
  addPerson,
  type Caller,
  cookieOf,
  decidedOn,
  entry,
  makeWorld,
  openVisit,
  takePhoto,
  today,
  treated,
  type World,
} from './harness.js';

/** How many; the long run asks for more. */
const RUNS = Number(process.env['HEATHSTEP_BAD_INPUTS'] ?? 500);
const SEED = Number(process.env['HEATHSTEP_BAD_INPUTS_SEED'] ?? 20261127);

interface Right {
  readonly method: 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  readonly path: string;
  readonly body: object;
}

const loaded = loadContent();
if (!loaded.ok) throw new Error('content');
const { content } = loaded;

describe('whatever is sent', () => {
  let world: World;
  let who: Caller;
  let rights: Right[];
  let ids: { person: string; episode: string; visit: string; photo: string };
  let home: string;

  beforeAll(async () => {
    world = await makeWorld();
    who = await world.as(0, 'lead');
    const mine = await treated(who);
    const episodeId = mine.episodeId;
    const draft = (
      await who.post(`/api/episodes/${episodeId}/plans`, { id: randomUUID(), from: 'current' }).expect(201)
    ).body as { id: string; version: number; items: object[] };
    const open = await openVisit(who, (await addEpisode(who, (await addPerson(who)).id)).id);
    const photo = await takePhoto(world, episodeId);
    ids = { person: mine.person.id, episode: episodeId, visit: open.id, photo };
    const link = (await who.post(`/api/episodes/${episodeId}/home-link`).expect(201)).body as {
      token: string;
      code: string;
    };
    const opened = await request(world.app.getHttpServer())
      .post('/api/home/session')
      .send({ token: link.token, code: link.code })
      .expect(200);
    home = cookieOf(opened);
    const exercise = content.exercises.find((e) => e.key === 'toe-taps');
    const figure = content.figures.find((f) => f.exercise === 'toe-taps');
    if (exercise === undefined || figure === undefined) throw new Error('no exercise to write');
    const protocol = (await who.get('/api/library/protocols/plantar-heel-pain/file').expect(200))
      .body as object;
    const session = {
      scores: { before: 2, during: 3, after: 2, 'hour-above': false },
      exercises: [{ exercise: 'doming-seated', sets: 1, reps: 10, effort: 4 }],
    };
    const fresh = () => randomUUID();
    const planned = fresh();
    const visit = { personId: ids.person, day: today(), time: '08:00', minutes: 30, note: '' };
    await who.post('/api/appointments', { id: planned, ...visit }).expect(201);
    const asked = fresh();
    const ask = `INSERT INTO home_question (id, clinic_id, episode_id, text, at) VALUES ($1, $2, $3, 'May I run?', now())`;
    await world.owner.query(ask, [asked, world.clinics[0], episodeId]);
    const member = fresh();
    const letter = fresh();
    await who.post(`/api/episodes/${episodeId}/letters`, { id: letter, kind: 'referral' }).expect(201);
    await (
      await world.as(0, 'lead')
    )
      .post('/api/clinic/staff', { id: member, name: 'Bo', email: 'bo@clinic.example', role: 'assistant' })
      .expect(201);
    rights = [
      {
        method: 'POST',
        path: '/api/people',
        body: { id: fresh(), name: 'A', birthDate: '1980-01-01', occupation: 'x' },
      },
      {
        method: 'PATCH',
        path: `/api/people/${ids.person}`,
        body: { version: 1, name: 'Bram', sex: 'male', language: 'de' },
      },
      {
        method: 'POST',
        path: `/api/people/${ids.person}/episodes`,
        body: { id: fresh(), condition: 'plantar-heel-pain', affected: 'left' },
      },
      {
        method: 'PATCH',
        path: `/api/episodes/${episodeId}`,
        body: {
          version: 1,
          schools: {},
          equipment: ['towel'],
          weightsKg: [2],
          minutesPerDay: 20,
          exerciseTime: '18:00',
        },
      },
      {
        method: 'PATCH',
        path: `/api/episodes/${episodeId}`,
        body: { version: 1, status: 'closed', outcome: 'goals-reached', note: 'well' },
      },
      {
        method: 'PATCH',
        path: `/api/episodes/${episodeId}`,
        body: { version: 1, status: 'open', reopened: 'came-back' },
      },
      {
        method: 'POST',
        path: `/api/episodes/${episodeId}/closures`,
        body: {
          id: fresh(),
          subject: 'rule:clot',
          side: 'none',
          kind: 'closed',
          assessedOn: today(),
          assessedBy: 'A',
          done: 'imaging',
          text: 'Clear',
        },
      },
      {
        method: 'POST',
        path: `/api/episodes/${episodeId}/taught`,
        body: { id: fresh(), exercise: 'pogo', side: 'both', reps: 3, faults: [] },
      },
      { method: 'POST', path: `/api/episodes/${episodeId}/visits`, body: { id: fresh() } },
      {
        method: 'PUT',
        path: `/api/visits/${open.id}/entries`,
        body: {
          entries: [
            entry('story.worst', 4),
            entry('story.goal', 'Walk the moor'),
            entry('story.activities', [{ text: 'walking', ability: 3 }]),
            entry('measure.single-leg-heel-raise.left', { trials: [8, 9], status: 'taken', pain: 2 }),
            entry('safety.diabetes', 'no'),
            entry('look.numb.left', { sites: ['ball-1'], at: today() }),
            entry('conclude.ideas', [{ condition: 'plantar-heel-pain', side: 'left', is: 'agreed' }]),
          ],
        },
      },
      {
        method: 'PUT',
        path: `/api/visits/${open.id}/entries`,
        body: { entries: [entry('story.now', 3)], reason: 'put right' },
      },
      { method: 'POST', path: `/api/visits/${open.id}/presence`, body: { step: 'look', since: 0 } },
      {
        method: 'POST',
        path: `/api/photos/${photo}/placements`,
        body: { id: fresh(), landmarks: { heel: { x: 1, y: 2 } }, rulerMm: 50 },
      },
      {
        method: 'POST',
        path: `/api/episodes/${episodeId}/plans`,
        body: { id: fresh(), stage: 'build', from: 'stage' },
      },
      { method: 'PUT', path: `/api/plans/${draft.id}`, body: { version: draft.version, items: draft.items } },
      {
        method: 'POST',
        path: `/api/plans/${draft.id}/if`,
        body: { schools: { lengthening: 'stretch-led' } },
      },
      { method: 'POST', path: `/api/plans/${draft.id}/give`, body: { version: 99 } },
      {
        method: 'POST',
        path: `/api/episodes/${episodeId}/decisions`,
        body: { id: fresh(), decision: 'hold', on: await decidedOn(who, episodeId), reason: 'because' },
      },
      {
        method: 'POST',
        path: '/api/measures',
        body: {
          id: fresh(),
          version: 0,
          label: 'Grip of the toes',
          unit: 'kg',
          sides: 'each',
          trials: 2,
          combine: 'best',
          direction: 'more',
          min: 0,
          max: 50,
          decimals: 1,
          mdc: 2,
          thresholdOp: '<',
          thresholdValue: 5,
          thresholdMeaning: 'weak',
          source: 'Our own',
          step: 'load',
          method: 'Seated',
        },
      },
      {
        method: 'POST',
        path: '/api/library/exercises',
        body: {
          id: fresh(),
          version: 0,
          retired: false,
          file: {
            format: 'heathstep exercise',
            version: 1,
            exercise: { ...(JSON.parse(JSON.stringify(writeExercise(exercise))) as object), name: 'Ours' },
            figure,
          },
        },
      },
      {
        method: 'POST',
        path: '/api/library/routines',
        body: { id: fresh(), name: 'Evening', items: draft.items },
      },
      { method: 'PUT', path: '/api/library/favourites/pogo', body: { on: true } },
      { method: 'PUT', path: '/api/library/notes/pogo', body: { version: 0, text: 'soft floor' } },
      { method: 'POST', path: '/api/library/reviews', body: { item: 'exercise:pogo', version: 1 } },
      {
        method: 'POST',
        path: '/api/library/bands',
        body: {
          id: fresh(),
          band: 'light',
          points: [
            { stretchPercent: 50, newtons: 10 },
            { stretchPercent: 100, newtons: 20 },
          ],
        },
      },
      {
        method: 'PUT',
        path: '/api/library/protocols/plantar-heel-pain/draft',
        body: { edition: 0, file: protocol },
      },
      { method: 'POST', path: '/api/library/protocols/plantar-heel-pain/publish', body: { edition: 99 } },
      {
        method: 'POST',
        path: '/api/library/protocols/plantar-heel-pain/move',
        body: { episodes: [episodeId] },
      },
      {
        method: 'POST',
        path: '/api/appointments',
        body: {
          id: fresh(),
          personId: ids.person,
          day: today(),
          time: '09:30',
          minutes: 30,
          note: 'first',
          uid: 'a@b',
        },
      },
      {
        method: 'PATCH',
        path: `/api/appointments/${planned}`,
        body: { version: 1, day: today(), time: '10:00', minutes: 20, note: 'moved', state: 'came' },
      },
      {
        method: 'POST',
        path: '/api/day/asides',
        body: {
          id: fresh(),
          personId: ids.person,
          episodeId,
          kind: 'silent',
          weight: 0,
          until: addDays(today(), 3),
          reason: 'away',
        },
      },
      {
        method: 'POST',
        path: `/api/episodes/${ids.episode}/events`,
        body: { id: fresh(), kind: 'travel', day: '2026-01-05', note: 'two days on trains' },
      },
      { method: 'POST', path: `/api/questions/${asked}/answer`, body: { answer: 'Yes, gently' } },
      { method: 'POST', path: '/api/home/questions', body: { id: fresh(), text: 'May I swim?' } },
      {
        method: 'POST',
        path: '/api/clinic/staff',
        body: { id: fresh(), name: 'Ada', email: 'ada@clinic.example', role: 'clinician' },
      },
      { method: 'PATCH', path: `/api/clinic/staff/${member}`, body: { name: 'Ada', role: 'clinician' } },
      {
        method: 'PUT',
        path: '/api/clinic',
        body: {
          name: 'Feet',
          phone: '01632 960 111',
          emergencyNumber: '999',
          locale: 'en-GB',
          timeZone: 'UTC',
        },
      },
      { method: 'POST', path: `/api/episodes/${episodeId}/letters`, body: { id: fresh(), kind: 'referral' } },
      {
        method: 'PUT',
        path: `/api/letters/${letter}`,
        body: { version: 1, to: 'Dr Quill', opening: 'Dear Ada', closing: 'Thanks', shows: ['course'] },
      },
      {
        method: 'POST',
        path: `/api/letters/${letter}/sent`,
        body: { version: 99, mark: '0'.repeat(64), way: 'post', on: today() },
      },
      {
        method: 'PUT',
        path: '/api/clinic/letters/referral',
        body: { version: 0, opening: 'Dear {{person}}', closing: '', shows: ['course'] },
      },
      {
        method: 'PUT',
        path: '/api/clinic/defaults',
        body: {
          lockMinutes: 15,
          secondStep: false,
          painSchool: 'none',
          letterhead: 'Mill Lane',
          contact: '',
          emergency: '',
          hours: [],
        },
      },
      { method: 'POST', path: '/api/clinic/programs', body: { name: 'Front desk' } },
      {
        method: 'POST',
        path: `/api/people/${ids.person}/erase`,
        body: { name: 'not the name', reason: 'they asked for it' },
      },
      ...['/api/exchange/fhir/look', '/api/exchange/fhir'].map((path) => ({
        method: 'POST' as const,
        path,
        body: {
          resourceType: 'Bundle',
          entry: [
            {
              resource: {
                resourceType: 'Patient',
                id: 'p',
                name: [{ given: ['Bo'], family: 'Ek' }],
                birthDate: '1970-01-02',
              },
            },
            {
              resource: {
                resourceType: 'Basic',
                id: fresh(),
                extension: [
                  {
                    url: 'https://heathstep.example/fhir/record',
                    extension: [
                      { url: 'table', valueCode: 'set_aside' },
                      { url: 'row', valueString: '{}' },
                    ],
                  },
                ],
              },
            },
          ],
        },
      })),
      { method: 'POST', path: '/api/account-links', body: { token: 'x'.repeat(43) } },
      {
        method: 'POST',
        path: '/api/account-links/password',
        body: { token: 'x'.repeat(43), password: 'lantern gravel otter plum' },
      },
      {
        method: 'POST',
        path: '/api/session/password',
        body: { current: 'none of it', password: 'lantern gravel otter plum' },
      },
      { method: 'POST', path: '/api/session/second-step', body: { current: 'none of it' } },
      { method: 'POST', path: '/api/session/second-step/first', body: { code: '123456' } },
      { method: 'POST', path: '/api/session/second-step/end', body: { current: 'none of it' } },
      { method: 'PATCH', path: '/api/session', body: { registration: 'PH 1' } },
      { method: 'POST', path: '/api/session', body: { email: 'nobody@clinic.example', password: 'x' } },
      { method: 'POST', path: '/api/home/session', body: { token: 'x'.repeat(43), code: '123456' } },
      {
        method: 'PUT',
        path: '/api/home/entries',
        body: { id: fresh(), version: 1, kind: 'session', day: today(), payload: session },
      },
      {
        method: 'PUT',
        path: '/api/home/entries',
        body: {
          id: fresh(),
          version: 1,
          kind: 'stop',
          day: today(),
          payload: { grade: 'review', sign: 'New swelling', exercise: null },
        },
      },
    ];
  }, 60_000);
  afterAll(() => world.stop());

  const send = ({ method, path }: Right, body: unknown) => {
    const agent = request(world.app.getHttpServer());
    const test =
      method === 'POST' ? agent.post(path) : method === 'PUT' ? agent.put(path) : agent.patch(path);
    const cookie = /^\/api\/home\/(entries|questions)/.test(path) ? home : cookieOfLead;
    return test.set('cookie', cookie).set('content-type', 'application/json').send(JSON.stringify(body));
  };
  let cookieOfLead: string;
  beforeAll(async () => {
    const { email } = who;
    const answer = await request(world.app.getHttpServer())
      .post('/api/session')
      .send({ email, password: 'a long test password' })
      .expect(200);
    cookieOfLead = cookieOf(answer);
  });

  it('is answered by what it is, never by a failure of the server', async () => {
    const failed: string[] = [];
    await fc.assert(
      fc.asyncProperty(badInputs(rights.map((r) => r.body)), async ({ request: at, body }) => {
        const right = rights[at];
        if (right === undefined || body === undefined) return;
        const { status } = await send(right, body);
        if (status >= 500)
          failed.push(`${right.method} ${right.path} ${status} ${JSON.stringify(body)?.slice(0, 1500)}`);
      }),
      { numRuns: RUNS, seed: SEED, endOnFailure: true },
    );
    expect(failed).toEqual([]);
  }, 3_600_000);

  it('leaves every page as it was to be read', async () => {
    for (const path of [
      '/api/day',
      '/api/appointments',
      '/api/appointments/visits.ics',
      '/api/people',
      '/api/content',
      `/api/people/${ids.person}`,
      `/api/episodes/${ids.episode}/course`,
      `/api/visits/${ids.visit}`,
      `/api/episodes/${ids.episode}/photos`,
      `/api/episodes/${ids.episode}/captures`,
      `/api/episodes/${ids.episode}/handout.txt`,
      `/api/episodes/${ids.episode}/letter`,
      '/api/library/protocols',
    ]) {
      const { status } = await who.get(path);
      // A stop reported among all that keeps the paper back, and says so.
      expect([path, [200, 409, 422].includes(status)]).toEqual([path, true]);
    }
  });

  it('is not there, where the address names nothing', async () => {
    interface Layer {
      route?: { path: string; methods: Record<string, boolean> };
    }
    const { router } = world.app.getHttpAdapter().getInstance() as unknown as { router: { stack: Layer[] } };
    const named = router.stack.flatMap((l) => {
      const { route } = l;
      if (route === undefined || !route.path.includes(':')) return [];
      return Object.keys(route.methods).map((m) => [m, route.path] as const);
    });
    expect(named.length).toBeGreaterThan(30);
    for (const [method, path] of named)
      for (const part of BAD_PARTS) {
        const address = path.replace(/:\w+/g, part);
        const agent = request(world.app.getHttpServer());
        const test =
          method === 'get'
            ? agent.get(address)
            : method === 'post'
              ? agent.post(address).send({})
              : method === 'put'
                ? agent.put(address).send({})
                : method === 'patch'
                  ? agent.patch(address).send({})
                  : agent.delete(address);
        const { status } = await test.set('cookie', cookieOfLead);
        expect([method, address.slice(0, 120), status < 500]).toEqual([method, address.slice(0, 120), true]);
      }
  });
});
