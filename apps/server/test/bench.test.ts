import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import type { PhotoView } from '@heathstep/contracts';
import { type Caller, drawnPicture, entry, makeWorld, takePhoto, treated, type World } from './harness.js';

describe('the assessment bench', () => {
  let world: World;
  let clinician: Caller;
  let lead: Caller;
  let assistant: Caller;
  let episodeId: string;
  let signedId: string;
  let visitId: string;

  beforeAll(async () => {
    world = await makeWorld();
    clinician = await world.as(0, 'clinician');
    lead = await world.as(0, 'lead');
    assistant = await world.as(0, 'assistant');
    const made = await treated(clinician);
    ({ episodeId, visitId: signedId } = made);
    await save(clinician, [entry('story.night', false)], {}, signedId).expect(200);
    await clinician.post(`/api/visits/${signedId}/sign`).expect(200);
    visitId = (await clinician.post(`/api/episodes/${episodeId}/visits`, { id: randomUUID() })).body.id;
  });
  afterAll(() => world.stop());

  const save = (who: Caller, entries: object[], more: object = {}, id = visitId) =>
    who.put(`/api/visits/${id}/entries`, { entries, ...more });
  const taken = (trials: (number | null)[], more: object = {}) => ({
    trials,
    status: 'taken',
    pain: null,
    ...more,
  });

  describe('entries of the drawings and of measures', () => {
    it.each([
      ['look.numb.left', { felt: ['heel'], missed: ['big-toe'] }],
      ['look.tender.right', [{ bone: 'shin-inner', cm: 3 }]],
      ['look.toes.left', { second: { shape: 'hammer', rigid: true } }],
      ['look.wear.left', ['heel-out']],
      ['look.callus.left', []],
      ['look.points.squat.left', { first: 'down', fifth: 'lifted', heel: 'light' }],
      ['skip.load', 'too sore today'],
      ['visit.measures', ['single-hop']],
      [
        'measure.eversion-force.left',
        taken([120, 118], { parts: { lever: 15 }, method: 'force gauge, held', by: 'self' }),
      ],
      ['measure.lunge-knee-bent.left', taken([34], { again: { trials: [38], pain: 1 } })],
    ])('%s is kept as given', async (key, value) => {
      const { body } = await save(clinician, [entry(key, value)]).expect(200);
      expect(body.saved).toMatchObject([{ key, value }]);
    });

    it.each([
      ['look.numb.left', { felt: ['nose'], missed: [] }],
      ['look.numb.left', ['heel']],
      ['look.tender.right', [{ bone: 'shin-inner', cm: 600 }]],
      ['look.toes.left', { second: { shape: 'curly', rigid: true } }],
      ['look.toes.left', { sixth: { shape: 'claw', rigid: true } }],
      ['look.wear.left', ['everywhere']],
      ['look.points.dance.left', { first: 'down' }],
      ['look.points.squat.left', { first: 'up' }],
      ['look.constructor.left', []],
      ['skip.conclude', 'why'],
      ['measure.eversion-force.left', taken([120], { parts: { lever: 'long' } })],
      ['measure.eversion-force.left', taken([120], { by: 'a friend' })],
      ['measure.eversion-force.left', taken([1600])],
      ['measure.lunge-knee-bent.left', taken([34], { again: { trials: [340], pain: null } })],
      ['measure.reach-composite.left', taken([95])],
    ])('%s as %j is refused by its field and nothing is saved', async (key, value) => {
      const before = (await clinician.get(`/api/visits/${visitId}`)).body.entries.length;
      const { body } = await save(clinician, [entry('story.worst', 3), entry(key, value)]).expect(400);
      expect(body.errors).toMatchObject([{ pointer: '/entries/1/value' }]);
      expect((await clinician.get(`/api/visits/${visitId}`)).body.entries).toHaveLength(before);
    });

    it('feeling marked as lost opens its safety sign without being asked as well', async () => {
      const { safety } = (await clinician.get(`/api/episodes/${episodeId}`)).body;
      const signs = safety.triggered.map((t: { rule: { key: string }; side: string }) => [
        t.rule.key,
        t.side,
      ]);
      expect(signs).toContainEqual(['protective-feeling', 'left']);
      expect(signs).toContainEqual(['rigid-deformity', 'left']);
    });

    it('what is worked out stands among the course’s values', async () => {
      await save(clinician, [
        entry('measure.body-mass.none', taken([60])),
        entry('measure.insole-width.left', taken([90])),
        entry('measure.forefoot-width.left', taken([97])),
      ]).expect(200);
      const { measures } = (await clinician.get(`/api/episodes/${episodeId}/course`)).body;
      const of = (key: string) => measures.find((m: { measure: string }) => m.measure === key)?.value;
      expect(of('toe-box-room')).toBe(-7);
      expect(of('eversion-torque')).toBeCloseTo((120 * 0.15) / 60, 9);
    });
  });

  describe('two people in one visit', () => {
    it('each is told of the other, and what one saved comes to the other once', async () => {
      const there = (who: Caller, since: number) =>
        who.post(`/api/visits/${visitId}/presence`, { step: 'look', since });
      const first = (await there(clinician, 0).expect(200)).body;
      expect(first.others).toEqual([]);
      const second = (await there(lead, first.newest).expect(200)).body;
      expect(second.others).toEqual([{ name: 'clinician 0', step: 'look' }]);
      await save(lead, [entry('story.now', 4)]).expect(200);
      await save(clinician, [entry('story.settles', 30)]).expect(200);
      const told = (await there(clinician, first.newest)).body;
      expect(told.others).toEqual([{ name: 'lead 0', step: 'look' }]);
      // What the same person saved comes too: it may be in another tab.
      expect(told.entries).toMatchObject([
        { key: 'story.now', value: 4, author: 'lead 0' },
        { key: 'story.settles', value: 30, author: 'clinician 0' },
      ]);
      expect((await there(clinician, told.newest)).body.entries).toEqual([]);
    });

    it('refuses a step that is none', async () => {
      await clinician.post(`/api/visits/${visitId}/presence`, { step: 'dance', since: 0 }).expect(400);
    });
  });

  describe('a signed visit', () => {
    const change = (more: object) => save(clinician, [entry('story.night', true, 1)], more, signedId);

    it('is not changed without a reason', async () => {
      const { body } = await change({}).expect(409);
      expect(body.title).toBe('This visit is signed');
    });

    it('is not amended by an assistant, and a blank reason is none', async () => {
      await save(assistant, [entry('story.night', true, 1)], { reason: 'wrong' }, signedId).expect(403);
      await change({ reason: '   ' }).expect(400);
    });

    it('is amended with a reason, and both values stay', async () => {
      await change({ reason: 'The patient corrected it' }).expect(200);
      const { body } = await clinician.get(`/api/visits/${signedId}`).expect(200);
      expect(body.amendments).toMatchObject([
        {
          key: 'story.night',
          before: false,
          value: true,
          reason: 'The patient corrected it',
          author: 'clinician 0',
        },
      ]);
      expect(body.signedAt).not.toBeNull();
    });
  });

  describe('pictures', () => {
    const put = (bytes: Buffer, query = 'measure=hallux-angle&side=left', id = randomUUID()) =>
      clinician
        .put(`/api/visits/${visitId}/photos/${id}?${query}`)
        .type('application/octet-stream')
        .send(bytes);

    it('a picture is kept without where and with what it was taken, the right way up', async () => {
      const shot = await sharp(await drawnPicture())
        .withExif({ IFD0: { Make: 'Secret phone' }, IFD3: { GPSLatitudeRef: 'N' } })
        .withMetadata({ orientation: 6 })
        .toBuffer();
      expect((await sharp(shot).metadata()).exif).toBeDefined();
      const { body } = await put(shot).expect(200);
      expect(body).toMatchObject({ width: 400, height: 300, side: 'left', placements: [] });
      const kept = await clinician.get(`/api/photos/${body.id}`).responseType('blob').expect(200);
      expect(kept.headers['cache-control']).toContain('no-store');
      const { exif, orientation, format } = await sharp(kept.body as Buffer).metadata();
      expect({ exif, orientation, format }).toEqual({
        exif: undefined,
        orientation: undefined,
        format: 'jpeg',
      });
    });

    it('is told apart by its content, not by what it is called', async () => {
      expect((await put(await drawnPicture('png')).expect(200)).body.width).toBe(300);
      const svg = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>');
      for (const bytes of [
        Buffer.from('not a picture at all'),
        svg,
        await sharp(await drawnPicture())
          .webp()
          .toBuffer(),
        (await drawnPicture()).subarray(0, 400),
      ]) {
        const { body } = await put(bytes).expect(415);
        expect(body.title).toBe('This is not a picture that can be read');
      }
    });

    it('30 MB are refused before they are read, nothing at all is nothing', async () => {
      await put(Buffer.alloc(30_000_000, 1)).expect(413);
      await put(Buffer.alloc(0)).expect(415);
    });

    it('a larger picture is made smaller', async () => {
      const large = await sharp({ create: { width: 4000, height: 3000, channels: 3, background: '#888' } })
        .jpeg()
        .toBuffer();
      expect((await put(large).expect(200)).body).toMatchObject({ width: 2400, height: 1800 });
    });

    it('names a measure that is taken from pictures, and a side', async () => {
      const bytes = await drawnPicture();
      expect((await put(bytes, 'measure=lunge-knee-bent&side=left').expect(400)).body.errors).toMatchObject([
        { pointer: '/measure' },
      ]);
      await put(bytes, 'measure=hallux-angle&side=both').expect(400);
    });

    it('sent twice is kept once', async () => {
      const id = randomUUID();
      const bytes = await drawnPicture();
      await put(bytes, 'measure=hallux-angle&side=right', id).expect(200);
      await put(bytes, 'measure=hallux-angle&side=right', id).expect(200);
      const { body } = await clinician.get(`/api/episodes/${episodeId}/photos`).expect(200);
      expect((body as PhotoView[]).filter((p) => p.id === id)).toHaveLength(1);
    });

    it('landmarks give the value here, with its uncertainty, and each placement stays', async () => {
      const photo = await takePhoto(world, episodeId);
      const landmarks = { base: { x: 150, y: 350 }, head: { x: 150, y: 200 }, toe: { x: 95, y: 105 } };
      const place = (marks: object) =>
        clinician.post(`/api/photos/${photo}/placements`, { id: randomUUID(), landmarks: marks });
      const first = (await place(landmarks).expect(201)).body as PhotoView;
      expect(first.placements[0]?.value).toBeCloseTo((Math.atan2(55, 95) * 180) / Math.PI, 6);
      expect(first.placements[0]?.plusMinus).toBeGreaterThan(0.5);
      const second = (await place({ ...landmarks, extra: { x: 1, y: 1 } }).expect(201)).body as PhotoView;
      expect(second.placements).toHaveLength(2);
      expect(Object.keys(second.placements[0]?.landmarks ?? {}).sort()).toEqual(['base', 'head', 'toe']);
    });

    it('refuses landmarks that are missing or lie outside', async () => {
      const photo = await takePhoto(world, episodeId);
      const place = (landmarks: object) =>
        clinician.post(`/api/photos/${photo}/placements`, { id: randomUUID(), landmarks });
      const missing = await place({ base: { x: 1, y: 1 } }).expect(400);
      expect(missing.body.errors[0].detail).toContain('still wanted');
      const outside = { base: { x: 1, y: 1 }, head: { x: 9999, y: 1 }, toe: { x: 1, y: 1 } };
      expect((await place(outside).expect(400)).body.errors).toMatchObject([{ pointer: '/landmarks/head' }]);
    });

    it('none is added to a signed visit', async () => {
      await clinician
        .put(`/api/visits/${signedId}/photos/${randomUUID()}?measure=hallux-angle&side=left`)
        .type('application/octet-stream')
        .send(await drawnPicture())
        .expect(409);
    });
  });

  describe('a measure of the clinic’s own', () => {
    const filled = (more: object = {}) => ({
      id: randomUUID(),
      version: 0,
      label: 'Foot score total',
      unit: 'points',
      sides: 'single',
      trials: 1,
      combine: 'last',
      direction: 'more',
      min: 0,
      max: 100,
      decimals: 0,
      mdc: 9,
      thresholdOp: '<',
      thresholdValue: 60,
      thresholdMeaning: 'limited',
      source: 'Licensed to this clinic',
      step: 'story',
      method: 'Total of the questionnaire',
      ...more,
    });

    it('stands among the measures, takes values, and only for this clinic', async () => {
      const { body } = await lead.post('/api/measures', filled()).expect(201);
      expect(body).toMatchObject({
        label: 'Foot score total',
        error: { mdc: 9 },
        aliases: ['foot score total'],
      });
      const { measures } = (await clinician.get('/api/content')).body;
      expect(measures.map((m: { key: string }) => m.key)).toContain(body.key);
      await save(clinician, [entry(`measure.${body.key}.none`, taken([55]))]).expect(200);
      await save(clinician, [entry(`measure.${body.key}.none`, taken([101]), 1)]).expect(400);
      const other = await world.as(1, 'lead');
      const theirs = (await other.get('/api/content')).body.measures;
      expect(theirs.map((m: { key: string }) => m.key)).not.toContain(body.key);
    });

    it('the same again changes nothing, an edit is a new version, a stale edit is told', async () => {
      const form = filled({ label: 'Balance minutes' });
      await lead.post('/api/measures', form).expect(201);
      await lead.post('/api/measures', form).expect(201);
      await lead.post('/api/measures', { ...form, version: 1, mdc: 4 }).expect(201);
      await lead.post('/api/measures', { ...form, version: 1, mdc: 5 }).expect(409);
      const { own } = (await clinician.get('/api/content')).body;
      expect(
        own.find((o: { filled: { label: string } }) => o.filled.label === 'Balance minutes'),
      ).toMatchObject({
        version: 2,
        filled: { mdc: 4 },
      });
    });

    it.each([
      [{ max: -1 }, '/max'],
      [{ label: ' ' }, '/label'],
      [{ label: 'Lunge, knee bent' }, '/label'],
      [{ source: '' }, '/source'],
      [{ thresholdMeaning: null }, '/thresholdValue'],
      [{ thresholdValue: 400 }, '/thresholdValue'],
      [{ mdc: -2 }, '/mdc'],
      [{ trials: 0 }, '/trials'],
    ])('%j is refused by its field', async (bad, pointer) => {
      const { body } = await lead.post('/api/measures', filled(bad)).expect(400);
      expect(body.errors.map((e: { pointer: string }) => e.pointer)).toContain(pointer);
    });

    it('is not for assistants to add', async () => {
      await assistant.post('/api/measures', filled()).expect(403);
    });
  });
});
