import { randomUUID } from 'node:crypto';
import { loadContent, writeExercise } from '@heathstep/content';
import {
  addEpisode,
  addPerson,
  type Caller,
  drawnPicture,
  entry,
  inWorld,
  openAtHome,
  openVisit,
  takePhoto,
  today,
  treated,
} from './harness.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error('content');
const { content } = loaded;

const TEN = Array.from({ length: 10 }, (_, i) => i);

/** How many of some answers had each status. */
const counted = (answers: readonly { readonly status: number }[]): Record<number, number> =>
  answers.reduce<Record<number, number>>(
    (sum, { status }) => ({ ...sum, [status]: (sum[status] ?? 0) + 1 }),
    {},
  );

describe('asked by many at the same moment', () => {
  const { world, who } = inWorld();

  const atHome = (episodeId: string) => openAtHome(world, who, episodeId);

  it('a day has one morning', async () => {
    const { episodeId } = await treated(who);
    const home = await atHome(episodeId);
    const answers = await Promise.all(
      TEN.map((i) =>
        home.put('/api/home/entries', {
          id: randomUUID(),
          version: 1,
          kind: 'morning',
          day: today(),
          payload: { scores: { 'first-steps': i } },
        }),
      ),
    );
    expect(counted(answers)).toEqual({ 200: 1, 409: 9 });
    const rows = await world.owner.query<unknown[]>(
      "SELECT 1 FROM home_entry WHERE episode_id = $1 AND kind = 'morning'",
      [episodeId],
    );
    expect(rows).toHaveLength(1);
  });

  it('a stop is closed once', async () => {
    const { episodeId } = await treated(who);
    const home = await atHome(episodeId);
    const stop = randomUUID();
    await home
      .put('/api/home/entries', {
        id: stop,
        version: 1,
        kind: 'stop',
        day: today(),
        payload: { grade: 'review', sign: 'New swelling', exercise: null },
      })
      .expect(200);
    const close = () =>
      who.post(`/api/episodes/${episodeId}/closures`, {
        id: randomUUID(),
        subject: `stop:${stop}`,
        side: 'none',
        kind: 'closed',
        assessedOn: today(),
        assessedBy: 'A colleague',
        done: 'dealt-with',
        text: 'Looked at, calm again',
      });
    const answers = await Promise.all(TEN.map(close));
    expect(counted(answers)).toEqual({ 201: 1, 422: 9 });
    const rows = await world.owner.query<unknown[]>('SELECT 1 FROM closure WHERE subject = $1', [
      `stop:${stop}`,
    ]);
    expect(rows).toHaveLength(1);
  });

  it('a measure, an exercise and a routine of the clinic have one owner of a name', async () => {
    const measure = () =>
      who.post('/api/measures', {
        id: randomUUID(),
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
        source: 'Our own',
        step: 'load',
        method: 'Seated',
      });
    expect(counted(await Promise.all(TEN.map(measure)))).toEqual({ 201: 1, 400: 9 });
    const [exercise, figure] = [
      content.exercises.find((e) => e.key === 'toe-taps'),
      content.figures.find((f) => f.exercise === 'toe-taps'),
    ];
    if (exercise === undefined) throw new Error('no exercise');
    const written = { ...(JSON.parse(JSON.stringify(writeExercise(exercise))) as object), name: 'Drum taps' };
    const own = () =>
      who.post('/api/library/exercises', {
        id: randomUUID(),
        version: 0,
        retired: false,
        file: { format: 'heathstep exercise', version: 1, exercise: written, figure },
      });
    expect(counted(await Promise.all(TEN.slice(0, 5).map(own)))).toEqual({ 201: 1, 400: 4 });
    const { plan } = await treated(who);
    const routine = () =>
      who.post('/api/library/routines', { id: randomUUID(), name: 'Race night', items: plan.items });
    expect(counted(await Promise.all(TEN.slice(0, 5).map(routine)))).toEqual({ 201: 1, 400: 4 });
  });

  it('a visit is opened once, and a plan has one draft', async () => {
    const { episodeId } = await treated(who);
    await who.post(`/api/visits/${(await openVisit(who, episodeId)).id}/presence`, {
      step: 'look',
      since: 0,
    });
    const visits = await Promise.all(TEN.map(() => openVisit(who, episodeId)));
    expect(new Set(visits.map((v) => v.id)).size).toBe(1);
    const drafts = await Promise.all(
      TEN.slice(0, 4).map(() =>
        who.post(`/api/episodes/${episodeId}/plans`, { id: randomUUID(), from: 'current' }),
      ),
    );
    expect(counted(drafts)).toEqual({ 201: 4 });
    const rows = await world.owner.query<unknown[]>(
      "SELECT 1 FROM plan WHERE episode_id = $1 AND status = 'draft'",
      [episodeId],
    );
    expect(rows).toHaveLength(1);
  });
});

