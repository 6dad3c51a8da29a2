import { randomUUID } from 'node:crypto';
import { Client } from 'pg';
import { type Ids, routesOf } from './foreignRoutes.js';
import { addDays } from '@heathstep/core';
import { type Caller, keepCapture, makeWorld, takePhoto, today, treated, type World } from './harness.js';

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
  let ids: Ids;

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
      passkey: randomUUID(),
      measured: randomUUID(),
      letter: randomUUID(),
      outing: randomUUID(),
      merge: randomUUID(),
      erasure: randomUUID(),
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
    await world.owner.query(
      "INSERT INTO measurement_import (id, clinic_id, file, lines, author_id, at) VALUES ($1, $2, 'a.csv', 1, $3, now())",
      [ids.measured, world.clinics[0], ids.member],
    );
    await world.owner.query(
      `INSERT INTO passkey (id, clinic_id, user_id, credential, public_key, counter, transports, name, created_at)
       VALUES ($1, $2, $3, 'c', 'k', 0, '[]', 'phone', now())`,
      [ids.passkey, world.clinics[0], ids.member],
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
      `INSERT INTO person_merge (id, clinic_id, person_id, gone_id, gone, kept, moved, author_id, at)
       VALUES ($1, $2, $3, gen_random_uuid(), '{}', '{}', '{}', $4, now())`,
      [ids.merge, world.clinics[0], ids.person, ids.member],
    );
    await world.owner.query(
      `INSERT INTO erasure (id, clinic_id, person_id, reason, rows, author_id, at)
       VALUES ($1, $2, gen_random_uuid(), 'asked for', 3, $3, now())`,
      [ids.erasure, world.clinics[0], ids.member],
    );
    await world.owner.query(
      `INSERT INTO outing (id, clinic_id, person_id, day, started_at, seconds, metres, run_seconds, file, author_id, at)
       VALUES ($1, $2, $3, '2026-01-05', '2026-01-05T08:00Z', 60, 100, 0, 'a.gpx', $4, now())`,
      [ids.outing, world.clinics[0], ids.person, ids.member],
    );
    await own.post(`/api/episodes/${ids.episode}/letters`, { id: ids.letter, kind: 'referral' }).expect(201);
    stranger = await world.as(1, 'lead');
  });
  afterAll(() => world.stop());

  const routes = routesOf(() => ids);

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
