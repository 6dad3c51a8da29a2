import { randomUUID } from 'node:crypto';
import type { CourseView, HomeView } from '@heathstep/contracts';
import { EpisodeReader } from '../src/episodes/reader.js';
import { Db } from '../src/persistence/db.js';
import {
  addEpisode,
  addPerson,
  decidedOn,
  entry,
  inWorld,
  measured,
  openAtHome,
  openVisit,
  safetyEntries,
  today,
  treated,
} from './harness.js';

describe('a record that is shown again', () => {
  const { world, who } = inWorld();
  let episodeId = '';
  let visitId = '';
  let personId = '';

  /** What is shown, and what stands in the tables, of one moment. */
  const both = () =>
    world.app.get(Db).inClinic(world.clinics[0], async (tx) => {
      const reader = world.app.get(EpisodeReader);
      const [shown, read] = [await reader.shown(tx, episodeId), await reader.read(tx, episodeId)];
      const told = ({
        view,
        home,
        plans,
        harmless,
        row,
        clinic,
        protocol,
        measures,
        reasoning,
      }: typeof read) =>
        JSON.parse(
          JSON.stringify({
            view,
            home,
            plans,
            harmless: [...harmless],
            row,
            clinic,
            protocol,
            measures,
            reasoning,
          }),
        ) as unknown;
      return { shown: told(shown), read: told(read) };
    });

  beforeAll(async () => {
    const made = await treated(who);
    ({ episodeId, visitId } = made);
    personId = made.person.id;
  });

  it('is the very same as long as nothing changes, and told in the audit each time', async () => {
    const reader = world.app.get(EpisodeReader);
    const shown = () => world.app.get(Db).inClinic(world.clinics[0], (tx) => reader.shown(tx, episodeId));
    expect(await shown()).toBe(await shown());
    const reads = async () =>
      (
        await world.owner.query<{ n: number }[]>(
          "SELECT count(*)::int AS n FROM audit WHERE action = 'read' AND subject = 'course' AND person_id = $1",
          [personId],
        )
      )[0]?.n ?? 0;
    const before = await reads();
    const first = await who.get(`/api/episodes/${episodeId}/course`).expect(200);
    const second = await who.get(`/api/episodes/${episodeId}/course`).expect(200);
    expect(second.body).toEqual(first.body);
    expect(await reads()).toBe(before + 2);
  });

  const post = (path: string, body: object) => who.post(path, body).expect(201);

  it.each<[string, () => Promise<unknown>]>([
    ['a value taken', () => who.put(`/api/visits/${visitId}/entries`, { entries: [entry('story.now', 3)] })],
    [
      'a measure taken',
      () => who.put(`/api/visits/${visitId}/entries`, { entries: measured('lunge-knee-bent', [30], [38]) }),
    ],
    ['a visit signed', () => who.post(`/api/visits/${visitId}/sign`)],
    ['a link for home', () => post(`/api/episodes/${episodeId}/home-link`, {})],
    [
      'an exercise taught',
      () =>
        post(`/api/episodes/${episodeId}/taught`, {
          id: randomUUID(),
          exercise: 'sole-stretch',
          side: 'left',
          reps: 3,
          faults: [],
        }),
    ],
    ['another complaint of the person', () => addEpisode(who, personId, 'right')],
    ['a name corrected', () => who.patch(`/api/people/${personId}`, { version: 1, name: 'Other Name' })],
    ['a draft begun', () => post(`/api/episodes/${episodeId}/plans`, { id: randomUUID(), from: 'current' })],
    ['a new visit', () => post(`/api/episodes/${episodeId}/visits`, { id: randomUUID() })],
  ])('is read anew after %s', async (_, change) => {
    const before = await both();
    expect(before.shown).toEqual(before.read);
    await change();
    const after = await both();
    expect(after.read).not.toEqual(before.read);
    expect(after.shown).toEqual(after.read);
  });

  it.each([
    ['clinic', "UPDATE clinic SET phone = '01632 960 111'"],
    ['app_user', "UPDATE app_user SET name = name || ' B'"],
    ['episode', 'UPDATE episode SET minutes_per_day = 7'],
    ['visit', "UPDATE visit SET started_at = started_at - interval '1 day'"],
    ['plan', "UPDATE plan SET given_at = given_at - interval '1 day'"],
    ['person', "UPDATE person SET birth_date = '1950-01-01'"],
    [
      'home_entry',
      `INSERT INTO home_entry (id, version, clinic_id, episode_id, kind, day, payload, at)
         SELECT gen_random_uuid(), 1, clinic_id, id, 'session', '${today()}', '{"scores": {}, "exercises": []}', now() FROM episode`,
    ],
  ])('is read anew after a change of the table %s, whatever made it', async (_, sql) => {
    const before = await both();
    await world.owner.query(sql);
    const after = await both();
    expect(after.read).not.toEqual(before.read);
    expect(after.shown).toEqual(after.read);
  });

  it('hangs on the mark of its person, which every table that says something of a person changes', async () => {
    // Who looks, pictures and their places, phones that are signed in, visits that are planned, what is set aside, what was asked, letters, what was merged, what came from elsewhere
    // and who was erased are read anew each time.
    const apart = [
      'appointment',
      'audit',
      'course_event',
      'erasure',
      'home_question',
      'home_session',
      'kept_resource',
      'lab_capture',
      'letter',
      'person_mark',
      'person_merge',
      'photo',
      'set_aside',
      'visit_presence',
    ];
    const of = await world.owner.query<{ name: string; marked: string }[]>(
      `SELECT c.table_name AS name,
              coalesce((SELECT string_agg(DISTINCT t.event_manipulation, ' ' ORDER BY t.event_manipulation)
                 FROM information_schema.triggers t
                WHERE t.event_object_table = c.table_name AND t.trigger_name LIKE 'mark_%'), '') AS marked
         FROM information_schema.columns c
        WHERE c.table_schema = 'public'
          AND (c.column_name IN ('person_id', 'episode_id', 'visit_id') OR (c.table_name, c.column_name) = ('person', 'id'))
        GROUP BY c.table_name ORDER BY c.table_name`,
    );
    expect(of.filter((t) => t.marked === '').map((t) => t.name)).toEqual(apart);
    expect([...new Set(of.filter((t) => t.marked !== '').map((t) => t.marked))]).toEqual([
      'DELETE INSERT UPDATE',
    ]);
  });

  it('leaves the marks of others alone, and moves both when a complaint comes to another person', async () => {
    const [one, two] = [await treated(who), await treated(who)];
    const marks = async () =>
      Object.fromEntries(
        (
          await world.owner.query<{ id: string; mark: string }[]>(
            'SELECT person_id AS id, mark FROM person_mark',
          )
        ).map((m) => [m.id, m.mark]),
      );
    const changed = async (change: () => Promise<unknown>) => {
      const before = await marks();
      await change();
      const after = await marks();
      return Object.keys(after).filter((id) => after[id] !== before[id]);
    };
    const entries = [entry('story.now', 4)];
    expect(await changed(() => who.get(`/api/episodes/${one.episodeId}/course`).expect(200))).toEqual([]);
    const visit = await openVisit(who, one.episodeId);
    expect(await changed(() => who.put(`/api/visits/${visit.id}/entries`, { entries }).expect(200))).toEqual([
      one.person.id,
    ]);
    const moved = await changed(() =>
      world.owner.query('UPDATE stage_span SET stage = stage WHERE episode_id = ANY($1)', [
        [one.episodeId, two.episodeId],
      ]),
    );
    expect(moved.toSorted()).toEqual([one.person.id, two.person.id].toSorted());
    const { id: spareId } = await addPerson(who, 'Spare Person');
    const given = await changed(() =>
      world.owner.query('UPDATE episode SET person_id = $2 WHERE id = $1', [two.episodeId, spareId]),
    );
    expect(given.toSorted()).toEqual([two.person.id, spareId].toSorted());
  });

  it('is stopped at once by a sign from home and free once it is closed, on the phone and in the clinic', async () => {
    const mine = await treated(who);
    const phone = await openAtHome(world, who, mine.episodeId);
    const stopped = async () => {
      const home = (await phone.get('/api/home/today').expect(200)).body as HomeView;
      const course = (await who.get(`/api/episodes/${mine.episodeId}/course`).expect(200)).body as CourseView;
      return [home.stopped !== null, course.episode.openStops.length, course.review?.decision];
    };
    const before = await stopped();
    expect(before.slice(0, 2)).toEqual([false, 0]);
    const id = randomUUID();
    const payload = { grade: 'emergency', sign: 'Chest pain', exercise: null };
    await phone.put('/api/home/entries', { id, version: 1, kind: 'stop', day: today(), payload }).expect(200);
    expect(await stopped()).toEqual([true, 1, 'refer']);
    await post(`/api/episodes/${mine.episodeId}/closures`, {
      id: randomUUID(),
      subject: `stop:${id}`,
      side: 'none',
      kind: 'closed',
      assessedOn: today(),
      assessedBy: 'A colleague',
      done: 'harmless',
      text: 'Nothing found',
    });
    expect(await stopped()).toEqual(before);
  });

  it('is stopped at once by what another complaint of the person says, on either side', async () => {
    const mine = await treated(who);
    const phone = await openAtHome(world, who, mine.episodeId);
    const stopped = async () =>
      ((await phone.get('/api/home/today').expect(200)).body as HomeView).stopped !== null;
    const other = await addEpisode(who, mine.person.id, 'both');
    const visit = await openVisit(who, other.id);
    expect(await stopped()).toBe(false);
    await who
      .put(`/api/visits/${visit.id}/entries`, { entries: safetyEntries({ 'calf-squeeze-still': 'both' }) })
      .expect(200);
    expect(await stopped()).toBe(true);
    await who
      .put(`/api/visits/${visit.id}/entries`, { entries: [entry('safety.calf-squeeze-still', 'no', 1)] })
      .expect(200);
    expect(await stopped()).toBe(false);
  });

  it('follows a decision and the plan drafted by it', async () => {
    const mine = await treated(who);
    const course = async () =>
      (await who.get(`/api/episodes/${mine.episodeId}/course`).expect(200)).body as CourseView;
    expect((await course()).decisions).toEqual([]);
    const on = await decidedOn(who, mine.episodeId);
    await post(`/api/episodes/${mine.episodeId}/decisions`, {
      id: randomUUID(),
      decision: 'ease-back',
      reason: 'Too much at work this week',
      on,
    });
    const after = await course();
    expect(after.decisions.map((d) => d.decision)).toEqual(['ease-back']);
    expect(after.episode.draft).not.toBeNull();
  });

  it('is shown to its own clinic only', async () => {
    await who.get(`/api/episodes/${episodeId}`).expect(200);
    await (await world.as(1, 'lead')).get(`/api/episodes/${episodeId}`).expect(404);
    await (await world.as(1, 'lead')).get(`/api/episodes/${episodeId}/course`).expect(404);
  });
});
