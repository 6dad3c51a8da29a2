import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { createServer, type RequestListener, type Server } from 'node:http';
import { type AddressInfo, connect } from 'node:net';
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

describe('a large body', () => {
  const { world, who } = inWorld();

  let server: Server;
  beforeAll(async () => {
    server = createServer(world.app.getHttpAdapter().getInstance() as RequestListener);
    server.listen(0, '127.0.0.1');
    await once(server, 'listening');
  });
  afterAll(() => server.close());

  /** What is answered to the head of a request alone: not a byte of its body is sent. */
  const answerToHead = async (path: string, headers: readonly string[]): Promise<string> => {
    const { port } = server.address() as AddressInfo;
    const socket = connect(port, '127.0.0.1');
    await once(socket, 'connect');
    let said = '';
    socket.on('data', (data) => (said += String(data)));
    socket.write([`PUT ${path} HTTP/1.1`, `Host: 127.0.0.1:${port}`, ...headers, '', ''].join('\r\n'));
    await once(socket, 'close');
    return said;
  };

  it.each([['Content-Length: 9000000'], ['Transfer-Encoding: chunked']])(
    'of someone who is not signed in is not read: %s',
    async (length) => {
      const path = `/api/visits/${randomUUID()}/photos/${randomUUID()}?measure=hallux-angle&side=left`;
      for (const cookie of ['Cookie: a=b', 'Cookie: heathstep_session=guessed; heathstep_home=guessed']) {
        const said = await answerToHead(path, ['Content-Type: application/octet-stream', length, cookie]);
        expect(said).toMatch(/^HTTP\/1\.1 401 /);
        expect(said).toMatch(/connection: close/i);
      }
    },
  );

  it('of someone who is signed in is taken, and a small one is read to answer by its fields', async () => {
    const text = 'x'.repeat(30_000);
    const id = (await openVisit(who, (await addEpisode(who, (await addPerson(who)).id)).id)).id;
    const told = await who.put(`/api/visits/${id}/entries`, { entries: [entry('note.story', text)] });
    expect([400, 200]).toContain(told.status);
    await world.anonymous.post('/api/session', { email: 'no address', password: '' }).expect(400);
  });
});