describe('an id that has something already', () => {
  const { world, who } = inWorld();
  let visit: { id: string };
  let other: { id: string };
  let episodeId: string;
  beforeEach(async () => {
    const episode = await addEpisode(who, (await addPerson(who)).id);
    episodeId = episode.id;
    visit = await openVisit(who, episode.id);
    other = await openVisit(who, (await addEpisode(who, (await addPerson(who, 'Someone else')).id)).id);
  });
  const put = (at: string, entries: object[]) => who.put(`/api/visits/${at}/entries`, { entries });

  it('is a repeat with the same content in the same place, and a 409 with any other', async () => {
    const first = entry('story.worst', 4) as { id: string };
    await put(visit.id, [first]).expect(200);
    await put(visit.id, [first]).expect(200);
    const told = (await put(visit.id, [{ ...first, value: 9 }]).expect(409)).body;
    expect(told.errors).toEqual([{ pointer: '/entries/0/id', detail: 'stands for another entry' }]);
    await put(other.id, [first]).expect(409);
    await put(visit.id, [{ ...first, key: 'story.now' }]).expect(409);
    const { entries } = (await who.get(`/api/visits/${visit.id}`).expect(200)).body;
    expect(entries.map((e: { key: string; value: unknown }) => [e.key, e.value])).toEqual([
      ['story.worst', 4],
    ]);
    expect((await who.get(`/api/visits/${other.id}`)).body.entries).toEqual([]);
  });

  it('is refused by its place where it is twice in what is sent', async () => {
    const one = entry('story.worst', 4) as { id: string };
    const told = (await put(visit.id, [one, { ...one, key: 'story.now' }]).expect(400)).body;
    expect(told.errors).toEqual([{ pointer: '/entries/1/id', detail: 'is there twice' }]);
    const twice = (await put(visit.id, [entry('story.worst', 4), entry('story.worst', 5)]).expect(400)).body;
    expect(twice.errors).toEqual([{ pointer: '/entries/1/key', detail: 'is there twice' }]);
  });

  it('of a person, a complaint, a picture, a closure, what was taught', async () => {
    const person = { id: randomUUID(), name: 'Ada', birthDate: null, occupation: '' };
    await who.post('/api/people', person).expect(201);
    await who.post('/api/people', person).expect(201);
    await who.post('/api/people', { ...person, name: 'Bo' }).expect(409);
    const complaint = { id: randomUUID(), condition: 'plantar-heel-pain', affected: 'left' };
    await who.post(`/api/people/${person.id}/episodes`, complaint).expect(201);
    await who.post(`/api/people/${person.id}/episodes`, complaint).expect(201);
    await who.post(`/api/people/${person.id}/episodes`, { ...complaint, affected: 'right' }).expect(409);
    const photo = await takePhoto(world, episodeId);
    const elsewhere = (await who.get(`/api/visits/${other.id}`)).body.id as string;
    const sent = await who
      .put(`/api/visits/${elsewhere}/photos/${photo}?measure=hallux-angle&side=left`)
      .type('application/octet-stream')
      .send(await drawnPicture());
    expect(sent.status).toBe(409);
    expect(JSON.stringify(sent.body)).not.toContain(visit.id);
    const taught = { id: randomUUID(), exercise: 'pogo', side: 'both', reps: 3, faults: [] };
    await who.post(`/api/episodes/${episodeId}/taught`, taught).expect(201);
    await who.post(`/api/episodes/${episodeId}/taught`, taught).expect(201);
    await who.post(`/api/episodes/${episodeId}/taught`, { ...taught, reps: 9 }).expect(409);
  });

  it('at home: a correction that stands is not another one', async () => {
    const { episodeId: treatedId } = await treated(who);
    const home = await openAtHome(world, who, treatedId);
    const morning = (n: number, version: number, id: string) =>
      home.put('/api/home/entries', {
        id,
        version,
        kind: 'morning',
        day: today(),
        payload: { scores: { 'first-steps': n } },
      });
    const id = randomUUID();
    await morning(3, 1, id).expect(200);
    await morning(3, 1, id).expect(200);
    await morning(5, 1, id).expect(409);
    await morning(4, 2, id).expect(200);
    await morning(6, 2, id).expect(409);
    const kept = await world.owner.query<{ payload: { scores: { 'first-steps': number } } }[]>(
      'SELECT payload FROM home_entry WHERE id = $1 ORDER BY version',
      [id],
    );
    expect(kept.map((k) => k.payload.scores['first-steps'])).toEqual([3, 4]);
  });
});

describe('who looked', () => {
  const { world, who } = inWorld();
  const rows = (where: string) =>
    world.owner.query<{ action: string; subject: string; shown: string[] | null }[]>(
      `SELECT action, subject, shown FROM audit WHERE ${where} ORDER BY at`,
    );

  it('lists and the day name whom they showed; an open page that asks again is one look', async () => {
    const person = await addPerson(who);
    for (let i = 0; i < 3; i += 1) {
      await who.get('/api/people').expect(200);
      await who.get('/api/day').expect(200);
    }
    const lists = await rows("subject IN ('people', 'day')");
    expect(lists.map((l) => [l.subject, l.shown])).toEqual([
      ['people', [person.id]],
      ['day', [person.id]],
    ]);
    const second = await addPerson(who, 'Another');
    await who.get('/api/day').expect(200);
    expect((await rows("subject = 'day'")).at(-1)?.shown).toContain(second.id);
  });

  it('a repeat, an opened visit and what another page is shown write a row too', async () => {
    const colleague: Caller = await world.as(0, 'lead');
    const episode = await addEpisode(who, (await addPerson(who)).id);
    const visit = await openVisit(who, episode.id);
    await openVisit(who, episode.id);
    const one = entry('story.worst', 4);
    await who.put(`/api/visits/${visit.id}/entries`, { entries: [one] }).expect(200);
    await who.put(`/api/visits/${visit.id}/entries`, { entries: [one] }).expect(200);
    await colleague.post(`/api/visits/${visit.id}/presence`, { step: 'look', since: 0 }).expect(200);
    const seen = await rows(`subject = 'visit' AND person_id = '${episode.person.id}'`);
    expect(seen.map((s) => s.action)).toEqual(['create', 'read', 'change', 'read', 'read']);
  });
});
