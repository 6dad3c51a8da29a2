import { randomUUID } from 'node:crypto';
import type { CourseView, EpisodeView, PlanView, ProtocolRow, ProtocolView } from '@heathstep/contracts';
import {
  addEpisode,
  addPerson,
  type Caller,
  inWorld,
  measured,
  openVisit,
  safetyEntries,
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
});
