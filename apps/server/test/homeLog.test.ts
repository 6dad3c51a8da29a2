import request from 'supertest';
import { randomUUID } from 'node:crypto';
import { addDays, weekdayOf } from '@heathstep/core';
import type { CourseView } from '@heathstep/contracts';
import { cookieOf, decidedOn, inWorld, openAtHome, today, treated, withCookie } from './harness.js';

const scores = (before: number, during: number, after: number) => ({
  before,
  during,
  after,
  'hour-above': false,
});

describe('the patient’s link and log', () => {
  const { world, who } = inWorld();

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

    it('locks at the fifth wrong code, for the right one too, and says nothing of it', async () => {
      const answers = [];
      for (let i = 0; i < 5; i += 1) answers.push((await open(wrong()).expect(401)).body);
      answers.push((await open(link.code).expect(401)).body);
      expect(new Set(answers.map((a) => JSON.stringify(a))).size).toBe(1);
      const { body } = await who.get(`/api/episodes/${episodeId}`);
      expect(body.homeLink.locked).toBe(true);
    });

    it('forgets wrong codes after the right one', async () => {
      for (let i = 0; i < 4; i += 1) await open(wrong()).expect(401);
      await open(link.code).expect(200);
      for (let i = 0; i < 4; i += 1) await open(wrong()).expect(401);
      await open(link.code).expect(200);
    });

    it('says the same of a wrong code, and of an unknown, an ended and an expired link', async () => {
      const wrongCode = await open(wrong()).expect(401);
      const unknown = await open('123456', 'A'.repeat(22)).expect(401);
      const old = link;
      link = (await who.post(`/api/episodes/${episodeId}/home-link`).expect(201)).body;
      const ended = await open(old.code, old.token).expect(401);
      await world.owner.query(
        "UPDATE home_link SET expires_at = now() - interval '1 minute' WHERE revoked_at IS NULL",
      );
      const expired = await open(link.code).expect(401);
      for (const { body } of [unknown, ended, expired]) expect(body).toEqual(wrongCode.body);
    });

    it('leaves a phone that is signed in alone, whoever types wrong codes', async () => {
      const home = withCookie(world, cookieOf(await open(link.code).expect(200)));
      for (let i = 0; i < 6; i += 1) await open(wrong()).expect(401);
      await home.get('/api/home/today').expect(200);
      await world.owner.query("UPDATE home_link SET expires_at = now() - interval '1 minute'");
      await home.get('/api/home/today').expect(200);
    });

    it('stays open by use, ends without, and is closed from the phone', async () => {
      const cookie = cookieOf(await open(link.code).expect(200));
      const home = withCookie(world, cookie);
      expect((await home.get('/api/home/today').expect(200)).headers['set-cookie']).toBe(undefined);
      await world.owner.query("UPDATE home_session SET expires_at = now() + interval '5 days'");
      const renewed = await home.get('/api/home/today').expect(200);
      expect(String(renewed.headers['set-cookie'])).toMatch(/^heathstep_home=.*HttpOnly/);
      const [row] = await world.owner.query<{ days: number }[]>(
        "SELECT extract(day FROM expires_at - now())::int AS days FROM home_session WHERE expires_at > now() + interval '80 days'",
      );
      expect(row?.days).toBeGreaterThanOrEqual(89);
      await request(world.app.getHttpServer()).delete('/api/home/session').set('cookie', cookie).expect(204);
      await home.get('/api/home/today').expect(401);
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
      home = await openAtHome(world, who, episodeId);
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
          on: await decidedOn(who, episodeId),
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
      const assessed = { ...close, kind: 'closed', assessedOn: today(), assessedBy: 'T. Fell' };
      const unsaid = await who.post(`/api/episodes/${episodeId}/closures`, assessed).expect(400);
      expect(unsaid.body.errors).toContainEqual({ pointer: '/done', detail: 'Choose what was done' });
      const stateToday = async () => {
        const course = (await who.get(`/api/episodes/${episodeId}/course`).expect(200)).body as CourseView;
        return course.sessions.find((s) => s.day === today())?.state;
      };
      expect(await stateToday()).toBe('stop');
      await who.post(`/api/episodes/${episodeId}/closures`, { ...assessed, done: 'harmless' }).expect(201);
      expect((await home.get('/api/home/today')).body.stopped).toBeNull();
      // Harmless is no red: the day counts without it.
      expect(await stateToday()).not.toBe('stop');
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
});
