import { randomUUID } from 'node:crypto';
import { addDays, weekdayOf } from '@heathstep/core';
import type { PlanView } from '@heathstep/contracts';
import {
  addEpisode,
  addPerson,
  cookieOf,
  entry,
  inWorld,
  openVisit,
  safetyEntries,
  today,
  treated,
  withCookie,
} from './harness.js';

const scores = (before: number, during: number, after: number) => ({
  before,
  during,
  after,
  'hour-above': false,
});

describe('plans and the home log', () => {
  const { world, who } = inWorld();

  describe('a draft', () => {
    let draft: PlanView;
    let episodeId: string;
    beforeEach(async () => {
      const episode = await addEpisode(who, (await addPerson(who)).id);
      episodeId = episode.id;
      const visit = await openVisit(who, episode.id);
      await who.put(`/api/visits/${visit.id}/entries`, { entries: safetyEntries() }).expect(200);
      draft = (
        await who
          .post(`/api/episodes/${episode.id}/plans`, { id: randomUUID(), stage: 'build', from: 'stage' })
          .expect(201)
      ).body as PlanView;
    });
    const put = (change: object, version = draft.version) =>
      who.put(`/api/plans/${draft.id}`, {
        version,
        items: draft.items.map((item, i) => (i === 0 ? { ...item, ...change } : item)),
      });

    it('takes an edit within the safe range, and a stale one is 409', async () => {
      expect((await put({ reps: 5 }).expect(200)).body).toMatchObject({ version: 2 });
      expect((await put({ reps: 6 }).expect(409)).body.current.items[0].reps).toBe(5);
    });

    it.each([
      [{ sets: 50 }, '/items/0/sets'],
      [{ holdSeconds: 300 }, '/items/0/holdSeconds'],
      [{ exercise: 'no-such' }, '/items/0/exercise'],
      [{ sides: 'together' }, '/items/0/sides'],
      [{ sets: 'three' }, '/items/0/sets'],
      [{ addedKg: 10 }, '/items/0/addedKg'],
      [{ secret: 1 }, '/items/0/secret'],
    ])('refuses %j by its field', async (change, pointer) => {
      expect((await put(change).expect(400)).body.errors[0].pointer).toBe(pointer);
    });

    it('is given once and then does not change', async () => {
      const give = () => who.post(`/api/plans/${draft.id}/give`, { version: draft.version });
      await (await world.as(0, 'assistant')).post(`/api/plans/${draft.id}/give`, { version: 1 }).expect(403);
      const [a, b] = await Promise.all([give(), give()]);
      expect([a.status, b.status]).toEqual([200, 200]);
      await put({ reps: 5 }, 2).expect(409);
      const course = (await who.get(`/api/episodes/${episodeId}/course`)).body;
      expect(course.episode).toMatchObject({
        stage: 'build',
        draft: null,
        plan: { number: 1, status: 'given' },
      });
      expect(course.episode.stages).toHaveLength(1);
      const next = (
        await who.post(`/api/episodes/${episodeId}/plans`, { id: randomUUID(), from: 'current' }).expect(201)
      ).body as PlanView;
      expect(next).toMatchObject({ number: 2, status: 'draft' });
      expect(next.items).toEqual(draft.items);
    });

    it('is made by several at once without a failure, and one draft stands', async () => {
      const made = await Promise.all(
        [1, 2, 3, 4].map(() =>
          who.post(`/api/episodes/${episodeId}/plans`, { id: randomUUID(), stage: 'build', from: 'stage' }),
        ),
      );
      expect(made.map((m) => m.status)).toEqual([201, 201, 201, 201]);
      const drafts = await world.owner.query(
        "SELECT id FROM plan WHERE episode_id = $1 AND status = 'draft'",
        [episodeId],
      );
      expect(drafts).toHaveLength(1);
    });

    it('keeps the stage and the protocol it was made of when the content changes', async () => {
      const kept = await world.owner.query('SELECT definition FROM protocol_version WHERE clinic_id = $1', [
        world.clinics[0],
      ]);
      const own = kept[0].definition;
      const renamed = { ...own, stages: own.stages.map((s: object) => ({ ...s, name: 'As it was' })) };
      await world.owner.query('UPDATE protocol_version SET definition = $1 WHERE clinic_id = $2', [
        JSON.stringify(renamed),
        world.clinics[0],
      ]);
      const course = (await who.get(`/api/episodes/${episodeId}/course`)).body;
      expect(course.protocol.stages[0].name).toBe('As it was');
      expect(course.episode.draft.madeOf.name).toBe('Build the foot');
      await world.owner.query('UPDATE protocol_version SET definition = $1 WHERE clinic_id = $2', [
        JSON.stringify(own),
        world.clinics[0],
      ]);
    });

    it('is not given when a safety answer changed meanwhile', async () => {
      const open = (await who.get(`/api/episodes/${episodeId}`)).body.visits[0];
      await who
        .put(`/api/visits/${open.id}/entries`, { entries: [entry('safety.calf-squeeze-still', 'left', 1)] })
        .expect(200);
      const refused = await who.post(`/api/plans/${draft.id}/give`, { version: draft.version }).expect(422);
      expect(refused.body.errors[0].detail).toMatch(/Possible Achilles rupture, left/);
    });

    it('follows minutes, equipment and school, each checked', async () => {
      const episode = (await who.get(`/api/episodes/${episodeId}`)).body;
      const patch = (change: object) =>
        who.patch(`/api/episodes/${episodeId}`, { version: episode.version, ...change });
      expect((await patch({ minutesPerDay: 1000 }).expect(400)).body.errors[0].pointer).toBe(
        '/minutesPerDay',
      );
      expect((await patch({ equipment: ['trampoline'] }).expect(400)).body.errors[0].pointer).toBe(
        '/equipment',
      );
      expect((await patch({ schools: { lengthening: 'magic' } }).expect(400)).body.errors[0].pointer).toBe(
        '/schools/lengthening',
      );
      await patch({ minutesPerDay: 6 }).expect(200);
      await patch({ minutesPerDay: 7 }).expect(409);
      const short = (
        await who
          .post(`/api/episodes/${episodeId}/plans`, { id: randomUUID(), stage: 'build', from: 'stage' })
          .expect(201)
      ).body as PlanView;
      expect(short.items.length).toBeLessThan(draft.items.length);
      expect(short.left.some((l) => l.why.startsWith('no minutes left'))).toBe(true);
    });
  });

  describe('the home link', () => {
    let episodeId: string;
    let link: { token: string; code: string };
    const open = (code: string, token = link.token) =>
      world.anonymous.post('/api/home/session', { token, code });
    const wrong = () => (link.code === '000000' ? '111111' : '000000');
    beforeEach(async () => {
      episodeId = (await treated(who)).episodeId;
      link = (await who.post(`/api/episodes/${episodeId}/home-link`).expect(201)).body;
    });

    it('has a 128-bit token and a 6-digit code, both stored hashed', async () => {
      expect(Buffer.from(link.token, 'base64url')).toHaveLength(16);
      expect(link.code).toMatch(/^\d{6}$/);
      const stored = JSON.stringify(await world.owner.query('SELECT * FROM home_link'));
      expect(stored).not.toContain(link.token);
      expect(stored).not.toContain(`"${link.code}"`);
    });

    it('locks at the fifth wrong code, for the right one too', async () => {
      for (const left of [4, 3, 2, 1])
        expect((await open(wrong()).expect(401)).body.detail).toMatch(`${left} `);
      await open(wrong()).expect(423);
      await open(link.code).expect(423);
    });

    it('forgets wrong codes after the right one', async () => {
      await open(wrong()).expect(401);
      await open(link.code).expect(200);
      expect((await open(wrong()).expect(401)).body.detail).toMatch('4 ');
    });

    it('says the same of a wrong, an ended and an expired link', async () => {
      const unknown = await open('123456', 'A'.repeat(22)).expect(404);
      const old = link;
      link = (await who.post(`/api/episodes/${episodeId}/home-link`).expect(201)).body;
      const ended = await open(old.code, old.token).expect(404);
      await world.owner.query(
        "UPDATE home_link SET expires_at = now() - interval '1 minute' WHERE revoked_at IS NULL",
      );
      const expired = await open(link.code).expect(404);
      expect([ended.body, expired.body]).toEqual([unknown.body, unknown.body]);
    });

    it('opens nothing but the own plan, and closes with the link', async () => {
      const cookie = cookieOf(await open(link.code).expect(200));
      expect(cookie).toMatch(/^heathstep_home=/);
      const home = withCookie(world, cookie);
      const view = (await home.get('/api/home/today').expect(200)).body;
      expect(view.firstName).toBe('Bram');
      expect(JSON.stringify(view)).not.toContain('Sedge');
      await home.get(`/api/episodes/${episodeId}`).expect(401);
      await who.del(`/api/episodes/${episodeId}/home-link`).expect(204);
      await home.get('/api/home/today').expect(401);
    });
  });

  describe('the log', () => {
    let episodeId: string;
    let home: ReturnType<typeof withCookie>;
    beforeEach(async () => {
      episodeId = (await treated(who)).episodeId;
      const link = (await who.post(`/api/episodes/${episodeId}/home-link`).expect(201)).body;
      home = withCookie(
        world,
        cookieOf(await world.anonymous.post('/api/home/session', { token: link.token, code: link.code })),
      );
    });
    const session = {
      scores: { ...scores(2, 3, 2), 'hour-above': null },
      exercises: [{ exercise: 'raise-two-legs', sets: 3, reps: 12, effort: 6 }],
    };
    const log = (kind: string, payload: object, more: object = {}) =>
      home.put('/api/home/entries', { id: randomUUID(), version: 1, kind, day: today(), payload, ...more });

    it('is safe to repeat and can be corrected by a new version', async () => {
      const body = { id: randomUUID(), version: 1, kind: 'session', day: today(), payload: session };
      await home.put('/api/home/entries', body).expect(200);
      await home.put('/api/home/entries', body).expect(200);
      const corrected = await home
        .put('/api/home/entries', {
          ...body,
          version: 2,
          payload: { ...session, scores: { ...session.scores, 'hour-above': true } },
        })
        .expect(200);
      expect(corrected.body).toMatchObject({ version: 2, payload: { scores: { 'hour-above': true } } });
      expect((await home.put('/api/home/entries', body).expect(200)).body.version).toBe(2);
      expect((await home.get('/api/home/today')).body.entries).toHaveLength(1);
      const kept = await world.owner.query('SELECT version FROM home_entry WHERE id = $1', [body.id]);
      expect(kept).toHaveLength(2);
    });

    it('offers what was missed yesterday and fits in today, once, and nothing after a session that was not green', async () => {
      const weekday = weekdayOf(today());
      const onDays = (days: readonly number[]) =>
        [...days].map((d) => (weekday + d + 7) % 7).sort((a, b) => a - b);
      const [plan] = await world.owner.query('SELECT id, items FROM plan WHERE episode_id = $1', [episodeId]);
      const seldom = (plan.items as { exercise: string; daysPerWeek: number }[]).find(
        (i) => i.daysPerWeek === 3,
      );
      if (seldom === undefined) throw new Error('the stage has something on three days');
      // Yesterday, in two days and in four: not today. Whatever else there is falls on one day, and leaves room on the others.
      const items = plan.items.map((i: object & { exercise: string }) =>
        i.exercise === seldom.exercise
          ? { ...i, days: onDays([-1, 2, 4]) }
          : { ...i, daysPerWeek: 1, days: onDays([2]) },
      );
      await world.owner.query(
        "UPDATE plan SET items = $2, given_at = given_at - interval '20 days' WHERE id = $1",
        [plan.id, JSON.stringify(items)],
      );
      const offered = async () => (await home.get('/api/home/today').expect(200)).body.catchUp;
      expect(await offered()).toEqual([{ exercise: seldom.exercise, from: addDays(today(), -1) }]);
      const done = { ...session, exercises: [{ ...session.exercises[0], exercise: seldom.exercise }] };
      const id = randomUUID();
      await log('session', done, { id }).expect(200);
      expect(await offered()).toEqual([]);
      const other = { ...session, exercises: [{ ...session.exercises[0], exercise: items[0].exercise }] };
      await log('session', { ...other, scores: scores(6, 8, 8) }, { id, version: 2 }).expect(200);
      expect(await offered()).toEqual([]);
    });

    it('never takes what was logged for someone else on the same phone', async () => {
      await log('session', session, { episodeId: randomUUID() }).expect(401);
      const { episodeId } = (await home.get('/api/home/today')).body;
      await log('session', session, { episodeId }).expect(200);
    });

    it('can be corrected for 48 hours', async () => {
      const body = { id: randomUUID(), version: 1, kind: 'session', day: today(), payload: session };
      await home.put('/api/home/entries', body).expect(200);
      await world.owner.query("UPDATE home_entry SET at = at - interval '49 hours' WHERE id = $1", [body.id]);
      await home.put('/api/home/entries', { ...body, version: 2 }).expect(422);
    });

    it('takes a morning once, until midnight', async () => {
      await log('morning', { scores: { 'first-steps': 4 } }).expect(200);
      await log('morning', { scores: { 'first-steps': 3 } }).expect(409);
      await log('morning', { scores: { 'first-steps': 3 } }, { day: '2020-01-01' }).expect(422);
    });

    it.each([
      ['session', { ...session, scores: { ...session.scores, before: 11 } }, '/payload/scores/before'],
      ['session', { ...session, scores: { ...session.scores, during: null } }, '/payload/scores/during'],
      ['session', { ...session, scores: [2, 3, 2] }, '/payload/scores'],
      [
        'session',
        { ...session, exercises: [{ exercise: 'x', sets: -1, reps: 2, effort: 5 }] },
        '/payload/exercises',
      ],
      ['session', { ...session, mood: 5 }, '/payload/mood'],
      ['morning', { scores: { 'first-steps': 4.5 } }, '/payload/scores/first-steps'],
      ['morning', { scores: {} }, '/payload/scores/first-steps'],
      ['morning', { scores: { 'first-steps': 4, mood: 1 } }, '/payload/scores/mood'],
      ['morning', { firstStep: 4 }, '/payload/scores'],
      ['stop', { grade: 'awful', sign: 'x', exercise: null }, '/payload/grade'],
    ])('refuses %s %j by its field', async (kind, payload, pointer) => {
      expect((await log(kind, payload).expect(400)).body.errors[0].pointer).toBe(pointer);
    });

    it('refuses a day to come', async () => {
      await log('session', session, { day: '2099-01-01' }).expect(422);
    });

    it('stops the programme at a stop sign, tells the clinic, and re-opens safety until it is closed', async () => {
      const id = randomUUID();
      await log('stop', { grade: 'review', sign: 'Numbness or tingling', exercise: null }, { id }).expect(
        200,
      );
      expect((await home.get('/api/home/today')).body).toMatchObject({
        items: [],
        stopped: expect.stringContaining('stop sign'),
      });
      expect((await who.get('/api/day')).body.items[0]).toMatchObject({ episodeId, kind: 'stop' });
      expect((await who.get(`/api/episodes/${episodeId}/course`)).body.review).toMatchObject({
        decision: 'refer',
        rule: 1,
      });
      await who.post(`/api/episodes/${episodeId}/plans`, { id: randomUUID(), from: 'current' }).expect(422);
      await who
        .post(`/api/episodes/${episodeId}/decisions`, {
          id: randomUUID(),
          decision: 'progress',
          reason: 'I want to',
        })
        .expect(422);
      const close = {
        id: randomUUID(),
        subject: `stop:${id}`,
        side: 'none',
        text: 'Feeling normal, shoe was tight',
      };
      await who.post(`/api/episodes/${episodeId}/closures`, { ...close, kind: 'overridden' }).expect(422);
      await who
        .post(`/api/episodes/${episodeId}/closures`, {
          ...close,
          kind: 'closed',
          assessedOn: today(),
          assessedBy: 'T. Fell',
        })
        .expect(201);
      expect((await home.get('/api/home/today')).body.stopped).toBeNull();
    });

    it('keeps the number to call before the patient after a sign that needs help at once', async () => {
      await log('stop', { grade: 'emergency', sign: 'Chest pain', exercise: null }).expect(200);
      expect((await home.get('/api/home/today')).body.stopped).toMatch(
        /^You reported a sign that needs help at once. Call 112 now/,
      );
      const refused = await who
        .post(`/api/episodes/${episodeId}/plans`, { id: randomUUID(), from: 'current' })
        .expect(422);
      expect(refused.body.errors).toContainEqual(
        expect.objectContaining({
          detail: expect.stringMatching(/^Reported at home on \d{1,2} \w+ \d{4}: Chest pain$/),
        }),
      );
    });

    it('does not stop at a pause sign', async () => {
      await log('stop', {
        grade: 'pause',
        sign: 'Too tired to do it well',
        exercise: 'raise-two-legs',
      }).expect(200);
      expect((await home.get('/api/home/today')).body.stopped).toBeNull();
    });
  });

  describe('decisions', () => {
    it('suggests, keeps both when decided otherwise, and drafts what follows', async () => {
      const { episodeId } = await treated(who);
      const course = (await who.get(`/api/episodes/${episodeId}/course`)).body;
      expect(course.review).toMatchObject({ decision: 'hold-and-retest', rule: 7 });
      const decide = (body: object) =>
        who.post(`/api/episodes/${episodeId}/decisions`, { id: randomUUID(), ...body });
      expect((await decide({ decision: 'progress' }).expect(400)).body.errors[0].pointer).toBe('/reason');
      await (
        await world.as(0, 'assistant')
      )
        .post(`/api/episodes/${episodeId}/decisions`, { id: randomUUID(), decision: 'hold-and-retest' })
        .expect(403);
      const after = (
        await decide({ decision: 'progress', reason: 'Strong, and known to us for years' }).expect(201)
      ).body;
      expect(after.episode).toMatchObject({
        stage: 'heavy',
        draft: { stage: 'heavy', status: 'draft', number: 2 },
      });
      expect(after.decisions[0]).toMatchObject({
        suggested: 'hold-and-retest',
        decision: 'progress',
        agreed: false,
      });
      const back = (await decide({ decision: 'ease-back', reason: 'Too soon after all' }).expect(201)).body;
      expect(back.episode).toMatchObject({ stage: 'build', draft: { stage: 'build' } });
    });

    it('makes the plan smaller after two ambers, though an exercise not done on those days was ready for more', async () => {
      const { episodeId, plan } = await treated(who);
      const day = (ago: number) => new Date(Date.now() - ago * 86_400_000).toISOString().slice(0, 10);
      await world.owner.query("UPDATE episode SET stage_since = now() - interval '20 days' WHERE id = $1", [
        episodeId,
      ]);
      await world.owner.query("UPDATE plan SET given_at = now() - interval '20 days' WHERE id = $1", [
        plan.id,
      ]);
      const put = (kind: string, ago: number, payload: object) =>
        world.owner.query(
          "INSERT INTO home_entry (id, version, clinic_id, episode_id, plan_id, kind, day, payload, at) VALUES ($1, 1, $2, $3, $4, $5, $6, $7, $6::date + time '12:00')",
          [randomUUID(), world.clinics[0], episodeId, plan.id, kind, day(ago), JSON.stringify(payload)],
        );
      const raise = plan.items.find((i) => i.slot === 'raise');
      const ready = [{ exercise: raise?.exercise, sets: raise?.sets, reps: raise?.reps, effort: 5 }];
      for (let ago = 9; ago >= 0; ago -= 1) await put('morning', ago, { scores: { 'first-steps': 3 } });
      for (const ago of [5, 4]) await put('session', ago, { scores: scores(1, 1, 1), exercises: ready });
      for (const ago of [2, 1]) await put('session', ago, { scores: scores(1, 5, 2), exercises: [] });
      const course = (await who.get(`/api/episodes/${episodeId}/course`)).body;
      expect(course.review).toMatchObject({ decision: 'adjust-dose', rule: 3 });
      const after = (
        await who
          .post(`/api/episodes/${episodeId}/decisions`, { id: randomUUID(), decision: 'adjust-dose' })
          .expect(201)
      ).body;
      const eased = after.episode.draft.items.find((i: { slot: string }) => i.slot === 'raise');
      expect([raise?.sets, eased.sets]).toEqual([3, 2]);
      const stretch = after.episode.draft.items.find((i: { slot: string }) => i.slot === 'before-first-step');
      expect(stretch.sets).toBe(1);
    });

    it('reads what was done by the version it was done with, whatever is drafted or given since', async () => {
      const { episodeId, plan } = await treated(who);
      const raise = plan.items.find((i) => i.slot === 'raise');
      const day = new Date(Date.now() - 86_400_000).toISOString().slice(0, 10);
      const payload = {
        scores: scores(1, 1, 1),
        exercises: [{ exercise: raise?.exercise, sets: raise?.sets, reps: raise?.reps, effort: 5 }],
      };
      await world.owner.query(
        "INSERT INTO home_entry (id, version, clinic_id, episode_id, plan_id, kind, day, payload, at) VALUES ($1, 1, $2, $3, $4, 'session', $5, $6, $5::date + time '12:00')",
        [randomUUID(), world.clinics[0], episodeId, plan.id, day, JSON.stringify(payload)],
      );
      const loadDone = async () => (await who.get(`/api/episodes/${episodeId}/course`)).body.loadDone;
      const before = await loadDone();
      expect(before.map((l: { tissue: string }) => l.tissue)).toEqual(['calf', 'sole']);
      const draft = (
        await who.post(`/api/episodes/${episodeId}/plans`, { id: randomUUID(), from: 'current' }).expect(201)
      ).body as PlanView;
      const heavier = draft.items.map((i) =>
        i.slot === 'raise' && i.tempo !== undefined
          ? { ...i, reps: i.reps + 1, tempo: { ...i.tempo, downSeconds: i.tempo.downSeconds + 1 } }
          : i,
      );
      await who.put(`/api/plans/${draft.id}`, { version: draft.version, items: heavier }).expect(200);
      expect(await loadDone()).toEqual(before);
      await who.post(`/api/plans/${draft.id}/give`, { version: draft.version + 1 }).expect(200);
      expect(await loadDone()).toEqual(before);
    });

    it('counts the same decision once', async () => {
      const { episodeId } = await treated(who);
      const body = { id: randomUUID(), decision: 'hold-and-retest' };
      const send = () => who.post(`/api/episodes/${episodeId}/decisions`, body);
      await Promise.all([send(), send()]);
      expect((await who.get(`/api/episodes/${episodeId}/course`)).body.decisions).toHaveLength(1);
    });
  });
});
