import { randomUUID } from 'node:crypto';
import type { EpisodeView, HomeView, PlanView } from '@heathstep/contracts';
import { addEpisode, entry, inWorld, openAtHome, openVisit, safetyEntries, treated } from './harness.js';

const WORDS = 'Only with someone beside you';

describe('what is done only with someone beside', () => {
  const { world, who } = inWorld();
  const view = async (id: string) => (await who.get(`/api/episodes/${id}`).expect(200)).body as EpisodeView;

  /** Someone with exercises standing at home, of whom spasticity is told afterwards. */
  async function toldLater() {
    const made = await treated(who);
    const phone = await openAtHome(world, who, made.episodeId);
    const standing = made.plan.items.filter((i) => i.exercise.startsWith('raise'));
    expect(standing.length).toBeGreaterThan(0);
    await who
      .put(`/api/visits/${made.visitId}/entries`, { entries: [entry('safety.spasticity', 'yes', 1)] })
      .expect(200);
    return { ...made, phone, standing: standing.map((i) => i.exercise) };
  }
  const atHome = async (phone: Awaited<ReturnType<typeof openAtHome>>) =>
    ((await phone.get('/api/home/today').expect(200)).body as HomeView).items;

  it('goes from the phone once safety asks for it, and comes back when someone is said to be there', async () => {
    const { episodeId, phone, standing } = await toldLater();
    const named = (items: HomeView['items']) => items.map((i) => i.exercise.key);
    for (const exercise of standing) expect(named(await atHome(phone))).not.toContain(exercise);

    const draft = (
      await who
        .post(`/api/episodes/${episodeId}/plans`, { id: randomUUID(), stage: 'build', from: 'current' })
        .expect(201)
    ).body as PlanView;
    expect(draft.items.map((i) => i.exercise)).toEqual(expect.not.arrayContaining(standing));
    expect(draft.left.find((l) => l.exercise === standing[0])?.why).toMatch(/^only with someone beside/);

    const [item] = (await view(episodeId)).plan?.items.filter((i) => i.exercise === standing[0]) ?? [];
    const put = (beside: unknown) =>
      who.put(`/api/plans/${draft.id}`, {
        version: draft.version,
        items: [...draft.items, { ...item, ...(beside === undefined ? {} : { beside }) }],
      });
    const refused = await put(undefined).expect(400);
    expect(refused.body.errors).toEqual([
      {
        pointer: `/items/${draft.items.length}/beside`,
        detail: expect.stringMatching(/someone is beside/),
      },
    ]);
    await put('perhaps').expect(400);
    await put(false).expect(400);
    const saved = (await put(true).expect(200)).body as PlanView;
    await who.post(`/api/plans/${draft.id}/give`, { version: saved.version }).expect(200);
    const back = (await atHome(phone)).find((i) => i.exercise.key === standing[0]);
    expect(back?.exercise.steps[0]).toBe(WORDS);
    const { text } = await who.get(`/api/episodes/${episodeId}/handout.txt`).expect(200);
    expect(text).toContain(WORDS);
  });

  it('is asked by any open complaint of the person, whichever was told of it', async () => {
    const { person, standing } = await toldLater();
    const second = await addEpisode(who, person.id, 'right');
    const visit = await openVisit(who, second.id);
    await who.put(`/api/visits/${visit.id}/entries`, { entries: safetyEntries() }).expect(200);
    const { supervised } = await view(second.id);
    expect(supervised.right).toContain('weight-bearing');
    const draft = (
      await who
        .post(`/api/episodes/${second.id}/plans`, { id: randomUUID(), stage: 'build', from: 'stage' })
        .expect(201)
    ).body as PlanView;
    expect(draft.items.map((i) => i.exercise)).toEqual(expect.not.arrayContaining(standing));
  });
});
