import type { Bundle, DomainResource, FhirResource } from 'fhir/r4.js';
import { createHash, randomUUID } from 'node:crypto';
import request from 'supertest';
import type { LetterPageView } from '@heathstep/contracts';
import { loadDemo } from '../src/demo/loadDemo.js';
import { sealed } from '../src/exchange/fhir/terms.js';
import { NOT_THE_RECORD, RECORD_TABLES } from '../src/exchange/tables.js';
import { addEpisode, addPerson, type Caller, inWorld, keepCapture, takePhoto, treated } from './harness.js';
import { structureProblems } from './structure.js';

interface DayItem {
  readonly personId: string;
  readonly episodeId: string;
  readonly name: string;
}

const taken = (who: Caller, bundle: unknown) => who.post('/api/exchange/fhir', bundle as object);

const exported = async (who: Caller, personId: string): Promise<Bundle> =>
  (await who.get(`/api/people/${personId}/fhir`).expect(200)).body as Bundle;

/** Without the moment it was written at. */
const lasting = ({ timestamp: _timestamp, ...bundle }: Bundle): unknown => bundle;

const resourcesOf = (bundle: Bundle): FhirResource[] => (bundle.entry ?? []).flatMap((e) => e.resource ?? []);

describe('a record that goes out and comes back', () => {
  const { world, who } = inWorld();
  let lead: Caller;
  let demo: {
    get: (path: string) => request.Test;
    post: (path: string, body: object) => request.Test;
    put: (path: string, body: object) => request.Test;
  };
  let people: readonly DayItem[] = [];

  beforeAll(async () => {
    lead = await world.as(0, 'lead');
    const [signIn] = await loadDemo(world.owner, new Date());
    const server = request(world.app.getHttpServer());
    const answer = await server
      .post('/api/session')
      .send({ email: signIn?.email, password: signIn?.password });
    const cookie = (answer.headers['set-cookie'] as unknown as string[])[0] ?? '';
    demo = {
      get: (path) => server.get(path).set('cookie', cookie),
      post: (path, body) => server.post(path).set('cookie', cookie).send(body),
      put: (path, body) => server.put(path).set('cookie', cookie).send(body),
    };
    people = ((await demo.get('/api/day').expect(200)).body as { items: DayItem[] }).items;
  });

  const demoRecord = async (personId: string): Promise<Bundle> =>
    (await demo.get(`/api/people/${personId}/fhir`).expect(200)).body as Bundle;

  /** Every screen of a complaint, as the pages ask for it. */
  const screens = async (episodeId: string, personId: string): Promise<unknown[]> => {
    const base = `/api/episodes/${episodeId}`;
    const visits = await world.owner.query<{ id: string }[]>(
      'SELECT id FROM visit WHERE episode_id = $1 ORDER BY started_at',
      [episodeId],
    );
    const letters = await world.owner.query<{ id: string }[]>(
      'SELECT id FROM letter WHERE episode_id = $1 ORDER BY started_at',
      [episodeId],
    );
    const paths = [
      `/api/people/${personId}`,
      `/api/people/${personId}/appointments`,
      `/api/people/${personId}/outings`,
      `/api/people/${personId}/consents`,
      base,
      ...['course', 'photos', 'captures', 'events', 'questions', 'letter', 'letters'].map(
        (p) => `${base}/${p}`,
      ),
      ...visits.map((v) => `/api/visits/${v.id}`),
      ...letters.map((l) => `/api/letters/${l.id}`),
    ];
    const all: unknown[] = [];
    for (const path of paths) all.push({ path, body: (await demo.get(path).expect(200)).body as unknown });
    // Refused where nothing may be given, and then for the same reason.
    const { status, body } = await demo.get(`${base}/handout`);
    expect([200, 422]).toContain(status);
    all.push(status, body);
    return all;
  };

  /** A flare, one ready, captures, an open visit, a long course with plans and decisions. */
  const some = () =>
    people.filter((p) =>
      ['Oskar Thwaite', 'Ilse Venning', 'Averil Moss', 'Corin Fellgate', 'Ragna Thirlby'].includes(p.name),
    );

  const recordRun = (personId: string) =>
    world.owner.query(
      `INSERT INTO outing (id, clinic_id, person_id, day, started_at, seconds, metres, run_seconds, climb_metres, file, author_id, at)
       SELECT $1, clinic_id, id, (now() - interval '2 days')::date, now() - interval '2 days', 1201.5, 3604.25, 1100, 41.5,
              'run.gpx', (SELECT u.id FROM app_user u WHERE u.clinic_id = person.clinic_id LIMIT 1), now() FROM person WHERE id = $2`,
      [randomUUID(), personId],
    );

  const tellConsent = (personId: string) =>
    demo
      .post(`/api/people/${personId}/consents`, {
        id: randomUUID(),
        kind: 'pictures',
        given: false,
        way: 'written',
        on: '2026-01-05',
        note: 'of the face',
      })
      .expect(201);

  /** A letter that went out, and a draft. */
  const writeLetters = async (episodeId: string): Promise<void> => {
    const [goes, draft] = [randomUUID(), randomUUID()];
    for (const id of [goes, draft])
      await demo.post(`/api/episodes/${episodeId}/letters`, { id, kind: 'referral' }).expect(201);
    const begun = (await demo.get(`/api/letters/${goes}`).expect(200)).body as LetterPageView;
    const page = (
      await demo.put(`/api/letters/${goes}`, { ...begun.text, version: 1, to: 'Dr Quill' }).expect(200)
    ).body as LetterPageView;
    await demo
      .post(`/api/letters/${goes}/sent`, {
        version: page.letter.version,
        mark: page.mark,
        way: 'post',
        on: page.letter.startedAt.slice(0, 10),
      })
      .expect(200);
  };

  it('shows people of the demo the same on every screen after it was erased and taken back', async () => {
    const before = new Map<string, unknown>();
    const ilse = some().find((p) => p.name === 'Ilse Venning')?.personId ?? '';
    await recordRun(ilse);
    await tellConsent(ilse);
    await writeLetters(some().find((p) => p.name === 'Oskar Thwaite')?.episodeId ?? '');
    for (const p of some()) before.set(p.episodeId, await screens(p.episodeId, p.personId));
    const day = (await demo.get('/api/day').expect(200)).body as unknown;
    for (const personId of new Set(some().map((p) => p.personId))) {
      const bundle = await demoRecord(personId);
      const { name } = (await demo.get(`/api/people/${personId}`).expect(200)).body as { name: string };
      await demo
        .post(`/api/people/${personId}/erase`, { name, reason: 'moved out and back', early: true })
        .expect(200);
      await demo.get(`/api/people/${personId}`).expect(404);
      const back = await demo.post('/api/exchange/fhir', bundle);
      expect([name, back.status, back.body]).toEqual([name, 201, { personId }]);
      const again = await demoRecord(personId);
      expect(lasting(again)).toEqual(lasting(bundle));
    }
    for (const p of some()) expect(await screens(p.episodeId, p.personId)).toEqual(before.get(p.episodeId));
    expect((await demo.get('/api/day').expect(200)).body).toEqual(day);
  });

  it('is sound by the published definitions, read by a library that had no part in writing it', async () => {
    const seen = new Set<string>();
    for (const { personId } of people) {
      const bundle = await demoRecord(personId);
      for (const { resourceType } of resourcesOf(bundle)) seen.add(resourceType);
      expect(structureProblems(bundle)).toEqual([]);
    }
    expect([...seen].sort()).toEqual(
      expect.arrayContaining([
        'CarePlan',
        'Condition',
        'DocumentReference',
        'Encounter',
        'Goal',
        'Observation',
        'Patient',
        'Provenance',
      ]),
    );
  });

  it('brings pictures, captures and what was typed home in every version', async () => {
    const { person, episodeId } = await treated(who);
    await takePhoto(world, episodeId);
    await keepCapture(world, episodeId);
    const bundle = await exported(who, person.id);
    const bytes = () =>
      world.owner.query<{ hash: string }[]>(
        `SELECT encode(sha256(bytes), 'hex') AS hash FROM photo WHERE visit_id IN (SELECT id FROM visit WHERE episode_id = $1)
          UNION ALL SELECT encode(sha256(bytes), 'hex') FROM lab_capture WHERE episode_id = $1`,
        [episodeId],
      );
    const before = await bytes();
    expect(before).toHaveLength(2);
    await lead
      .post(`/api/people/${person.id}/erase`, { name: person.name, reason: 'moved away', early: true })
      .expect(200);
    expect(await bytes()).toEqual([]);
    await taken(who, bundle).expect(201);
    expect(await bytes()).toEqual(before);
  });

  it('comes to another clinic while the first still has it, under ids of its own and by the names of who wrote', async () => {
    const { person, episodeId } = await treated(who);
    const bundle = await exported(who, person.id);
    const other = await world.as(1, 'clinician');
    const { personId } = (await taken(other, bundle).expect(201)).body as { personId: string };
    expect(personId).not.toBe(person.id);
    const there = (await other.get(`/api/people/${personId}`).expect(200)).body as {
      name: string;
      episodes: { id: string }[];
    };
    expect(there.name).toBe(person.name);
    const anyId = (body: unknown): unknown =>
      JSON.parse(JSON.stringify(body).replaceAll(/[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}/g, 'ID'));
    const course = async (of: Caller, id: string) => {
      const { episode, visits } = (await of.get(`/api/episodes/${id}/course`).expect(200)).body as Record<
        string,
        unknown
      >;
      return anyId({ episode, visits });
    };
    expect(await course(other, there.episodes[0]?.id ?? '')).toEqual(await course(who, episodeId));
    // Who wrote it there is named, and is nobody who works here.
    const staff = (await (await world.as(1, 'lead')).get('/api/clinic/staff').expect(200)).body as object[];
    expect(staff).toHaveLength(3);
    // The first has it as before, and neither takes it twice.
    await who.get(`/api/people/${person.id}`).expect(200);
    for (const [one, here] of [
      [who, person.id],
      [other, personId],
    ] as const) {
      expect((await one.post('/api/exchange/fhir/look', bundle).expect(200)).body).toMatchObject({ here });
      await taken(one, bundle).expect(409);
    }
    await other.get(`/api/people/${person.id}`).expect(404);
  });

  it('refuses by its path what was changed on the way, and what is no record', async () => {
    const { person } = await treated(who);
    const bundle = await exported(who, person.id);
    const at = (type: string) => (bundle.entry ?? []).findIndex((e) => e.resource?.resourceType === type);
    const changed = structuredClone(bundle);
    const observation = changed.entry?.[at('Observation')]?.resource;
    if (observation?.resourceType !== 'Observation') throw new Error('there is no observation');
    observation.effectiveDateTime = '2020-01-01T00:00:00Z';
    const pointers = async (body: unknown) =>
      ((await taken(who, body).expect(400)).body as { errors: { pointer: string }[] }).errors.map(
        (e) => e.pointer,
      );
    expect(await pointers(changed)).toEqual([`/entry/${String(at('Observation'))}/resource`]);
    expect(await pointers({ resourceType: 'Patient' })).toEqual(['/resourceType']);
    expect(await pointers({ resourceType: 'Bundle' })).toEqual(['/entry']);
    expect(await pointers({ resourceType: 'Bundle', entry: [] })).toEqual(['/entry']);
    expect(
      await pointers({ resourceType: 'Bundle', entry: [{}, { resource: { resourceType: 7 } }] }),
    ).toEqual(['/entry/0/resource', '/entry/1/resource/resourceType']);
    const patient = { resource: { resourceType: 'Patient', name: [{ text: 'Nils Ek' }], birthDate: '1970' } };
    expect(await pointers({ resourceType: 'Bundle', entry: [patient] })).toEqual([
      '/entry/0/resource/birthDate',
    ]);
    expect(await pointers({ resourceType: 'Bundle', entry: [patient, patient] })).toEqual([
      '/entry/1/resource',
    ]);
  });

  it('refuses a row that no screen would have taken, though its digest fits', async () => {
    const { person } = await treated(who);
    const bundle = await exported(who, person.id);
    const entry = bundle.entry?.find(
      (e) =>
        e.resource?.resourceType === 'QuestionnaireResponse' &&
        e.resource.extension?.some((x) =>
          x.extension?.some((r) => (r.valueString ?? '').includes('"safety.')),
        ),
    );
    const resource = entry?.resource as {
      extension: { url: string; valueString?: string; extension?: { url: string; valueString?: string }[] }[];
    };
    for (const e of resource.extension)
      for (const r of e.extension ?? [])
        if (r.url === 'row')
          r.valueString = (r.valueString ?? '')
            .replace('"value": "no"', '"value": "sure"')
            .replace('"value":"no"', '"value":"sure"');
    const sorted = (v: unknown): unknown =>
      Array.isArray(v)
        ? v.map(sorted)
        : typeof v === 'object' && v !== null
          ? Object.fromEntries(
              Object.entries(v)
                .sort(([a], [b]) => (a < b ? -1 : 1))
                .map(([k, x]) => [k, sorted(x)]),
            )
          : v;
    const digest = resource.extension.find((e) => e.url.endsWith('/digest'));
    const without = { ...resource, extension: resource.extension.filter((e) => e !== digest) };
    if (digest !== undefined)
      digest.valueString = createHash('sha256')
        .update(JSON.stringify(sorted(without)))
        .digest('base64');
    await lead
      .post(`/api/people/${person.id}/erase`, { name: person.name, reason: 'moved away', early: true })
      .expect(200);
    const { errors } = (await taken(who, bundle).expect(400)).body as { errors: { detail: string }[] };
    expect(errors[0]?.detail).toMatch(/^safety\..* must be one of no, yes/);
  });

  it('refuses a row that misses something, though its digest fits', async () => {
    const { person } = await treated(who);
    const bundle = JSON.parse(
      JSON.stringify(await exported(who, person.id)).replaceAll('\\"occupation\\"', '\\"else\\"'),
    ) as Bundle;
    for (const e of bundle.entry ?? []) {
      const resource = e.resource as DomainResource;
      const extension = (resource.extension ?? []).filter((x) => !x.url.endsWith('/digest'));
      e.resource = sealed({ ...resource, extension }) as FhirResource;
    }
    await lead
      .post(`/api/people/${person.id}/erase`, { name: person.name, reason: 'moved away', early: true })
      .expect(200);
    const { errors } = (await taken(who, bundle).expect(400)).body as { errors: { pointer: string }[] };
    expect(errors[0]?.pointer).toBe('/entry');
    await who.get(`/api/people/${person.id}`).expect(404);
  });

  it('of another system is kept as it came, shown, and goes out again', async () => {
    const allergy = {
      resourceType: 'AllergyIntolerance',
      id: 'a1',
      patient: { reference: 'Patient/p' },
      code: { text: 'Latex' },
    };
    const bundle = {
      resourceType: 'Bundle',
      type: 'collection',
      entry: [
        {
          resource: {
            resourceType: 'Patient',
            id: 'p',
            name: [{ given: ['Øre'], family: 'Lund' }],
            birthDate: '1971-02-03',
            gender: 'female',
          },
        },
        { resource: allergy },
      ],
    };
    const look = (await who.post('/api/exchange/fhir/look', bundle).expect(200)).body as object;
    expect(look).toMatchObject({
      name: 'Øre Lund',
      birthDate: '1971-02-03',
      ours: false,
      kept: { Patient: 1, AllergyIntolerance: 1 },
      alike: [],
    });
    const { personId } = (await taken(who, bundle).expect(201)).body as { personId: string };
    expect((await who.get(`/api/people/${personId}`).expect(200)).body).toMatchObject({
      name: 'Øre Lund',
      sex: 'female',
    });
    const kept = (await who.get(`/api/people/${personId}/kept`).expect(200)).body as {
      type: string;
      resource: object;
    }[];
    expect(kept.map((k) => k.type)).toEqual(['AllergyIntolerance', 'Patient']);
    expect(kept[0]?.resource).toEqual(allergy);
    const out = await exported(who, personId);
    expect(resourcesOf(out)).toContainEqual(allergy);
    expect(
      structureProblems({
        ...out,
        entry: (out.entry ?? []).filter((e) => e.resource?.id !== 'p' && e.resource?.id !== 'a1'),
      }),
    ).toEqual([]);
    // Someone of that name is told before they are taken again.
    expect(
      ((await who.post('/api/exchange/fhir/look', bundle).expect(200)).body as { alike: object[] }).alike,
    ).toHaveLength(1);
    await lead
      .post(`/api/people/${personId}/erase`, { name: 'Øre Lund', reason: 'moved away', early: true })
      .expect(200);
    await taken(who, out).expect(201);
    expect(lasting(await exported(who, personId))).toEqual(lasting(out));
  });

  it('is read by another program with a key of the clinic, and by none without', async () => {
    const { person } = await treated(who);
    const server = request(world.app.getHttpServer());
    const { token, program } = (await lead.post('/api/clinic/programs', { name: 'Front desk' }).expect(201))
      .body as {
      token: string;
      program: { id: string };
    };
    const ask = (path: string, key = token) =>
      server.get(`/fhir/${path}`).set('authorization', `Bearer ${key}`);
    await server.get(`/fhir/Patient/${person.id}`).expect(401);
    await ask(`Patient/${person.id}`, 'x'.repeat(43)).expect(401);
    const patient = (await ask(`Patient/${person.id}`).expect(200)).body as FhirResource;
    expect(patient).toMatchObject({ resourceType: 'Patient', name: [{ text: person.name }] });
    const observations = (await ask(`Observation?patient=${person.id}`).expect(200)).body as Bundle;
    expect(observations.total).toBeGreaterThan(1);
    expect(structureProblems(observations)).toEqual([]);
    expect((await ask('metadata').expect(200)).body).toMatchObject({ fhirVersion: '4.0.1' });
    await ask('Nothing?patient=x').expect(404);
    await ask('Observation').expect(404);
    // Of another clinic there is nothing, and what is gone opens nothing.
    const elsewhere = await addPerson(await world.as(1, 'clinician'), 'Someone Else');
    await ask(`Patient/${elsewhere.id}`).expect(404);
    await server.post('/fhir/Patient').set('authorization', `Bearer ${token}`).send({}).expect(404);
    await lead.del(`/api/clinic/programs/${program.id}`).expect(200);
    await ask(`Patient/${person.id}`).expect(401);
    const { lines } = (await lead.get(`/api/audit?person=${person.id}`).expect(200)).body as {
      lines: { byProgram: boolean }[];
    };
    expect(lines.some((l) => l.byProgram)).toBe(true);
  });

  it('is erased whole, by a lead who types the name, and leaves a line without one', async () => {
    const { person, episodeId } = await treated(who);
    await addEpisode(who, person.id, 'right');
    await lead
      .post(`/api/people/${person.id}/erase`, { name: 'Someone', reason: 'asked for it' })
      .expect(400);
    await who
      .post(`/api/people/${person.id}/erase`, { name: person.name, reason: 'asked for it' })
      .expect(403);
    // Before the usual term is over it is said that it was decided.
    await lead
      .post(`/api/people/${person.id}/erase`, { name: person.name, reason: 'asked for it' })
      .expect(400);
    expect((await lead.get(`/api/people/${person.id}/erasure`).expect(200)).body).toMatchObject({
      over: false,
    });
    const done = (
      await lead
        .post(`/api/people/${person.id}/erase`, { name: person.name, reason: 'asked for it', early: true })
        .expect(200)
    ).body as { rows: number };
    expect(done.rows).toBeGreaterThan(20);
    await who.get(`/api/episodes/${episodeId}/course`).expect(404);
    const left = await world.owner.query<{ n: number }[]>(
      'SELECT count(*)::int AS n FROM person WHERE id = $1',
      [person.id],
    );
    expect(left).toEqual([{ n: 0 }]);
    const list = (await lead.get('/api/clinic/erasures').expect(200)).body as object[];
    expect(list[0]).toMatchObject({ reason: 'asked for it', rows: done.rows });
    expect(JSON.stringify(list)).not.toContain(person.name);
  });

  it('knows every table with rows of a person', async () => {
    const rows = await world.owner.query<{ name: string }[]>(
      `SELECT DISTINCT c.relname AS name FROM pg_class c JOIN pg_attribute a ON a.attrelid = c.oid
        WHERE c.relkind = 'r' AND c.relnamespace = 'public'::regnamespace
          AND a.attname IN ('person_id', 'episode_id', 'visit_id', 'photo_id')`,
    );
    const known = [...RECORD_TABLES.map((t) => t.table), ...NOT_THE_RECORD, 'erasure'];
    expect(rows.map((r) => r.name).filter((n) => !(known as readonly string[]).includes(n))).toEqual([]);
  });
});
