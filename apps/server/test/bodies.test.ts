import { randomUUID } from 'node:crypto';
import type { Caller } from './harness.js';
import { addEpisode, addPerson, entry, inWorld, openVisit } from './harness.js';

describe('what could never be kept', () => {
  const { who } = inWorld();
  const visit = async (): Promise<string> => {
    const episode = await addEpisode(who, (await addPerson(who)).id);
    return (await openVisit(who, episode.id)).id;
  };
  const put = (caller: Caller, id: string, entries: readonly object[]) =>
    caller.put(`/api/visits/${id}/entries`, { entries });

  it('is refused by its pointer, and the rest of the batch can be sent without it', async () => {
    const id = await visit();
    const bad = entry('note.story', 'pasted\u0000text');
    const good = entry('story.worst', 4);
    const refused = await put(who, id, [good, bad]).expect(400);
    expect(refused.body.errors).toEqual([
      { pointer: '/entries/1/value', detail: expect.stringContaining('plain text') },
    ]);
    await put(who, id, [good]).expect(200);
    await put(who, id, [entry('note.story', 'half \ud83d')]).expect(400);
    await put(who, id, [entry('note.story', 'whole \ud83e\uddb6')]).expect(200);
  });

  it('is refused in a name, a search and an address, never answered with a failure of ours', async () => {
    await who
      .post('/api/people', { id: randomUUID(), name: 'A\u0000', birthDate: null, occupation: '' })
      .expect(400);
    await who.get('/api/people?q=%00').expect(400);
    await who.get('/api/people/%00').expect(400);
    await who.get('/api/people/%E0%A4%A').expect(400);
  });

  it.each([
    [100, 'is nested deeper than 32'],
    [5000, undefined],
  ])('is refused when it is nested %d deep', async (depth, told) => {
    const id = await visit();
    let value: unknown = 1;
    for (let i = 0; i < depth; i += 1) value = [value];
    const refused = await put(who, id, [entry('note.story', value)]).expect(400);
    if (told !== undefined) expect(refused.body.errors).toEqual([{ pointer: '', detail: told }]);
  });
});
