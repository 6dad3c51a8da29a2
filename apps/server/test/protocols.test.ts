import { randomUUID } from 'node:crypto';
import type {
  CourseView,
  EpisodeView,
  PersonOnProtocol,
  PlanView,
  ProtocolRow,
  ProtocolView,
} from '@heathstep/contracts';
import {
  addEpisode,
  addPerson,
  type Caller,
  inWorld,
  measured,
  openVisit,
  safetyEntries,
  treated,
} from './harness.js';

const KEY = 'plantar-heel-pain';

interface Loose {
  readonly protocol: { name: string; stages: { minimumDays: number; slots: Record<string, unknown>[] }[] };
}

describe('a clinic’s own version of a protocol', () => {
  const { world, who } = inWorld();
  let lead: Caller;
  let other: Caller;
  beforeAll(async () => {
    lead = await world.as(0, 'lead');
    other = await world.as(1, 'lead');
  });
  const path = (end = '') => `/api/library/protocols/${KEY}${end}`;
  const view = async (by: Caller = who) => (await by.get(path()).expect(200)).body as ProtocolView;
  const file = async (change: (f: Loose) => void): Promise<Loose> => {
    const made = (await who.get(path('/file')).expect(200)).body as Loose;
    change(made);
    return made;
  };
  const slower = (days: number) =>
    file((f) => f.protocol.stages.slice(0, 1).forEach((s) => (s.minimumDays = days)));
  const save = async (by: Caller, body: object) => by.put(path('/draft'), body);
  const protocol = () => view();
  const edition = async () => (await view()).draft?.edition ?? 0;
  const begin = async (by: Caller = who) => addEpisode(by, (await addPerson(by)).id);
  const courseOf = async (id: string, by: Caller = who) =>
    (await by.get(`/api/episodes/${id}/course`).expect(200)).body as CourseView;
  const publish = async (days: number) => {
    const saved = (await save(who, { edition: await edition(), file: await slower(days) }))
      .body as ProtocolView;
    return (await lead.post(path('/publish'), { edition: saved.draft?.edition }).expect(200))
      .body as ProtocolView;
  };
  afterEach(async () => {
    await who.del(path('/draft')).expect(200);
    await lead.post(path('/withdraw'));
  });

  it('is a draft that treats nobody until a lead has signed it', async () => {
    const saved = (await save(who, { edition: 0, file: await slower(33) })).body as ProtocolView;
    expect(saved.draft).toMatchObject({ edition: 1, basedOn: saved.shipped.version });
    expect(saved.draft?.definition.stages[0]?.minimumDays).toBe(33);
    expect((await begin()).protocol).toBe(KEY);
    await who.post(path('/publish'), { edition: 1 }).expect(403);
    const done = (await lead.post(path('/publish'), { edition: 1 }).expect(200)).body as ProtocolView;
    expect(done.draft).toBeNull();
    expect(done.published).toMatchObject({ by: 'clinician 0', signedBy: 'lead 0' });
    const episode = await begin();
    expect(episode.protocol).toBe(`clinic-${KEY}`);
    expect((await courseOf(episode.id)).protocol.stages[0]?.minimumDays).toBe(33);
  });

  it('treats who begins from then on; who began before stays, and each plan is made of the own version', async () => {
    const before = await begin();
    const first = await publish(30);
    const one = await begin();
    await publish(40);
    const two = await begin();
    await lead.post(path('/withdraw')).expect(200);
    const after = await begin();
    const days = async (e: EpisodeView) => (await courseOf(e.id)).protocol.stages[0]?.minimumDays;
    const shipped = first.shipped.stages[0]?.minimumDays;
    expect(await Promise.all([before, one, two, after].map(days))).toEqual([shipped, 30, 40, shipped]);
    const visit = await openVisit(who, two.id);
    await who
      .put(`/api/visits/${visit.id}/entries`, {
        entries: [...safetyEntries(), ...measured('first-step-pain', [4], [0])],
      })
      .expect(200);
    const stage = first.shipped.stages[0]?.key;
    const plan = (
      await who.post(`/api/episodes/${two.id}/plans`, { id: randomUUID(), stage, from: 'stage' }).expect(201)
    ).body as PlanView;
    expect(plan.madeOf.minimumDays).toBe(40);
    expect(plan.items.length).toBeGreaterThan(1);
    await lead.post(path('/withdraw')).expect(422);
  });

  it('is refused by its place where it is wrong, and nothing is kept of it', async () => {
    const bad = await file((f) => Object.assign(f.protocol.stages[0]?.slots[1] ?? {}, { start: 'fly' }));
    const refused = await save(who, { edition: 0, file: bad });
    expect(refused.status).toBe(400);
    expect(refused.body.errors).toEqual([
      { pointer: '/file/protocol/stages/0/slots/1', detail: expect.stringMatching(/no exercise fly/) },
    ]);
    expect((await save(who, { edition: 0, file: 'text' })).body.errors[0].pointer).toBe('/file');
    expect((await view()).draft).toBeNull();
    await who.put('/api/library/protocols/no-such/draft', { edition: 0, file: await slower(9) }).expect(404);
  });

  it('is not overwritten by someone who has not seen the last change', async () => {
    const [a, b] = [await slower(20), await slower(21)];
    const answers = await Promise.all([
      save(who, { edition: 0, file: a }),
      save(lead, { edition: 0, file: b }),
    ]);
    expect(answers.map((r) => r.status).sort()).toEqual([200, 409]);
    await save(who, { edition: 1, file: a });
    await lead.post(path('/publish'), { edition: 1 }).expect(409);
    expect((await view()).published).toBeNull();
  });

  it('is made by no assistant, and seen and used by no other clinic', async () => {
    const assistant = await world.as(0, 'assistant');
    expect((await save(assistant, { edition: 0, file: await slower(20) })).status).toBe(403);
    await publish(50);
    expect(await view(other)).toMatchObject({ published: null, draft: null });
    expect((await begin(other)).protocol).toBe(KEY);
    const rows = (await other.get('/api/library/protocols').expect(200)).body as ProtocolRow[];
    expect(rows.every((r) => r.own === null && !r.draft)).toBe(true);
  });

  it('stands in the list with who is treated by it', async () => {
    const row = async () =>
      ((await who.get('/api/library/protocols').expect(200)).body as ProtocolRow[]).find(
        (r) => r.key === KEY,
      );
    const before = await row();
    const { published } = await publish(30);
    await begin();
    expect(await row()).toMatchObject({
      own: published?.version,
      draft: false,
      people: (before?.people ?? 0) + 1,
    });
  });

  describe('moving who is treated by it', () => {
    const people = async () => (await who.get(path('/people')).expect(200)).body as PersonOnProtocol[];
    const of = async (id: string) => (await people()).find((p) => p.episodeId === id);
    /** A version without the first slot of the stage people are in, and one that begins with something else. */
    const withoutFirst = async (stage: string) => {
      const made = (await who.get(path('/file')).expect(200)).body as {
        protocol: { stages: { key: string; slots: unknown[] }[] };
      };
      for (const s of made.protocol.stages) if (s.key === stage) s.slots = s.slots.slice(1);
      const saved = (await save(who, { edition: await edition(), file: made })).body as ProtocolView;
      await lead.post(path('/publish'), { edition: saved.draft?.edition }).expect(200);
    };

    it('shows each what would change, moves those chosen, and leaves the plan they have', async () => {
      const { episodeId, plan } = await treated(who);
      const stands = await treated(who);
      expect(await of(episodeId)).toMatchObject({
        current: true,
        version: expect.stringMatching(/^shipped /),
      });
      await withoutFirst(plan.stage);
      const before = await of(episodeId);
      expect(before).toMatchObject({ current: false, stays: null });
      expect((before?.gone.length ?? 0) > 0).toBe(true);
      const after = (await who.post(path('/move'), { episodes: [episodeId] }).expect(200))
        .body as PersonOnProtocol[];
      expect(after.find((p) => p.episodeId === episodeId)).toMatchObject({
        current: true,
        version: expect.stringMatching(/^ours /),
      });
      expect(after.find((p) => p.episodeId === stands.episodeId)?.current).toBe(false);
      const view = (await who.get(`/api/episodes/${episodeId}`).expect(200)).body as EpisodeView;
      expect(view.protocol).toBe(`clinic-${KEY}`);
      expect(view.plan?.items.map((i) => i.exercise)).toEqual(plan.items.map((i) => i.exercise));
      expect(Object.keys(view.schools).sort()).toEqual(
        (await protocol()).shipped.schools.map((q) => q.key).sort(),
      );
    });

    it('moves nobody whose stage is no more, who has a draft open, or who is treated by something else', async () => {
      const { episodeId, plan } = await treated(who);
      const drafted = await treated(who);
      await who
        .post(`/api/episodes/${drafted.episodeId}/plans`, {
          id: randomUUID(),
          stage: plan.stage,
          from: 'stage',
        })
        .expect(201);
      const made = (await who.get(path('/file')).expect(200)).body as {
        protocol: { stages: { key: string }[]; unableAt: unknown };
      };
      for (const s of made.protocol.stages) if (s.key === plan.stage) s.key = 'otherwise';
      made.protocol.unableAt = null;
      const saved = (await save(who, { edition: await edition(), file: made })).body as ProtocolView;
      await lead.post(path('/publish'), { edition: saved.draft?.edition }).expect(200);
      expect((await of(episodeId))?.stays).toMatch(/which is no more/);
      const elsewhere = await addEpisode(who, (await addPerson(who)).id);
      await who
        .patch(`/api/episodes/${elsewhere.id}`, { version: elsewhere.version, condition: 'calf-tear' })
        .expect(200);
      const refused = await who.post(path('/move'), { episodes: [episodeId, elsewhere.id] }).expect(400);
      expect(refused.body.errors.map((e: { pointer: string }) => e.pointer)).toEqual([
        '/episodes/0',
        '/episodes/1',
      ]);
      await lead.post(path('/withdraw')).expect(200);
      await publish(12);
      expect((await of(drafted.episodeId))?.stays).toMatch(/draft of a plan open/);
      await who.post(path('/move'), { episodes: [episodeId, drafted.episodeId] }).expect(400);
      expect((await of(episodeId))?.current).toBe(false);
    });

    it('is done by no assistant, and to nobody of another clinic', async () => {
      const { episodeId } = await treated(who);
      await publish(15);
      await (await world.as(0, 'assistant')).post(path('/move'), { episodes: [episodeId] }).expect(403);
      await other.post(path('/move'), { episodes: [episodeId] }).expect(400);
      await who.post(path('/move'), { episodes: [] }).expect(400);
      expect((await of(episodeId))?.current).toBe(false);
    });
  });
});
