import { randomUUID } from 'node:crypto';
import { gunzipSync, gzipSync } from 'node:zlib';
import type { CaptureView } from '@heathstep/contracts';
import { CAPTURE, inWorld, keepCapture, packedCapture, treated } from './harness.js';
import { wordsOf } from './pdf.js';

describe('captures of the lab', () => {
  const { world, who } = inWorld();
  let episodeId = '';
  beforeAll(async () => {
    ({ episodeId } = await treated(who));
  });

  const put = (id: string, query: string, bytes: Buffer) =>
    who
      .put(`/api/episodes/${episodeId}/captures/${id}?${query}`)
      .type('application/octet-stream')
      .send(bytes);

  it('are kept whole and given back as they were sent', async () => {
    const id = randomUUID();
    const bytes = packedCapture();
    const { body } = await put(id, `${CAPTURE}&factor=1.05`, bytes).expect(200);
    expect((body as CaptureView[])[0]).toMatchObject({
      id,
      kind: 'pressure-mat',
      task: 'stance',
      side: 'both',
      wearing: 'barefoot',
      from: 'device',
      massKg: 70,
      factor: 1.05,
      simulated: true,
      device: 'Simulated pressure mat',
    });
    expect((body as CaptureView[])[0]?.seconds).toBeCloseTo(0.99, 5);
    const back = await who.get(`/api/captures/${id}/recording`).expect(200);
    expect(back.headers['content-encoding']).toBe('gzip');
    expect(back.body).toEqual(JSON.parse(gunzipSync(bytes).toString()));
  });

  it('are kept once however often they are sent, and another under the same id is a conflict', async () => {
    const id = randomUUID();
    const bytes = packedCapture(0.8);
    await put(id, CAPTURE, bytes).expect(200);
    const again = (await put(id, CAPTURE, bytes).expect(200)).body as CaptureView[];
    expect(again.filter((c) => c.id === id)).toHaveLength(1);
    await put(id, CAPTURE, packedCapture(0.6)).expect(409);
    await put(id, CAPTURE.replace('stance', 'squat'), bytes).expect(409);
  });

  it('are put aside and taken back, and their readings stay', async () => {
    const id = await keepCapture(world, episodeId);
    const listed = (list: unknown) => (list as CaptureView[]).some((c) => c.id === id);
    expect(listed((await who.del(`/api/captures/${id}`).expect(200)).body)).toBe(false);
    expect(listed((await who.get(`/api/episodes/${episodeId}/captures`).expect(200)).body)).toBe(false);
    await who.get(`/api/captures/${id}/recording`).expect(200);
    expect(listed((await who.post(`/api/captures/${id}/keep`, {}).expect(200)).body)).toBe(true);
  });

  it.each([
    ['not packed', CAPTURE, () => Buffer.from('{"format"'), '/recording'],
    ['packed, but cut off', CAPTURE, () => packedCapture().subarray(0, 900), '/recording'],
    ['no recording', CAPTURE, () => gzipSync('date,weight\n1,2\n'), '/recording'],
    [
      'a task the instrument knows nothing of',
      CAPTURE.replace('stance', 'hop'),
      () => packedCapture(),
      '/task',
    ],
    ['an unknown side', CAPTURE.replace('both', 'middle'), () => packedCapture(), '/side'],
    [
      'something unknown on the foot',
      CAPTURE.replace('barefoot', 'skates'),
      () => packedCapture(),
      '/wearing',
    ],
    ['a mass that is none', CAPTURE.replace('mass=70', 'mass=lots'), () => packedCapture(), '/mass'],
  ])('%s: is refused by its field', async (_, query, bytes, pointer) => {
    const { body } = await put(randomUUID(), query, bytes()).expect(400);
    expect((body as { errors: { pointer: string }[] }).errors.map((e) => e.pointer)).toContain(pointer);
  });

  it('tell the line that is not taken', async () => {
    const text = gunzipSync(packedCapture()).toString().replace('{"t":0.05,', '{"t":0.01,');
    const { body } = await put(randomUUID(), CAPTURE, gzipSync(text)).expect(400);
    expect(JSON.stringify(body)).toContain('line 7: the time does not grow');
  });

  it('longer than is kept, or blown up by packing, are refused', async () => {
    const line = (i: number) => `{"t":${i / 10},"runs":[]},`;
    const head =
      gunzipSync(packedCapture()).toString().split('\n')[0]?.replace('"rateHz":100', '"rateHz":10') ?? '';
    const long = [head, ...Array.from({ length: 700 }, (_, i) => line(i)), ']}', ''].join('\n');
    expect(JSON.stringify((await put(randomUUID(), CAPTURE, gzipSync(long)).expect(400)).body)).toContain(
      '60 s',
    );
    const blown = gzipSync(Buffer.alloc(170_000_000, ' '));
    expect(blown.length).toBeLessThan(1_000_000);
    await put(randomUUID(), CAPTURE, blown).expect(400);
  });

  it('are a page of their own, in words and numbers', async () => {
    const id = await keepCapture(world, episodeId);
    const { body } = await who.get(`/api/captures/${id}/page.pdf`).responseType('blob').expect(200);
    const text = wordsOf(body as Buffer);
    expect(text).toContain('Foot lab: stance');
    expect(text).toContain('Share of the weight');
    expect(text).toContain('made-up');
  });
});
