import { randomUUID } from 'node:crypto';
import { Client } from 'pg';
import { addDays } from '@heathstep/core';
import {
  CAPTURE,
  type Caller,
  entry,
  keepCapture,
  makeWorld,
  packedCapture,
  takePhoto,
  today,
  treated,
  type World,
} from './harness.js';

const appointment = (id: string, personId: string): object => ({
  id,
  personId,
  day: today(),
  time: '09:30',
  minutes: 30,
  note: '',
});

const aside = (id: string, personId: string, episodeId: string): object => ({
  id,
  personId,
  episodeId,
  kind: 'silent',
  weight: 0,
  until: addDays(today(), 3),
  reason: 'away this week',
});

describe('two clinics in one database', () => {
  let world: World;
  let stranger: Caller;
  let ids: {
    person: string;
    episode: string;
    visit: string;
    plan: string;
    photo: string;
    routine: string;
    device: string;
    appointment: string;
    aside: string;
    question: string;
    event: string;
    capture: string;
    member: string;
    program: string;
    letter: string;
    outing: string;
    table: string;
  };

  beforeAll(async () => {
    world = await makeWorld();
    const mine = await treated(await world.as(0, 'clinician'));
    ids = {
      person: mine.person.id,
      episode: mine.episodeId,
      visit: mine.visitId,
      plan: mine.plan.id,
      photo: await takePhoto(world, mine.episodeId),
      routine: randomUUID(),
      appointment: randomUUID(),
      aside: randomUUID(),
      question: randomUUID(),
      event: randomUUID(),
      capture: await keepCapture(world, mine.episodeId),
      table: randomUUID(),
      letter: randomUUID(),
      outing: randomUUID(),
      program: (
        await (await world.as(0, 'lead')).post('/api/clinic/programs', { name: 'Front desk' }).expect(201)
      ).body.program.id as string,
      member: (await (await world.as(0, 'clinician')).get('/api/session').expect(200)).body.user.id as string,
      device: (await (await world.as(0, 'clinician')).get('/api/session/devices')).body[0].id as string,
    };
    await (
      await world.as(0, 'clinician')
    )
      .post('/api/library/routines', { id: ids.routine, name: 'Ours', items: mine.plan.items })
      .expect(201);
    const own = await world.as(0, 'clinician');
    await world.owner.query(
      "INSERT INTO people_import (id, clinic_id, file, people, author_id, at) VALUES ($1, $2, 'a.csv', '[]', $3, now())",
      [ids.table, world.clinics[0], ids.member],
    );
    await own.post('/api/appointments', appointment(ids.appointment, ids.person)).expect(201);
    await own.post('/api/day/asides', aside(ids.aside, ids.person, ids.episode)).expect(201);
    await world.owner.query(
      "INSERT INTO home_question (id, clinic_id, episode_id, text, at) VALUES ($1, $2, $3, 'May I swim?', now())",
      [ids.question, world.clinics[0], ids.episode],
    );
    await own
      .post(`/api/episodes/${ids.episode}/events`, {
        id: ids.event,
        kind: 'travel',
        day: '2026-01-05',
        note: '',
      })
      .expect(201);
    await world.owner.query(
      `INSERT INTO outing (id, clinic_id, person_id, day, started_at, seconds, metres, run_seconds, file, author_id, at)
       VALUES ($1, $2, $3, '2026-01-05', '2026-01-05T08:00Z', 60, 100, 0, 'a.gpx', $4, now())`,
      [ids.outing, world.clinics[0], ids.person, ids.member],
    );
    await own.post(`/api/episodes/${ids.episode}/letters`, { id: ids.letter, kind: 'referral' }).expect(201);
    stranger = await world.as(1, 'lead');
  });
  afterAll(() => world.stop());

  const routes: [string, (who: Caller) => Promise<{ status: number }>][] = [
    ['GET person', (who) => who.get(`/api/people/${ids.person}`)],
    ['GET person as a file', (who) => who.get(`/api/people/${ids.person}/fhir`)],
    ['GET what came with a person', (who) => who.get(`/api/people/${ids.person}/kept`)],
    [
      'POST erasure',
      (who) => who.post(`/api/people/${ids.person}/erase`, { name: 'Bram Sedge', reason: 'not theirs' }),
    ],
    ['POST undo of a table', (who) => who.post(`/api/exchange/people/imports/${ids.table}/undo`)],
    ['GET when it may be erased', (who) => who.get(`/api/people/${ids.person}/erasure`)],
    ['DELETE key of a program', (who) => who.del(`/api/clinic/programs/${ids.program}`)],
    ['PATCH person', (who) => who.patch(`/api/people/${ids.person}`, { version: 1, name: 'Taken' })],
    [
      'POST episode of a person',
      (who) =>
        who.post(`/api/people/${ids.person}/episodes`, {
          id: randomUUID(),
          condition: 'plantar-heel-pain',
          affected: 'left',
        }),
    ],
    ['GET episode', (who) => who.get(`/api/episodes/${ids.episode}`)],
    ['PATCH episode', (who) => who.patch(`/api/episodes/${ids.episode}`, { version: 1, minutesPerDay: 9 })],
    [
      'POST closure',
      (who) =>
        who.post(`/api/episodes/${ids.episode}/closures`, {
          id: randomUUID(),
          subject: 'rule:clot',
          side: 'none',
          kind: 'overridden',
          text: 'because',
        }),
    ],
    ['POST visit', (who) => who.post(`/api/episodes/${ids.episode}/visits`, { id: randomUUID() })],
    ['GET visit', (who) => who.get(`/api/visits/${ids.visit}`)],
    [
      'PUT entries',
      (who) => who.put(`/api/visits/${ids.visit}/entries`, { entries: [entry('story.worst', 3)] }),
    ],
    ['POST presence', (who) => who.post(`/api/visits/${ids.visit}/presence`, { step: 'look', since: 0 })],
    ['GET photos', (who) => who.get(`/api/episodes/${ids.episode}/photos`)],
    [
      'PUT photo',
      (who) =>
        who
          .put(`/api/visits/${ids.visit}/photos/${randomUUID()}?measure=hallux-angle&side=left`)
          .type('application/octet-stream')
          .send(Buffer.from('picture')),
    ],
    ['GET captures', (who) => who.get(`/api/episodes/${ids.episode}/captures`)],
    [
      'PUT capture',
      (who) =>
        who
          .put(`/api/episodes/${ids.episode}/captures/${randomUUID()}?${CAPTURE}`)
          .type('application/octet-stream')
          .send(packedCapture()),
    ],
    ['GET recording', (who) => who.get(`/api/captures/${ids.capture}/recording`)],
    ['GET lab page', (who) => who.get(`/api/captures/${ids.capture}/page.pdf`)],
    ['DELETE capture', (who) => who.del(`/api/captures/${ids.capture}`)],
    ['POST keep capture', (who) => who.post(`/api/captures/${ids.capture}/keep`, {})],
    ['GET photo', (who) => who.get(`/api/photos/${ids.photo}`)],
    [
      'POST placement',
      (who) => who.post(`/api/photos/${ids.photo}/placements`, { id: randomUUID(), landmarks: {} }),
    ],
    ['POST sign', (who) => who.post(`/api/visits/${ids.visit}/sign`)],
    [
      'POST plan',
      (who) => who.post(`/api/episodes/${ids.episode}/plans`, { id: randomUUID(), from: 'stage' }),
    ],
    ['PUT plan', (who) => who.put(`/api/plans/${ids.plan}`, { version: 1, items: [] })],
    ['GET calendar', (who) => who.get(`/api/episodes/${ids.episode}/plan.ics`)],
    ['GET handout', (who) => who.get(`/api/episodes/${ids.episode}/handout`)],
    ['GET handout as text', (who) => who.get(`/api/episodes/${ids.episode}/handout.txt`)],
    ['GET handout as a PDF', (who) => who.get(`/api/episodes/${ids.episode}/handout.pdf`)],
    ['GET appointments of a person', (who) => who.get(`/api/people/${ids.person}/appointments`)],
    ['GET events', (who) => who.get(`/api/episodes/${ids.episode}/events`)],
    [
      'POST event',
      (who) =>
        who.post(`/api/episodes/${ids.episode}/events`, {
          id: randomUUID(),
          kind: 'travel',
          day: '2026-01-05',
          note: '',
        }),
    ],
    ['DELETE event', (who) => who.del(`/api/events/${ids.event}`)],
    ['GET letter', (who) => who.get(`/api/episodes/${ids.episode}/letter`)],
    ['GET letter as a PDF', (who) => who.get(`/api/episodes/${ids.episode}/letter.pdf`)],
    ['GET outings', (who) => who.get(`/api/people/${ids.person}/outings`)],
    [
      'POST outings',
      (who) =>
        who
          .post(`/api/people/${ids.person}/outings`)
          .type('application/octet-stream')
          .send(
            Buffer.from(
              '<gpx><trk><trkseg><trkpt lat="54" lon="2"><time>2026-01-05T08:00:00Z</time></trkpt><trkpt lat="54.001" lon="2"><time>2026-01-05T08:01:00Z</time></trkpt></trkseg></trk></gpx>',
            ),
          ),
    ],
    ['DELETE outing', (who) => who.del(`/api/outings/${ids.outing}`)],
    ['POST outing back', (who) => who.post(`/api/outings/${ids.outing}/back`, {})],
    ['GET letters', (who) => who.get(`/api/episodes/${ids.episode}/letters`)],
    [
      'POST letter',
      (who) => who.post(`/api/episodes/${ids.episode}/letters`, { id: randomUUID(), kind: 'referral' }),
    ],
    ['GET written letter', (who) => who.get(`/api/letters/${ids.letter}`)],
    [
      'PUT letter',
      (who) =>
        who.put(`/api/letters/${ids.letter}`, { version: 1, to: '', opening: '', closing: '', shows: [] }),
    ],
    ['DELETE letter', (who) => who.del(`/api/letters/${ids.letter}`)],
    [
      'POST sent',
      (who) =>
        who.post(`/api/letters/${ids.letter}/sent`, {
          version: 1,
          mark: '0'.repeat(64),
          way: 'post',
          on: today(),
        }),
    ],
    ['POST letter back', (who) => who.post(`/api/letters/${ids.letter}/back`, {})],
    ['GET written letter as a PDF', (who) => who.get(`/api/letters/${ids.letter}/letter.pdf`)],
    [
      'PATCH appointment',
      (who) => who.patch(`/api/appointments/${ids.appointment}`, { version: 1, note: 'x' }),
    ],
    ['GET questions', (who) => who.get(`/api/episodes/${ids.episode}/questions`)],
    ['POST answer', (who) => who.post(`/api/questions/${ids.question}/answer`, { answer: 'Yes' })],
    ['DELETE aside', (who) => who.del(`/api/day/asides/${ids.aside}`)],
    ['POST account link', (who) => who.post(`/api/clinic/staff/${ids.member}/link`)],
    ['PATCH member', (who) => who.patch(`/api/clinic/staff/${ids.member}`, { role: 'lead' })],
    ['DELETE sessions of a member', (who) => who.del(`/api/clinic/staff/${ids.member}/sessions`)],
    ['DELETE second step of a member', (who) => who.del(`/api/clinic/staff/${ids.member}/second-step`)],
    ['DELETE device', (who) => who.del(`/api/session/devices/${ids.device}`)],
    ['PUT routine', (who) => who.put(`/api/library/routines/${ids.routine}`, { retired: true })],
    ['GET brings', (who) => who.get(`/api/plans/${ids.plan}/brings`)],
    ['POST if', (who) => who.post(`/api/plans/${ids.plan}/if`, { schools: {} })],
    ['POST give', (who) => who.post(`/api/plans/${ids.plan}/give`, { version: 1 })],
    ['GET course', (who) => who.get(`/api/episodes/${ids.episode}/course`)],
    [
      'POST decision',
      (who) =>
        who.post(`/api/episodes/${ids.episode}/decisions`, {
          id: randomUUID(),
          decision: 'hold',
          on: { stage: null, planId: null, suggested: 'hold' },
          reason: 'because',
        }),
    ],
    [
      'POST taught',
      (who) =>
        who.post(`/api/episodes/${ids.episode}/taught`, {
          id: randomUUID(),
          exercise: 'pogo',
          side: 'both',
          reps: 3,
          faults: [],
        }),
    ],
    ['POST home link', (who) => who.post(`/api/episodes/${ids.episode}/home-link`)],
    ['DELETE home link', (who) => who.del(`/api/episodes/${ids.episode}/home-link`)],
  ];

  it.each(routes)('%s of the other clinic is 404, as if it were not there', async (_name, call) => {
    expect((await call(stranger)).status).toBe(404);
  });

  it.each(routes)('%s without a sign-in is 401', async (_name, call) => {
    expect((await call(world.anonymous)).status).toBe(401);
  });

  it('covers every route that names a record', () => {
    interface Layer {
      route?: { path: string; methods: Record<string, boolean> };
    }
    const stack = (world.app.getHttpAdapter().getInstance() as unknown as { router: { stack: Layer[] } })
      .router.stack;
    const named = stack.flatMap((l) =>
      // What programs read by their keys is held apart in exchange.test.ts.
      l.route?.path.startsWith('/api/') === true && l.route.path.includes(':id')
        ? Object.keys(l.route.methods).map((m) => `${m} ${l.route?.path ?? ''}`)
        : [],
    );
    expect(named).toHaveLength(routes.length);
  });

  it('lists and the day show only the own clinic', async () => {
    expect((await stranger.get('/api/people')).body).toEqual([]);
    const day = (await stranger.get('/api/day')).body;
    expect([day.items, day.appointments]).toEqual([[], []]);
    expect((await stranger.get('/api/appointments').expect(200)).body).toEqual([]);
    expect((await stranger.get('/api/appointments/visits.ics').expect(200)).text).not.toContain('Bram Sedge');
  });

  it('plans no visit for someone of the other clinic, and sets nothing of them aside', async () => {
    await stranger.post('/api/appointments', appointment(randomUUID(), ids.person)).expect(404);
    await stranger.post('/api/appointments', appointment(ids.appointment, ids.person)).expect(404);
    await stranger.post('/api/day/asides', aside(randomUUID(), ids.person, ids.episode)).expect(404);
  });

  it('does not let another clinic reuse an id to reach a record', async () => {
    await stranger
      .post('/api/people', { id: ids.person, name: 'Same id', birthDate: null, occupation: '' })
      .expect(404);
    const own = (await (await world.as(0, 'lead')).get(`/api/people/${ids.person}`)).body;
    expect(own.name).toBe('Bram Sedge');
  });

  describe('the application role itself', () => {
    let client: Client;
    beforeAll(async () => {
      client = new Client({ connectionString: world.appUrl });
      await client.connect();
    });
    afterAll(() => client.end());

    it('cannot bypass row-level security and owns no table', async () => {
      const { rows } = await client.query(
        'SELECT rolsuper, rolbypassrls, rolcreaterole FROM pg_roles WHERE rolname = current_user',
      );
      expect(rows).toEqual([{ rolsuper: false, rolbypassrls: false, rolcreaterole: false }]);
      const owned = await client.query('SELECT tablename FROM pg_tables WHERE tableowner = current_user');
      expect(owned.rows).toEqual([]);
    });

    it('sees nothing of any table until a clinic is set, and then that clinic only', async () => {
      const { rows } = await client.query(
        "SELECT c.relname, c.relrowsecurity FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace WHERE n.nspname = 'public' AND c.relkind = 'r' AND c.relname <> 'migration'",
      );
      expect(rows.length).toBeGreaterThan(10);
      for (const { relname, relrowsecurity } of rows) {
        expect([relname, relrowsecurity]).toEqual([relname, true]);
        expect((await client.query(`SELECT count(*)::int AS n FROM ${relname}`)).rows[0].n).toBe(0);
      }
      await client.query('BEGIN');
      await client.query('SELECT enter_clinic($1)', [world.clinics[0]]);
      expect((await client.query('SELECT count(*)::int AS n FROM person')).rows[0].n).toBe(1);
      await client.query('COMMIT');
      expect((await client.query('SELECT count(*)::int AS n FROM person')).rows[0].n).toBe(0);
    });

    /** Runs as the application in a clinic, and tells why it was refused; empty where it was not. */
    const refusal = async (clinic: 0 | 1, sql: string, parameters: readonly unknown[]): Promise<string> => {
      await client.query('BEGIN');
      await client.query('SELECT enter_clinic($1)', [world.clinics[clinic]]);
      try {
        const { rowCount } = await client.query(sql, [...parameters]);
        return rowCount === 0 ? 'no such row' : '';
      } catch (error) {
        return (error as Error).message;
      } finally {
        await client.query('ROLLBACK');
      }
    };

    it('cannot change what was given or signed, not even in its own clinic', async () => {
      await (await world.as(0, 'clinician')).post(`/api/visits/${ids.visit}/sign`).expect(200);
      const author = (await world.owner.query<{ id: string }[]>('SELECT id FROM app_user LIMIT 1'))[0]?.id;
      const inEntry =
        "INSERT INTO visit_entry (id, clinic_id, visit_id, key, version, value, author_id, at, reason) SELECT $1, $2, $3, 'story.now', 9, '3', u.id, now(), $4 FROM app_user u LIMIT 1";
      const entryInto = (reason: string | null) => [randomUUID(), world.clinics[0], ids.visit, reason];
      expect(author).toBeDefined();
      expect(await refusal(0, "UPDATE plan SET items = '[]' WHERE id = $1", [ids.plan])).toMatch(/was given/);
      expect(await refusal(0, 'DELETE FROM plan WHERE id = $1', [ids.plan])).toMatch(/was given/);
      expect(await refusal(0, 'UPDATE visit SET signed_at = NULL WHERE id = $1', [ids.visit])).toMatch(
        /signed visit does not change/,
      );
      expect(await refusal(0, inEntry, entryInto(null))).toMatch(/amended with a reason/);
      expect(await refusal(0, inEntry, entryInto('put right'))).toBe('');
    });

    it('cannot lead from one clinic into another', async () => {
      const refers = await refusal(
        1,
        `INSERT INTO stage_span (id, clinic_id, episode_id, stage, since, reason) VALUES ($1, $2, $3, 'calm', now(), 'x')`,
        [randomUUID(), world.clinics[1], ids.episode],
      );
      expect(refers).toMatch(/foreign key/);
      const all = await world.owner.query<{ name: string; columns: number }[]>(
        `SELECT c.conname AS name, cardinality(c.conkey) AS columns FROM pg_constraint c
          WHERE c.contype = 'f' AND c.connamespace = 'public'::regnamespace AND c.confrelid <> 'clinic'::regclass`,
      );
      expect(all.length).toBeGreaterThan(20);
      expect(all.filter((k) => k.columns !== 2)).toEqual([]);
    });

    it('enters one clinic in a transaction, and cannot say by hand which it is in', async () => {
      const people = async () => (await client.query('SELECT clinic_id FROM person')).rows;
      const other = world.clinics[1];
      await client.query('BEGIN');
      await client.query("SELECT set_config('heathstep.clinic', $1, true)", [other]);
      expect(await people()).toEqual([]);
      await client.query('SELECT enter_clinic($1)', [world.clinics[0]]);
      const sealed = (await client.query("SELECT current_setting('heathstep.clinic') AS is")).rows[0]
        .is as string;
      expect(await people()).toEqual([{ clinic_id: world.clinics[0] }]);
      await client.query("SELECT set_config('heathstep.clinic', $1, true)", [
        sealed.replace(world.clinics[0], other),
      ]);
      expect(await people()).toEqual([]);
      await client.query("SELECT set_config('heathstep.clinic', '', true)");
      await expect(client.query('SELECT enter_clinic($1)', [other])).rejects.toThrow(
        /entered a clinic already/,
      );
      await client.query('ROLLBACK');
      // What one transaction was given is nothing to the next.
      await client.query('BEGIN');
      await client.query("SELECT set_config('heathstep.clinic', $1, true)", [sealed]);
      expect(await people()).toEqual([]);
      await expect(client.query("SELECT held.seal($1, 'a key')", [other])).rejects.toThrow(
        /permission denied/,
      );
      await client.query('ROLLBACK');
      for (const schema of ['public', 'held', 'pg_catalog'])
        await expect(
          client.query(`CREATE FUNCTION ${schema}.length(text) RETURNS int LANGUAGE sql AS 'SELECT 101'`),
        ).rejects.toThrow(/permission denied/);
    });

    it('cannot write into another clinic', async () => {
      await client.query('BEGIN');
      await client.query('SELECT enter_clinic($1)', [world.clinics[1]]);
      await expect(
        client.query(
          "INSERT INTO person (id, clinic_id, name, occupation, version, created_at) VALUES ($1, $2, 'x', '', 1, now())",
          [randomUUID(), world.clinics[0]],
        ),
      ).rejects.toThrow(/row-level security/);
      await client.query('ROLLBACK');
    });

    it.each([
      'visit_entry',
      'home_entry',
      'decision',
      'audit',
      'closure',
      'photo',
      'photo_placement',
      'clinic_measure',
      'clinic_exercise',
      'exercise_note',
      'band_calibration',
      'taught_exercise',
    ])('cannot change or delete what happened in %s', async (table) => {
      await expect(client.query(`UPDATE ${table} SET clinic_id = clinic_id`)).rejects.toThrow(
        /permission denied/,
      );
      await expect(client.query(`DELETE FROM ${table}`)).rejects.toThrow(/permission denied/);
    });
  });

  it('keeps the entities and the migrations alike', async () => {
    const log = await world.owner.driver.createSchemaBuilder().log();
    const drift = log.upQueries
      .map((q) => q.query)
      .filter((q) => !/FOREIGN KEY|DROP CONSTRAINT "\w+_fkey"/.test(q));
    expect(drift).toEqual([]);
  });
});
