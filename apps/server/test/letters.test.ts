import { randomUUID } from 'node:crypto';
import type { LetterPageView, LettersView, LetterTemplateView } from '@heathstep/contracts';
import type { LetterKind } from '@heathstep/core';
import { addDays } from '@heathstep/core';
import { entry, inWorld, today, treated } from './harness.js';
import { wordsOf } from './pdf.js';

describe('letters of a complaint', () => {
  const { world, who } = inWorld();

  const begin = async (episodeId: string, kind: LetterKind = 'progress', id: string = randomUUID()) =>
    (await who.post(`/api/episodes/${episodeId}/letters`, { id, kind }).expect(201)).body as LetterPageView;
  const write = (page: LetterPageView, change: object) =>
    who.put(`/api/letters/${page.letter.id}`, { version: page.letter.version, ...page.text, ...change });
  const sent = (page: LetterPageView, change: object = {}) =>
    who.post(`/api/letters/${page.letter.id}/sent`, {
      version: page.letter.version,
      mark: page.mark,
      way: 'post',
      on: today(),
      ...change,
    });
  const addressed = async (page: LetterPageView) =>
    (await write(page, { to: 'Dr Ada Quill\nMill Lane' }).expect(200)).body as LetterPageView;
  const list = async (episodeId: string) =>
    (await who.get(`/api/episodes/${episodeId}/letters`).expect(200)).body as LettersView;
  const end = async (episodeId: string) => {
    const { version } = (await who.get(`/api/episodes/${episodeId}`).expect(200)).body as { version: number };
    await who
      .patch(`/api/episodes/${episodeId}`, { version, status: 'closed', outcome: 'goals-reached', note: '' })
      .expect(200);
  };

  it('is begun from the text of the clinic with its gaps filled, once however often it is asked for', async () => {
    const { episodeId, person } = await treated(who);
    const id = randomUUID();
    const page = await begin(episodeId, 'progress', id);
    expect(page.text.opening).toContain(`We treat ${person.name}, born`);
    expect(page.text.opening + page.text.closing).not.toMatch(/\{\{/);
    expect(page.text.closing).toContain('01632 960 000');
    await begin(episodeId, 'progress', id);
    expect((await list(episodeId)).letters).toHaveLength(1);
    await who.post(`/api/episodes/${episodeId}/letters`, { id, kind: 'referral' }).expect(409);
  });

  it('tells of an end only where there is one, and of how it goes only while it goes', async () => {
    const { episodeId } = await treated(who);
    expect((await list(episodeId)).open).toMatchObject({ referral: null, progress: null });
    await who.post(`/api/episodes/${episodeId}/letters`, { id: randomUUID(), kind: 'discharge' }).expect(422);
    const draft = await addressed(await begin(episodeId));
    await end(episodeId);
    expect((await list(episodeId)).open).toMatchObject({ discharge: null, progress: expect.any(String) });
    const now = (await who.get(`/api/letters/${draft.letter.id}`).expect(200)).body as LetterPageView;
    expect(now.not).toMatch(/has ended/);
    await sent(now).expect(422);
  });

  it('goes to someone, with every gap filled, on a day that was, in a way that is told', async () => {
    const { episodeId } = await treated(who);
    const page = await begin(episodeId);
    expect((await sent(page).expect(422)).body.detail).toBe('Write to whom it goes');
    const gap = (await write(page, { to: 'Dr Quill', opening: 'Dear {{doctor}}' }).expect(200))
      .body as LetterPageView;
    expect((await sent(gap).expect(422)).body.detail).toBe('Nothing has filled {{doctor}} yet');
    const whole = (await write(gap, { to: 'Dr Quill', opening: 'Dear Dr Quill' }).expect(200))
      .body as LetterPageView;
    for (const [change, pointer] of [
      [{ on: addDays(today(), 1) }, '/on'],
      [{ on: addDays(today(), -1) }, '/on'],
      [{ on: '2026-02-30' }, '/on'],
      [{ way: 'owl' }, '/way'],
    ] as const)
      expect((await sent(whole, change).expect(400)).body.errors).toMatchObject([{ pointer }]);
    const gone = (await sent(whole).expect(200)).body as LetterPageView;
    expect(gone.letter.sent).toEqual({ on: today(), way: 'post', by: 'clinician 0' });
    // Said twice, it is noted once; said otherwise, it is refused.
    await sent(whole).expect(200);
    await sent(whole, { way: 'fax' }).expect(422);
  });

  it('that went out stays as it was read, whatever is measured, written or done to it since', async () => {
    const { episodeId, visitId } = await treated(who);
    const page = await addressed(await begin(episodeId));
    const gone = (await sent(page).expect(200)).body as LetterPageView;
    await who
      .put(`/api/visits/${visitId}/entries`, { entries: [entry('safety.calf-swollen', 'both', 1)] })
      .expect(200);
    const later = (await who.get(`/api/letters/${page.letter.id}`).expect(200)).body as LetterPageView;
    expect(later.content).toEqual(gone.content);
    await write(gone, { to: 'Someone else' }).expect(422);
    await who.del(`/api/letters/${page.letter.id}`).expect(422);
    await expect(
      world.owner.query(`UPDATE letter SET text = '{}' WHERE id = $1`, [page.letter.id]),
    ).rejects.toThrow('stays as it is');
  });

  it('does not go out with what nobody read: what was recorded since is shown first', async () => {
    const { episodeId, visitId } = await treated(who);
    const page = await addressed(await begin(episodeId, 'referral'));
    expect(page.content.open).toEqual([]);
    await who
      .put(`/api/visits/${visitId}/entries`, { entries: [entry('safety.calf-swollen', 'both', 1)] })
      .expect(200);
    const now = (await who.get(`/api/letters/${page.letter.id}`).expect(200)).body as LetterPageView;
    expect(now.content.open.length).toBeGreaterThan(0);
    const refused = await sent(page).expect(409);
    expect((refused.body.current as LetterPageView).content.open).toEqual(now.content.open);
    // Open signs cannot be chosen away.
    const bare = (await write(now, { shows: [] }).expect(200)).body as LetterPageView;
    const gone = (await sent(bare).expect(200)).body as LetterPageView;
    expect(gone.content).toMatchObject({ rows: [], charts: [], parts: [], open: now.content.open });
  });

  it('is set as a PDF that another program reads: to whom, what was written, what was measured', async () => {
    const { episodeId } = await treated(who);
    const page = (
      await write(await begin(episodeId), {
        to: 'Dr Ada Quill',
        opening: 'Dear Ada,\n\nHe walks again.',
      }).expect(200)
    ).body as LetterPageView;
    const { body } = await who
      .get(`/api/letters/${page.letter.id}/letter.pdf`)
      .buffer(true)
      .responseType('blob')
      .expect(200);
    const words = wordsOf(body as Buffer);
    for (const said of ['Dr Ada Quill', 'He walks again.', page.content.person, 'How it goes'])
      expect(words).toContain(said);
  });

  it('is thrown away as a draft and taken back as it was; two who write at once do not overwrite each other', async () => {
    const { episodeId } = await treated(who);
    const page = await begin(episodeId);
    const mine = (await write(page, { to: 'Dr Quill' }).expect(200)).body as LetterPageView;
    const late = await write(page, { to: 'Dr Moss' }).expect(409);
    expect((late.body.current as LetterPageView).text.to).toBe('Dr Quill');
    await who.del(`/api/letters/${page.letter.id}`).expect(204);
    expect((await list(episodeId)).letters).toEqual([]);
    await write(mine, { to: 'Dr Moss' }).expect(422);
    const back = (await who.post(`/api/letters/${page.letter.id}/back`, {}).expect(200))
      .body as LetterPageView;
    expect(back.text).toEqual(mine.text);
  });

  it('is refused by its field where it is no letter', async () => {
    const page = await begin((await treated(who)).episodeId);
    for (const [change, pointer] of [
      [{ shows: ['everything'] }, '/shows'],
      [{ shows: ['course', 'course'] }, '/shows'],
      [{ opening: 'x'.repeat(6001) }, '/opening'],
      [{ to: null }, '/to'],
      [{ version: 0 }, '/version'],
    ] as const)
      expect((await write(page, change).expect(400)).body.errors).toMatchObject([{ pointer }]);
  });

  it('begins with what a lead of the clinic wrote, from then on', async () => {
    const lead = await world.as(0, 'lead');
    const { episodeId } = await treated(who);
    const before = await begin(episodeId, 'referral');
    const templates = (await who.get('/api/clinic/letters').expect(200)).body as LetterTemplateView[];
    expect(templates.map((t) => [t.letter, t.version])).toEqual([
      ['referral', 0],
      ['progress', 0],
      ['discharge', 0],
    ]);
    const own = {
      version: 0,
      opening: 'To whom it may concern: {{ person }}.',
      closing: '{{author}}',
      shows: ['course'],
    };
    expect(
      (await lead.put('/api/clinic/letters/referral', { ...own, opening: '{{nme}}' }).expect(400)).body
        .errors,
    ).toEqual([{ pointer: '/opening', detail: 'Nothing fills {{nme}}' }]);
    await lead.put('/api/clinic/letters/referral', own).expect(200);
    await lead.put('/api/clinic/letters/referral', own).expect(409);
    const after = await begin(episodeId, 'referral');
    expect(after.text).toMatchObject({ closing: 'clinician 0', shows: ['course'] });
    expect(after.text.opening).toMatch(/^To whom it may concern: \w/);
    const still = (await who.get(`/api/letters/${before.letter.id}`).expect(200)).body as LetterPageView;
    expect(still.text).toEqual(before.text);
  });
});
