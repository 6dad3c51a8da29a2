import { randomUUID } from 'node:crypto';
import { DataSource } from 'typeorm';
import type { PostgresDriver } from 'typeorm/driver/postgres/PostgresDriver.js';
import { PostgresQueryRunner } from 'typeorm/driver/postgres/PostgresQueryRunner.js';
import { loadContent } from '@heathstep/content';
import { prescriptionTime, shareOfDay } from '@heathstep/core';
import type { CourseView, EpisodeView, HomeView, PersonRow, PlanView } from '@heathstep/contracts';
import {
  addEpisode,
  cookieOf,
  entry,
  inWorld,
  measured,
  openVisit,
  safetyEntries,
  today,
  treated,
  withCookie,
} from './harness.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const { content } = loaded;

describe('several complaints of one person', () => {
  const { world, who } = inWorld();

  /** Someone with a plan for the left heel, and the right heel screened as well. */
  async function two(answers: Record<string, string> = {}) {
    const first = await treated(who);
    const second = await addEpisode(who, first.person.id, 'right');
    const visit = await openVisit(who, second.id);
    await who
      .put(`/api/visits/${visit.id}/entries`, {
        entries: [...safetyEntries(answers), ...measured('first-step-pain', [0], [4])],
      })
      .expect(200);
    return { ...first, second: second.id, visit: visit.id };
  }
  const view = async (id: string) => (await who.get(`/api/episodes/${id}`).expect(200)).body as EpisodeView;
  const draft = (id: string) =>
    who.post(`/api/episodes/${id}/plans`, { id: randomUUID(), stage: 'calm', from: 'stage' });
  const home = async (episodeId: string) => {
    const link = (await who.post(`/api/episodes/${episodeId}/home-link`).expect(201)).body;
    const open = await world.anonymous.post('/api/home/session', { token: link.token, code: link.code });
    return { open, phone: withCookie(world, cookieOf(open)) };
  };

  it('stand side by side with the person and on the day', async () => {
    const { person, episodeId, second } = await two();
    const row = (await who.get(`/api/people/${person.id}`).expect(200)).body as PersonRow;
    expect(row.episodes.map((e) => [e.id, e.affected, e.stageName])).toEqual([
      [second, 'right', null],
      [episodeId, 'left', 'Build the foot'],
    ]);
    const { items } = (await who.get('/api/day').expect(200)).body;
    expect(
      items
        .filter((i: { personId: string }) => i.personId === person.id)
        .map((i: { episodeId: string }) => i.episodeId)
        .sort(),
    ).toEqual([episodeId, second].sort());
    expect(
      items
        .filter((i: { personId: string }) => i.personId === person.id)
        .map((i: { complaint: { affected: string } }) => i.complaint.affected)
        .sort(),
    ).toEqual(['left', 'right']);
    expect((await view(episodeId)).elsewhere).toMatchObject([
      { episodeId: second, affected: 'right', blocks: [], plan: null },
    ]);
  });

  it('are never called steady before a plan is followed: seen and signed without one is said so', async () => {
    const { person, second, visit } = await two();
    const third = (await addEpisode(who, person.id)).id;
    const row = async (id: string) =>
      (await who.get('/api/day').expect(200)).body.items.find(
        (i: { episodeId: string }) => i.episodeId === id,
      ) as { kind: string; headline: string };
    expect(await row(third)).toMatchObject({ kind: 'new', headline: 'First visit to begin' });
    expect(await row(second)).toMatchObject({ kind: 'new', headline: 'First visit open' });
    await who.post(`/api/visits/${visit}/sign`).expect(200);
    expect(await row(second)).toMatchObject({ kind: 'unplanned', headline: 'Seen, without a plan' });
  });

  it('share the day’s minutes: what one takes is not there for the other, but a quarter always is', async () => {
    const { episodeId, second, plan } = await two();
    const length = (p: PlanView) =>
      p.items.reduce((sum, item) => {
        const exercise = content.exercises.find((e) => e.key === item.exercise);
        const time = exercise === undefined ? null : prescriptionTime(item, exercise);
        return sum + (time?.ok === true ? time.value.daySeconds / 60 : 0);
      }, 0);
    const first = await view(episodeId);
    const share = shareOfDay(first.minutesPerDay, (await view(second)).elsewhere[0]?.plan?.exercises ?? []);
    expect(share.elsewhere).toBeGreaterThan(0);
    expect(share.elsewhere).toBeLessThanOrEqual(length(plan) + 1e-9);
    const made = (await draft(second).expect(201)).body as PlanView;
    expect(made.items.length).toBeGreaterThan(0);
    expect(length(made)).toBeLessThanOrEqual(share.here + 1e-9);
  });

  it('know the same home: what is told for one holds for the other, and for one begun later', async () => {
    const { person, episodeId, second } = await two();
    const at = await view(second);
    await who
      .patch(`/api/episodes/${second}`, {
        version: at.version,
        equipment: ['band'],
        weightsKg: [2, 4],
        minutesPerDay: 35,
      })
      .expect(200);
    const home = { equipment: ['band'], weightsKg: [2, 4], minutesPerDay: 35 };
    const first = await view(episodeId);
    expect(first).toMatchObject(home);
    // Its own page goes on as it was: no one there has to read it anew before the next change.
    await who.patch(`/api/episodes/${episodeId}`, { version: first.version, minutesPerDay: 30 }).expect(200);
    const third = await addEpisode(who, person.id, 'both');
    expect(await view(third.id)).toMatchObject({ ...home, minutesPerDay: 30 });
    expect((await view((await treated(who)).episodeId)).minutesPerDay).toBe(20);
  });

  it('are given no exercise twice', async () => {
    const { episodeId, second, plan } = await two();
    const made = (await draft(second).expect(201)).body as PlanView;
    const given = plan.items.map((i) => i.exercise);
    expect(made.items.filter((i) => given.includes(i.exercise))).toEqual([]);
    expect(made.left).toContainEqual({
      exercise: 'sole-stretch',
      why: 'given for the other complaint already',
    });
    const course = (await who.get(`/api/episodes/${second}/course`).expect(200)).body as CourseView;
    expect(course.episode.elsewhere[0]?.plan?.exercises.map((e) => e.key)).toEqual(given);
    expect((await view(episodeId)).elsewhere[0]?.plan).toBeNull();
  });

  it('are bound by one safety: an emergency of either blocks both, a caution of either acts on both', async () => {
    const clot = await two({ 'calf-swollen': 'right', 'calf-warm': 'right' });
    expect((await view(clot.episodeId)).notPrescribed.join()).toMatch(/Possible clot/);
    await draft(clot.episodeId).expect(422);
    const numb = await two({ 'blood-thinners': 'yes' });
    expect((await view(numb.episodeId)).tagsOff.left).toContain('scraping');
  });

  it('block each other only where the sign concerns the other side too', async () => {
    const surgery = await two({ 'surgery-12-weeks': 'right' });
    await draft(surgery.second).expect(422);
    await draft(surgery.episodeId).expect(201);
  });

  it('have one link, on which both are shown and logged apart, and a stop of one stops both', async () => {
    const { episodeId, second } = await two();
    const old = await home(episodeId);
    const { phone } = await home(second);
    await old.phone.get('/api/home/today').expect(401);
    const first = (await phone.get('/api/home/today').expect(200)).body as HomeView;
    expect(first.complaints).toEqual([
      { episodeId: second, name: 'your right heel' },
      { episodeId, name: 'your left heel' },
    ]);
    const other = (await phone.get(`/api/home/today?episode=${episodeId}`).expect(200)).body as HomeView;
    expect([other.episodeId, other.items.length > 0]).toEqual([episodeId, true]);
    const morning = (episode: string) => ({
      id: randomUUID(),
      version: 1,
      kind: 'morning',
      day: today(),
      episodeId: episode,
      payload: { scores: { 'first-steps': 3 } },
    });
    await phone.put('/api/home/entries', morning(episodeId)).expect(200);
    await phone.put('/api/home/entries', morning(second)).expect(200);
    const stranger = (await treated(who)).episodeId;
    await phone.put('/api/home/entries', morning(stranger)).expect(401);
    const id = randomUUID();
    await phone
      .put('/api/home/entries', {
        ...morning(second),
        id,
        kind: 'stop',
        payload: { grade: 'emergency', sign: 'Chest pain', exercise: null },
      })
      .expect(200);
    const stopped = (await phone.get(`/api/home/today?episode=${episodeId}`).expect(200)).body as HomeView;
    expect(stopped).toMatchObject({ items: [], stopped: expect.stringContaining('112'), knownStops: [id] });
    await draft(episodeId).expect(422);
  });

  it('can be closed and opened again; a closed one binds nothing and stands on no list of the day', async () => {
    const { episodeId, second, person } = await two({ 'blood-thinners': 'yes' });
    const set = async (status: string) => {
      const { version } = await view(second);
      return who.patch(`/api/episodes/${second}`, {
        version,
        status,
        ...(status === 'closed' ? { outcome: 'goes-on-alone' } : {}),
        ...(status === 'open' ? { reopened: 'closed-too-early' } : {}),
      });
    };
    expect((await set('closed')).status).toBe(200);
    expect(await view(episodeId)).toMatchObject({ elsewhere: [] });
    expect((await view(episodeId)).tagsOff.left).not.toContain('scraping');
    const { items } = (await who.get('/api/day').expect(200)).body;
    expect(items.filter((i: { personId: string }) => i.personId === person.id)).toHaveLength(1);
    expect((await set('open')).status).toBe(200);
    expect((await view(episodeId)).tagsOff.left).toContain('scraping');
    expect((await set('gone')).status).toBe(400);
  });

  it('say how they ended, and nothing new is begun for them until they are open again', async () => {
    const plain = await treated(who);
    const id = plain.episodeId;
    const patch = async (change: object) =>
      who.patch(`/api/episodes/${id}`, { version: (await view(id)).version, ...change });
    const unsaid = await patch({ status: 'closed' });
    expect([unsaid.status, unsaid.body.errors[0]]).toEqual([
      400,
      { pointer: '/outcome', detail: 'Say how it ended' },
    ]);
    expect((await patch({ outcome: 'other' })).status).toBe(400);
    expect((await patch({ status: 'closed', outcome: 'cured' })).status).toBe(400);
    const { token, code } = (await who.post(`/api/episodes/${id}/home-link`).expect(201)).body;
    const closed = await patch({
      status: 'closed',
      outcome: 'goals-reached',
      note: ' Walks the moor again. ',
    });
    expect(closed.body).toMatchObject({
      status: 'closed',
      ended: { outcome: 'goals-reached', note: 'Walks the moor again.', by: expect.stringMatching(/\S/) },
    });
    const listed = (await who.get(`/api/people/${plain.person.id}`).expect(200)).body;
    expect(listed.episodes[0].ended).toMatchObject({ outcome: 'goals-reached' });
    await world.anonymous.post('/api/home/session', { token, code }).expect(401);
    for (const [path, body] of [
      [`/api/episodes/${id}/plans`, { id: randomUUID(), stage: 'calm', from: 'stage' }],
      [`/api/episodes/${id}/home-link`, {}],
      [
        `/api/episodes/${id}/decisions`,
        {
          id: randomUUID(),
          decision: 'hold',
          on: { stage: null, planId: null, suggested: 'hold' },
        },
      ],
    ] as const)
      expect((await who.post(path, body).expect(422)).body.detail).toMatch(/closed; open it again/);
    const unsaidWhy = await patch({ status: 'open' });
    expect(unsaidWhy.body.errors).toEqual([{ pointer: '/reopened', detail: 'Say why it is opened again' }]);
    const open = await patch({ status: 'open', reopened: 'closed-too-early' });
    expect(open.body).toMatchObject({ status: 'open', ended: null });
    await who
      .post(`/api/episodes/${id}/plans`, { id: randomUUID(), stage: 'calm', from: 'stage' })
      .expect(201);
  });

  it('are not closed over an open sign, nor by an assistant', async () => {
    const { episodeId, second } = await two({ 'calf-swollen': 'right', 'calf-warm': 'right' });
    const { version } = await view(second);
    const refused = await who
      .patch(`/api/episodes/${second}`, { version, status: 'closed', outcome: 'other' })
      .expect(422);
    expect(refused.body.errors[0].detail).toMatch(/^Possible clot, right/);
    await draft(episodeId).expect(422);
    const plain = await treated(who);
    const assistant = await world.as(0, 'assistant');
    await assistant
      .patch(`/api/episodes/${plain.episodeId}`, {
        version: (await view(plain.episodeId)).version,
        status: 'closed',
        outcome: 'other',
      })
      .expect(403);
  });

  it('cost the day no query more, however many there are', async () => {
    const queries = async () => {
      const source = world.app.get(DataSource);
      const count = jest.spyOn(source.driver as PostgresDriver, 'createQueryRunner');
      let asked = 0;
      count.mockImplementation(function (this: PostgresDriver, mode) {
        const runner = new PostgresQueryRunner(this, mode);
        const query = runner.query.bind(runner);
        runner.query = (...args: Parameters<typeof query>) => {
          asked += 1;
          return query(...args);
        };
        return runner;
      });
      await who.get('/api/day').expect(200);
      count.mockRestore();
      return asked;
    };
    const before = await queries();
    await two();
    await two();
    expect(before).toBeGreaterThan(5);
    expect(await queries()).toBe(before);
  });

  it('keep apart what another person says', async () => {
    const { episodeId } = await two();
    const alone = await treated(who);
    await who
      .put(`/api/visits/${alone.visitId}/entries`, { entries: [entry('safety.calf-swollen', 'both', 1)] })
      .expect(200);
    expect((await view(episodeId)).elsewhere.map((c) => c.episodeId)).not.toContain(alone.episodeId);
  });
});
