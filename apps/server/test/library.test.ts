import { randomUUID } from 'node:crypto';
import { loadContent, writeExercise } from '@heathstep/content';
import { addEpisode, addPerson, type Caller, makeWorld, treated, type World } from './harness.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error('content');
const { content } = loaded;

/** An exercise as it is written and drawn, with another name. */
function fileOf(key: string, name: string, changes: object = {}): object {
  const exercise = content.exercises.find((e) => e.key === key);
  const figure = content.figures.find((f) => f.exercise === key);
  if (exercise === undefined || figure === undefined) throw new Error(key);
  const written = JSON.parse(JSON.stringify(writeExercise(exercise))) as object;
  return { format: 'heathstep exercise', version: 1, exercise: { ...written, name, ...changes }, figure };
}

describe('the library of a clinic', () => {
  let world: World;
  let lead: Caller;
  let clinician: Caller;
  let assistant: Caller;
  let stranger: Caller;
  beforeAll(async () => {
    world = await makeWorld();
    lead = await world.as(0, 'lead');
    clinician = await world.as(0, 'clinician');
    assistant = await world.as(0, 'assistant');
    stranger = await world.as(1, 'lead');
  });
  afterAll(() => world.stop());

  const add = (name: string, who = clinician, id = randomUUID()) =>
    who.post('/api/library/exercises', { id, version: 0, retired: false, file: fileOf('toe-taps', name) });
  const keyOf = (id: string) => `own-${id.slice(0, 8)}`;

  describe('the content', () => {
    const tagOf = async (caller: Caller) =>
      String((await caller.get('/api/content').expect(200)).headers['etag']);
    const asked = (caller: Caller, tag: string) => caller.get('/api/content').set('if-none-match', tag);

    it('is made once: who has it is told so, until something of it changes', async () => {
      const tag = await tagOf(clinician);
      expect(tag).toMatch(/^"[\w-]{43}"$/);
      const same = await asked(clinician, tag).expect(304);
      expect(same.text).toBe('');
      await clinician.put('/api/library/favourites/pogo', { on: true }).expect(204);
      const changed = await asked(clinician, tag).expect(200);
      expect(changed.body.favourites).toContain('pogo');
      await clinician.put('/api/library/favourites/pogo', { on: false }).expect(204);
    });

    it('is another for each who asks: what one marked is not told to the next', async () => {
      await clinician.put('/api/library/favourites/toe-taps', { on: true }).expect(204);
      const tag = await tagOf(clinician);
      expect(await tagOf(lead)).not.toBe(tag);
      await asked(lead, tag).expect(200);
      expect((await lead.get('/api/content')).body.favourites).not.toContain('toe-taps');
      expect(await tagOf(stranger)).not.toBe(await tagOf(lead));
      await clinician.put('/api/library/favourites/toe-taps', { on: false }).expect(204);
    });
  });

  describe('routines of its own', () => {
    const plan = async () => (await treated(clinician)).plan;
    const keep = (body: object, who = clinician) =>
      who.post('/api/library/routines', { id: randomUUID(), name: 'Bath evening', ...body });

    it('are kept from a plan in one go, stand beside the shipped ones for this clinic only, and are put aside', async () => {
      const { items } = await plan();
      const id = randomUUID();
      await keep({ id, items, name: '  Bath evening ' }).expect(201);
      await keep({ id, items }).expect(201);
      await keep({ id, items, name: 'Another' }).expect(409);
      const { body } = await clinician.get('/api/content').expect(200);
      const own = body.routines.find((r: { key: string }) => r.key === keyOf(id));
      expect(own).toMatchObject({ name: 'Bath evening' });
      expect(own.items.map((i: { exercise: string }) => i.exercise)).toEqual(items.map((i) => i.exercise));
      expect(body.ownRoutines).toContainEqual(expect.objectContaining({ id, by: 'clinician 0' }));
      const other = (await stranger.get('/api/content').expect(200)).body;
      expect(other.routines).toHaveLength(content.routines.length);
      await clinician.put(`/api/library/routines/${id}`, { retired: true }).expect(204);
      const after = (await clinician.get('/api/content').expect(200)).body;
      expect(after.routines).toHaveLength(content.routines.length);
    });

    it('are refused by their field', async () => {
      const { items } = await plan();
      const pointer = async (body: object) => (await keep(body).expect(400)).body.errors[0].pointer as string;
      expect(await pointer({ items, name: '' })).toBe('/name');
      expect(await pointer({ items, name: 'ANKLE series in rounds' })).toBe('/name');
      expect(await pointer({ items: [] })).toBe('/items');
      expect(await pointer({ items: [{ ...items[0], sets: 99 }] })).toBe('/items/0/sets');
      await keep({ items }, assistant).expect(403);
      await clinician.put(`/api/library/routines/${randomUUID()}`, { retired: true }).expect(404);
    });
  });

  describe('exercises of its own', () => {
    it('stand with their figures beside the shipped ones, for this clinic only', async () => {
      const id = randomUUID();
      await add('Toe taps on a drum', clinician, id).expect(201);
      const { body } = await clinician.get('/api/content').expect(200);
      const own = body.exercises.find((e: { key: string }) => e.key === keyOf(id));
      expect(own).toMatchObject({ name: 'Toe taps on a drum', ladder: 'own', evidence: { version: 1 } });
      expect(body.figures.some((f: { exercise: string }) => f.exercise === keyOf(id))).toBe(true);
      expect(body.ladders.at(-1)).toMatchObject({ key: 'own', set: true });
      expect(body.ownExercises).toContainEqual(
        expect.objectContaining({ key: keyOf(id), version: 1, retired: false, by: 'clinician 0' }),
      );
      const other = (await stranger.get('/api/content').expect(200)).body;
      expect(other.exercises).toHaveLength(content.exercises.length);
      expect(other.ownExercises).toEqual([]);
    });

    it('keep every version; the same sent twice is one', async () => {
      const id = randomUUID();
      const form = { id, version: 0, retired: false, file: fileOf('pogo', 'Springs on a mat') };
      await clinician.post('/api/library/exercises', form).expect(201);
      await clinician.post('/api/library/exercises', form).expect(201);
      const second = { ...form, version: 1, file: fileOf('pogo', 'Springs on a soft mat') };
      await clinician.post('/api/library/exercises', second).expect(201);
      await clinician.post('/api/library/exercises', { ...form, version: 1, retired: true }).expect(409);
      const versions = (await clinician.get(`/api/library/exercises/${keyOf(id)}/versions`)).body;
      expect(versions.map((v: { name: string }) => v.name)).toEqual([
        'Springs on a soft mat',
        'Springs on a mat',
      ]);
      const first = (await clinician.get(`/api/library/exercises/${keyOf(id)}/versions/1`).expect(200)).body;
      expect(first.exercise.name).toBe('Springs on a mat');
      await clinician.get(`/api/library/exercises/${keyOf(id)}/versions/9`).expect(404);
      await clinician.get(`/api/library/exercises/${keyOf(id)}/versions/x`).expect(404);
    });

    it('are put aside and stay in the plans that have them', async () => {
      const id = randomUUID();
      const form = { id, version: 0, retired: false, file: fileOf('toe-curls', 'Toe curls on felt') };
      await clinician.post('/api/library/exercises', form).expect(201);
      const { plan } = await treated(clinician);
      const copy = (
        await clinician
          .post(`/api/episodes/${plan.episodeId}/plans`, { id: randomUUID(), from: 'current' })
          .expect(201)
      ).body;
      const exercise = (await clinician.get('/api/content')).body.exercises.find(
        (e: { key: string }) => e.key === keyOf(id),
      );
      const item = { ...exercise.dose, exercise: keyOf(id), slot: '', sides: 'left' };
      await clinician
        .put(`/api/plans/${copy.id}`, { version: copy.version, items: [...copy.items, item] })
        .expect(200);
      await clinician.post('/api/library/exercises', { ...form, version: 1, retired: true }).expect(201);
      const course = (await clinician.get(`/api/episodes/${plan.episodeId}/course`).expect(200)).body;
      expect(course.episode.draft.items.at(-1).exercise).toBe(keyOf(id));
      const given = await clinician.post(`/api/plans/${copy.id}/give`, { version: Number(copy.version) + 1 });
      expect(given.status).toBe(200);
    });

    it.each([
      ['a name that is taken', fileOf('pogo', 'Toe taps'), '/file/exercise/name'],
      ['no name', fileOf('pogo', ''), '/file/exercise/name'],
      ['a tag that is none', fileOf('pogo', 'New', { tags: ['fun'] }), '/file/exercise/tags/0'],
      ['a file of something else', { hello: 1 }, '/file'],
    ])('refuse %s by its field', async (_what, file, pointer) => {
      const { body } = await clinician
        .post('/api/library/exercises', { id: randomUUID(), version: 0, retired: false, file })
        .expect(400);
      expect(body.errors.map((e: { pointer: string }) => e.pointer)).toContain(pointer);
    });

    it('are added by clinicians and leads', async () => {
      await add('By an assistant', assistant).expect(403);
      await add('By no one', world.anonymous).expect(401);
    });

    it('are given as a file that another clinic can take', async () => {
      const id = randomUUID();
      await add('Taps to a song', clinician, id).expect(201);
      const file = (await clinician.get(`/api/library/exercises/${keyOf(id)}/file`).expect(200)).body;
      expect(file.exercise.name).toBe('Taps to a song');
      await stranger.get(`/api/library/exercises/${keyOf(id)}/file`).expect(404);
      await stranger
        .post('/api/library/exercises', { id: randomUUID(), version: 0, retired: false, file })
        .expect(201);
      await clinician.get('/api/library/exercises/pogo/file').expect(200);
    });
  });

  it('keeps favourites for one person', async () => {
    await clinician.put('/api/library/favourites/pogo', { on: true }).expect(204);
    await clinician.put('/api/library/favourites/pogo', { on: true }).expect(204);
    await clinician.put('/api/library/favourites/march', { on: true }).expect(204);
    await clinician.put('/api/library/favourites/march', { on: false }).expect(204);
    expect((await clinician.get('/api/content')).body.favourites).toEqual(['pogo']);
    expect((await lead.get('/api/content')).body.favourites).toEqual([]);
    await clinician.put('/api/library/favourites/nothing', { on: true }).expect(404);
    await clinician.put('/api/library/favourites/pogo', { on: 'yes' }).expect(400);
  });

  it('keeps a note of the clinic; two people writing at once lose nothing', async () => {
    await clinician.put('/api/library/notes/pogo', { version: 0, text: 'Only on the mat' }).expect(204);
    const late = await lead.put('/api/library/notes/pogo', { version: 0, text: 'In shoes' }).expect(409);
    expect(late.body.current).toBe('Only on the mat');
    await lead.put('/api/library/notes/pogo', { version: 1, text: 'On the mat, in shoes' }).expect(204);
    expect((await clinician.get('/api/content')).body.notes.pogo).toMatchObject({
      text: 'On the mat, in shoes',
      version: 2,
      by: 'lead 0',
    });
    expect((await stranger.get('/api/content')).body.notes).toEqual({});
    await lead.put('/api/library/notes/pogo', { version: 2, text: 'x'.repeat(1001) }).expect(400);
  });

  it('is accepted item by item by the lead, one version at a time', async () => {
    await clinician.post('/api/library/reviews', { item: 'exercise:pogo', version: 1 }).expect(403);
    await lead.post('/api/library/reviews', { item: 'exercise:pogo', version: 1 }).expect(204);
    await lead.post('/api/library/reviews', { item: 'exercise:pogo', version: 1 }).expect(204);
    expect((await clinician.get('/api/content')).body.reviews['exercise:pogo']).toMatchObject({
      reviewer: 'lead 0',
      version: 1,
    });
    await lead.post('/api/library/reviews', { item: 'exercise:pogo', version: 2 }).expect(422);
    await lead.post('/api/library/reviews', { item: 'exercise:none', version: 1 }).expect(404);
  });

  describe('bands', () => {
    const points = (...newtons: number[]) =>
      newtons.map((n, i) => ({ stretchPercent: 50 * (i + 1), newtons: n }));

    it('have a pull by stretch; the newest measuring counts', async () => {
      const post = (given: object[]) =>
        clinician.post('/api/library/bands', { id: randomUUID(), band: 'light', points: given });
      await post(points(12, 18)).expect(204);
      await post(points(13, 19, 24, 30)).expect(204);
      const { bands } = (await clinician.get('/api/content')).body;
      expect(bands).toEqual([
        expect.objectContaining({ band: 'light', points: points(13, 19, 24, 30), by: 'clinician 0' }),
      ]);
      expect((await stranger.get('/api/content')).body.bands).toEqual([]);
    });

    it.each([
      ['a pull that falls', points(20, 18), '/points/100'],
      ['one stretch', points(20), '/points'],
      ['no number', [{ stretchPercent: 50, newtons: 'much' }, ...points(1, 2)], '/points/0/newtons'],
    ])('refuse %s', async (_what, given, pointer) => {
      const { body } = await clinician
        .post('/api/library/bands', { id: randomUUID(), band: 'firm', points: given })
        .expect(400);
      expect(body.errors.map((e: { pointer: string }) => e.pointer)).toContain(pointer);
    });
  });

  describe('teaching', () => {
    it('writes the faults seen into the record, and sends their fixes home', async () => {
      const { episodeId, plan } = await treated(clinician);
      const key = plan.items[0]?.exercise ?? '';
      const fault = content.exercises.find((e) => e.key === key)?.faults[0]?.fault ?? '';
      const body = { id: randomUUID(), exercise: key, side: 'left', reps: 8, faults: [fault] };
      await clinician.post(`/api/episodes/${episodeId}/taught`, body).expect(201);
      const again = await clinician.post(`/api/episodes/${episodeId}/taught`, body).expect(201);
      expect(again.body.taught).toEqual([
        expect.objectContaining({ exercise: key, side: 'left', reps: 8, faults: [fault], by: 'clinician 0' }),
      ]);
    });

    it.each([
      ['an exercise that is none', { exercise: 'nothing' }, '/exercise'],
      ['a fault of another exercise', { faults: ['sickling'] }, '/faults/0'],
      ['half a repetition', { reps: 1.5 }, '/reps'],
    ])('refuses %s', async (_what, wrong, pointer) => {
      const episode = await addEpisode(clinician, (await addPerson(clinician)).id);
      const body = { id: randomUUID(), exercise: 'pogo', side: 'both', reps: 5, faults: [], ...wrong };
      const refused = await clinician.post(`/api/episodes/${episode.id}/taught`, body).expect(400);
      expect(refused.body.errors.map((e: { pointer: string }) => e.pointer)).toContain(pointer);
    });
  });

  it('keeps the weights a person has at home, and refuses what is none', async () => {
    const episode = await addEpisode(clinician, (await addPerson(clinician)).id);
    const path = `/api/episodes/${episode.id}`;
    const { body } = await clinician.patch(path, { version: 1, weightsKg: [1, 2, 4.5] }).expect(200);
    expect(body.weightsKg).toEqual([1, 2, 4.5]);
    await clinician.patch(path, { version: 2, weightsKg: [0] }).expect(400);
    await clinician.patch(path, { version: 2, weightsKg: ['heavy'] }).expect(400);
  });
});
