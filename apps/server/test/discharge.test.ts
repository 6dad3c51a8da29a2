import { randomUUID } from 'node:crypto';
import type {
  CourseView,
  DayItem,
  EpisodeView,
  LetterContent,
  PersonRow,
  PlanView,
} from '@heathstep/contracts';
import {
  addEpisode,
  cookieOf,
  inWorld,
  measured,
  openVisit,
  safetyEntries,
  treated,
  withCookie,
} from './harness.js';

import { readBy, wordsOf } from './pdf.js';

describe('closing a complaint, its letter, and what comes back', () => {
  const { world, who } = inWorld();

  const view = async (id: string) => (await who.get(`/api/episodes/${id}`).expect(200)).body as EpisodeView;
  const patch = async (id: string, change: object) =>
    who.patch(`/api/episodes/${id}`, { version: (await view(id)).version, ...change });
  const close = async (id: string) =>
    expect(
      (await patch(id, { status: 'closed', outcome: 'goals-reached', note: 'Walks the moor.' })).status,
    ).toBe(200);
  const rowOf = async (episodeId: string) =>
    ((await who.get('/api/day').expect(200)).body.items as DayItem[]).find((i) => i.episodeId === episodeId);
  const draft = (id: string, stage: string) =>
    who.post(`/api/episodes/${id}/plans`, { id: randomUUID(), stage, from: 'stage' });

  it('says where it begins again, before it is opened', async () => {
    const { person, episodeId } = await treated(who);
    const before = (await who.get(`/api/people/${person.id}`).expect(200)).body as PersonRow;
    expect(before.episodes[0]?.again).toBeNull();
    await close(episodeId);
    const after = (await who.get(`/api/people/${person.id}`).expect(200)).body as PersonRow;
    expect(after.episodes[0]?.again).toMatchObject({
      stageName: 'Calm and lengthen',
      text: expect.stringMatching(/stage before/),
    });
  });

  it('that came back stands on nothing given before: no plan, no paper, no exercises at home, until it is seen', async () => {
    const { episodeId, person, visitId } = await treated(who);
    // A second complaint keeps the page at home open, which must not show what is over.
    const second = await addEpisode(who, person.id, 'right');
    await close(episodeId);
    expect((await patch(episodeId, { status: 'open' })).body.errors).toEqual([
      { pointer: '/reopened', detail: 'Say why it is opened again' },
    ]);
    const open = await patch(episodeId, { status: 'open', reopened: 'came-back' });
    expect(open.body).toMatchObject({ status: 'open', stage: 'calm', plan: null, draft: null });
    expect((open.body as EpisodeView).stages.at(-1)).toMatchObject({ stage: 'calm', reason: 'came back' });
    await who.get(`/api/episodes/${episodeId}/handout`).expect(422);
    const elsewhere = (await view(second.id)).elsewhere.find((c) => c.episodeId === episodeId);
    expect(elsewhere?.plan).toBeNull();
    const refused = await draft(episodeId, 'calm').expect(422);
    expect(JSON.stringify(refused.body)).toMatch(/It came back on \d{4}-\d\d-\d\d: /);
    expect(await rowOf(episodeId)).toMatchObject({ kind: 'new', headline: 'It came back' });
    expect(((await who.get(`/api/episodes/${episodeId}/course`)).body as CourseView).review).toBeNull();

    // The visit that stood open when it was closed asks nothing anew.
    const again = await openVisit(who, episodeId);
    expect(again.id).toBe(visitId);
    const still = await draft(episodeId, 'calm').expect(422);
    expect(JSON.stringify(still.body)).toMatch(/sign the visit that was open before/);
    await who.post(`/api/visits/${visitId}/sign`, {}).expect(200);
    const visit = await openVisit(who, episodeId);
    await draft(episodeId, 'calm').expect(422);
    await who
      .put(`/api/visits/${visit.id}/entries`, {
        entries: [...safetyEntries(), ...measured('first-step-pain', [6], [0])],
      })
      .expect(200);
    const plan = (await draft(episodeId, 'calm').expect(201)).body as PlanView;
    await who.post(`/api/plans/${plan.id}/give`, { version: plan.version }).expect(200);
    expect((await view(episodeId)).plan).toMatchObject({ id: plan.id, stage: 'calm' });
    expect(((await who.get(`/api/episodes/${episodeId}/course`)).body as CourseView).review).not.toBeNull();
  });

  it('shows no exercise of before on the phone of someone with another complaint', async () => {
    const { episodeId, person } = await treated(who);
    const second = await addEpisode(who, person.id, 'right');
    const visit = await openVisit(who, second.id);
    await who.put(`/api/visits/${visit.id}/entries`, { entries: safetyEntries() }).expect(200);
    const other = (await draft(second.id, 'calm').expect(201)).body as PlanView;
    await who.post(`/api/plans/${other.id}/give`, { version: other.version }).expect(200);
    await close(episodeId);
    const link = (await who.post(`/api/episodes/${second.id}/home-link`).expect(201)).body;
    const phone = withCookie(
      world,
      cookieOf(await world.anonymous.post('/api/home/session', { token: link.token, code: link.code })),
    );
    await patch(episodeId, { status: 'open', reopened: 'came-back' });
    const today = (await phone.get(`/api/home/today?episode=${episodeId}`).expect(200)).body;
    expect(today).toMatchObject({ items: [] });
  });

  it('that was closed too early goes on as it was', async () => {
    const { episodeId, plan } = await treated(who);
    await close(episodeId);
    const open = await patch(episodeId, { status: 'open', reopened: 'closed-too-early' });
    expect(open.body).toMatchObject({ stage: 'build', plan: { id: plan.id }, cameBackAt: null });
    expect((await patch(episodeId, { reopened: 'came-back' })).status).toBe(400);
    expect((await patch(episodeId, { status: 'open', reopened: 'came-back' })).status).toBe(422);
  });

  it('is not taken up as it was after four weeks: then it came back', async () => {
    const { episodeId } = await treated(who);
    await close(episodeId);
    const closedAgo = (days: number) =>
      world.owner.query(`UPDATE episode SET ended_at = now() - $2 * interval '1 day' WHERE id = $1`, [
        episodeId,
        days,
      ]);
    await closedAgo(29);
    const refused = await patch(episodeId, { status: 'open', reopened: 'closed-too-early' });
    expect(refused.body.errors[0]).toMatchObject({
      pointer: '/reopened',
      detail: expect.stringMatching(/28 days/),
    });
    await closedAgo(27);
    expect((await patch(episodeId, { status: 'open', reopened: 'closed-too-early' })).status).toBe(200);
  });

  it('is opened again by no assistant', async () => {
    const { episodeId } = await treated(who);
    await close(episodeId);
    const assistant = await world.as(0, 'assistant');
    const { version } = await view(episodeId);
    await assistant
      .patch(`/api/episodes/${episodeId}`, { version, status: 'open', reopened: 'came-back' })
      .expect(403);
    await assistant.get(`/api/episodes/${episodeId}/letter`).expect(403);
  });

  it('ends upkeep by nobody but the clinic: the day says when it has lasted its time', async () => {
    const { episodeId } = await treated(who);
    const since = (weeks: number) =>
      world.owner.query(
        `UPDATE episode SET stage = 'upkeep', stage_since = now() - $2 * interval '7 days' WHERE id = $1`,
        [episodeId, weeks],
      );
    await since(20);
    const running = (await who.get(`/api/episodes/${episodeId}/course`).expect(200)).body as CourseView;
    expect(running.upkeep).toMatchObject({
      state: 'goes-on',
      against: [expect.stringMatching(/nothing logged/)],
    });
    await since(27);
    expect(await rowOf(episodeId)).toMatchObject({
      kind: 'upkeep-over',
      detail: expect.stringMatching(/nothing logged for 14 days/),
    });
  });

  describe('the letter', () => {
    const letter = async (id: string) =>
      (await who.get(`/api/episodes/${id}/letter`).expect(200)).body as LetterContent;

    it('tells from first to last with the error, what goes on, and what to do when it comes back', async () => {
      const { episodeId, visitId } = await treated(who, {}, 'Øda Brook');
      await world.owner.query(`UPDATE visit SET started_at = now() - interval '40 days' WHERE id = $1`, [
        visitId,
      ]);
      await who.post(`/api/visits/${visitId}/sign`, {}).expect(200);
      const review = await openVisit(who, episodeId);
      await who
        .put(`/api/visits/${review.id}/entries`, {
          entries: [
            ...safetyEntries(),
            ...measured('first-step-pain', [1], [0]),
            ...measured('single-leg-heel-raise', [17], [18]),
          ],
        })
        .expect(200);
      await close(episodeId);
      const told = await letter(episodeId);
      expect(told).toMatchObject({
        title: 'Discharge',
        person: expect.stringMatching(/Øda Brook/),
        open: [],
      });
      expect(told.about.find((a) => a.label === 'Ended')?.text).toMatch(
        /^goals reached, by .+\. Walks the moor\.$/,
      );
      const raises = told.rows.find((r) => r.measure === 'Single-leg heel raise');
      expect(raises).toMatchObject({ side: 'left', direction: 'better', change: '+9, better, real' });
      expect(raises?.other).toMatch(/^18 /);
      expect(told.charts.map((c) => c.svg.slice(0, 4))).toEqual(['<svg']);
      expect(told.parts.find((p) => p.title === 'Goes on at home')?.lines.length).toBeGreaterThan(0);

      const bytes = (
        await who
          .get(`/api/episodes/${episodeId}/letter.pdf`)
          .buffer(true)
          .parse((response, done) => {
            const parts: Buffer[] = [];
            response.on('data', (part: Buffer) => parts.push(part));
            response.on('end', () => done(null, Buffer.concat(parts)));
          })
          .expect(200)
      ).body as Buffer;
      expect(readBy('pdfinfo', bytes)).toMatch(/Pages:\s+1\n/);
      const words = wordsOf(bytes);
      for (const text of [
        'Discharge',
        'Øda Brook',
        'Single-leg heel raise',
        '+9, better, real',
        'If it comes back',
      ])
        expect(words).toContain(text);
    });

    it('tells no exercise as going on that safety has taken away since', async () => {
      const { episodeId, visitId, plan } = await treated(who);
      const goesOn = async () =>
        (await letter(episodeId)).parts.find((p) => p.title === 'Goes on at home')?.lines.length ?? 0;
      expect(await goesOn()).toBe(plan.items.length);
      const key = 'safety.spasticity';
      await who
        .put(`/api/visits/${visitId}/entries`, {
          entries: [{ id: randomUUID(), key, baseVersion: 1, value: 'yes' }],
        })
        .expect(200);
      expect(await goesOn()).toBeLessThan(plan.items.length);
    });

    it('of one who goes on begins with the signs that are open, and gives nothing past them', async () => {
      const { episodeId, visitId } = await treated(who);
      await who
        .put(`/api/visits/${visitId}/entries`, {
          entries: [
            { id: randomUUID(), key: 'safety.calf-swollen', baseVersion: 1, value: 'left' },
            { id: randomUUID(), key: 'safety.calf-warm', baseVersion: 1, value: 'left' },
          ],
        })
        .expect(200);
      const told = await letter(episodeId);
      expect(told.title).toBe('How it goes');
      expect(told.open[0]).toMatch(/clot/i);
      expect(told.parts.map((p) => p.title)).not.toContain('Goes on at home');
    });
  });
});
