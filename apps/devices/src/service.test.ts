import { WebSocket } from 'ws';
import { parseFrame } from '@heathstep/core';
import { collector, liveReader } from '@heathstep/core/lab';
import { type DeviceService, startDevices, truthOf } from './service.js';

/** Everything a device says until it has said enough, is cut, or refuses. */
function listen(
  service: DeviceService,
  path: string,
  options: { origin?: string; say?: string[]; enough?: number } = {},
): Promise<{ lines: string[]; opened: boolean; closed: boolean }> {
  return new Promise((resolve) => {
    const ws = new WebSocket(`ws://127.0.0.1:${service.port}${path}`, {
      ...(options.origin === undefined ? {} : { origin: options.origin }),
    });
    const lines: string[] = [];
    let opened = false;
    const end = (closed: boolean) => {
      ws.terminate();
      resolve({ lines, opened, closed });
    };
    ws.on('open', () => {
      opened = true;
      for (const message of options.say ?? []) ws.send(message);
    });
    ws.on('message', (data) => {
      lines.push(...(data as Buffer).toString().trim().split('\n'));
      if (lines.length >= (options.enough ?? 12)) end(false);
    });
    ws.on('error', () => undefined);
    ws.on('close', () => end(true));
  });
}

describe('the device service', () => {
  let service: DeviceService;
  beforeAll(async () => {
    service = await startDevices(0);
  });
  afterAll(() => service.stop());

  it.each(['inclinometer', 'dynamometer', 'thermometer'] as const)(
    'a %s says hello and then samples whose time grows',
    async (kind) => {
      const { lines } = await listen(service, `/${kind}`, { enough: 6 });
      const frames = lines.map(parseFrame);
      expect(frames[0]).toMatchObject({ type: 'hello', kind, simulated: true });
      const times = frames.slice(1).map((f) => (f.type === 'sample' ? f.t : -1));
      expect([...times].sort((a, b) => a - b)).toEqual(times);
      expect(Math.min(...times)).toBeGreaterThanOrEqual(0);
    },
  );

  it('starts anew with a hello where the bench aims', async () => {
    const aim = JSON.stringify({ type: 'aim', measure: 'lunge-knee-bent', side: 'left' });
    const { lines } = await listen(service, '/inclinometer', { say: [aim], enough: 10 });
    expect(lines.map(parseFrame).filter((f) => f.type === 'hello')).toHaveLength(2);
  });

  it('plays the mistakes it is asked for, a cut among them', async () => {
    const cut = JSON.stringify({ type: 'mistakes', mistakes: ['cut'] });
    const { closed } = await listen(service, '/dynamometer', { say: [cut], enough: 10_000 });
    expect(closed).toBe(true);
  });

  it('ignores what is not a message of the format', async () => {
    const { lines } = await listen(service, '/inclinometer', {
      say: ['nonsense', '{"type":"mistakes","mistakes":"all"}', '[]'],
      enough: 8,
    });
    expect(lines.map(parseFrame).filter((f) => f.type === 'hello')).toHaveLength(1);
  });

  it('does not speak to a page of another site, nor under a path that is none', async () => {
    expect(await listen(service, '/inclinometer', { origin: 'https://elsewhere.example' })).toMatchObject({
      opened: false,
    });
    expect(await listen(service, '/inclinometer', { origin: 'null' })).toMatchObject({ opened: false });
    expect(await listen(service, '/scales')).toMatchObject({ opened: false });
    expect(await listen(service, '/inclinometer', { origin: 'http://127.0.0.1:4310' })).toMatchObject({
      opened: true,
    });
  });

  it('has one hidden truth for a measure and side, within its kind’s range', () => {
    const aim = { measure: 'lunge-knee-bent', side: 'left' };
    expect(truthOf('inclinometer', aim)).toBe(truthOf('inclinometer', { ...aim }));
    expect(truthOf('inclinometer', aim)).not.toBe(truthOf('inclinometer', { ...aim, side: 'right' }));
    expect(truthOf('inclinometer', aim)).toBeGreaterThanOrEqual(24);
    expect(truthOf('inclinometer', aim)).toBeLessThanOrEqual(44);
  });

  it.each([
    ['pressure-mat', 'walk', 'kPa', 100],
    ['motion-pair', 'squat', 'deg', 200],
  ] as const)(
    'a %s says hello and then whole frames of the format, anew with each aim',
    async (kind, task, unit, rateHz) => {
      const aim = JSON.stringify({ type: 'aim', measure: task, side: 'both', who: 17 });
      const { lines } = await listen(service, `/${kind}`, { say: [aim, aim], enough: 12 });
      const kept = collector();
      const read = liveReader(kept);
      const found = lines.map((l) => read(l));
      expect(found.filter((f) => f.type === 'hello')).toHaveLength(3);
      expect(found.filter((f) => f.type === 'bad')).toEqual([]);
      expect(kept.header()).toMatchObject({ kind, task, rateHz, simulated: true });
      expect(kept.header()?.name).toContain('made-up person 17');
      expect(JSON.parse(lines[0] ?? '')).toMatchObject({ unit });
    },
  );
});
