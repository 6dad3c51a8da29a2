import { createHash } from 'node:crypto';
import type { IncomingMessage } from 'node:http';
import { WebSocketServer, type WebSocket } from 'ws';
import {
  DEVICE_MISTAKES,
  type DeviceMistake,
  type SignalKind,
  type SimulatedDevice,
  simulateDevice,
} from '@heathstep/core';

const KINDS: readonly SignalKind[] = ['inclinometer', 'dynamometer', 'thermometer'];

/** Truths of the made-up instruments: a range for each kind, from which what is aimed at takes its own. */
const TRUTHS: Readonly<Record<SignalKind, readonly [low: number, high: number]>> = {
  inclinometer: [24, 44],
  dynamometer: [70, 210],
  thermometer: [28, 33],
};

const MOST_MESSAGE_BYTES = 2000;
const LOOPBACK = new Set(['127.0.0.1', 'localhost', '[::1]']);

export interface DeviceService {
  readonly port: number;
  readonly stop: () => Promise<void>;
}

interface Aim {
  readonly measure: string;
  readonly side: string;
}

/** A made-up band pulls harder the further it is stretched. */
function bandTruth(measure: string): number | null {
  const [, band = '', stretch = ''] = /^band-(light|medium|firm)-(\d+)$/.exec(measure) ?? [];
  const firm = { light: 14, medium: 24, firm: 38 }[band];
  return firm === undefined ? null : firm * (0.55 + Number(stretch) / 110);
}

/** The same measure and side always have the same hidden truth. */
export function truthOf(kind: SignalKind, aim: Aim): number {
  const band = kind === 'dynamometer' ? bandTruth(aim.measure) : null;
  if (band !== null) return band;
  const [low, high] = TRUTHS[kind];
  const share = createHash('sha256').update(`${aim.measure}/${aim.side}`).digest().readUInt32BE(0) / 2 ** 32;
  return low + share * (high - low);
}

/** A page of another site must not be able to listen to the clinic's instruments. */
function ownPage(request: IncomingMessage): boolean {
  const { origin } = request.headers;
  if (origin === undefined) return true;
  try {
    return LOOPBACK.has(new URL(origin).hostname);
  } catch {
    return false;
  }
}

function kindOf(request: IncomingMessage): SignalKind | null {
  const path = (request.url ?? '').split('?')[0]?.slice(1);
  return KINDS.find((k) => k === path) ?? null;
}

interface Asked {
  readonly aim: Aim | null;
  readonly mistakes: readonly DeviceMistake[] | null;
}

/** What the bench may say: where it aims, and, to a simulated device, which mistakes to play. Anything else is ignored. */
function asked(text: string): Asked {
  try {
    const o = JSON.parse(text) as { type?: unknown; measure?: unknown; side?: unknown; mistakes?: unknown };
    if (o.type === 'aim' && typeof o.measure === 'string' && typeof o.side === 'string')
      return { aim: { measure: o.measure, side: o.side }, mistakes: null };
    if (o.type === 'mistakes' && Array.isArray(o.mistakes)) {
      const wanted = new Set(o.mistakes);
      return { aim: null, mistakes: DEVICE_MISTAKES.filter((m) => wanted.has(m)) };
    }
  } catch {
    // Not a message of this format.
  }
  return { aim: null, mistakes: null };
}

/** Plays one simulated device to one bench until either leaves. */
function play(socket: WebSocket, kind: SignalKind): void {
  let aim: Aim = { measure: '', side: '' };
  let mistakes: readonly DeviceMistake[] = [];
  let timer: NodeJS.Timeout | undefined;
  const send = (line: string) => socket.send(`${line}\n`);
  const start = () => {
    clearInterval(timer);
    const seed = Math.round(truthOf(kind, aim) * 1000);
    const device: SimulatedDevice = simulateDevice({ kind, truth: truthOf(kind, aim), seed, mistakes });
    send(device.hello);
    const began = performance.now();
    let n = 0;
    timer = setInterval(() => {
      // The clock of the samples is kept even when the timer runs late.
      const due = Math.floor(((performance.now() - began) / 1000) * device.rateHz);
      for (; n <= due; n += 1) {
        if (device.cutAt !== null && n >= device.cutAt) {
          clearInterval(timer);
          socket.terminate();
          return;
        }
        const line = device.line(n);
        if (line !== null) send(line);
      }
    }, 1000 / device.rateHz);
  };
  socket.on('message', (data) => {
    const text = Array.isArray(data)
      ? Buffer.concat(data).toString()
      : Buffer.from(data as Buffer).toString();
    const next = asked(text);
    const moved = next.aim !== null && (next.aim.measure !== aim.measure || next.aim.side !== aim.side);
    if (next.aim !== null) aim = next.aim;
    if (next.mistakes !== null) mistakes = next.mistakes;
    if (moved || next.mistakes !== null) start();
  });
  socket.on('close', () => clearInterval(timer));
  socket.on('error', () => clearInterval(timer));
  start();
}

/** The device service on loopback: one path a kind of instrument, JSON lines over WebSocket as docs/devices.md says. */
export async function startDevices(port: number): Promise<DeviceService> {
  const server = new WebSocketServer({
    host: '127.0.0.1',
    port,
    maxPayload: MOST_MESSAGE_BYTES,
    verifyClient: ({ req }: { req: IncomingMessage }) => ownPage(req) && kindOf(req) !== null,
  });
  await new Promise<void>((resolve, reject) => {
    server.once('listening', resolve);
    server.once('error', reject);
  });
  server.on('connection', (socket, request) => {
    const kind = kindOf(request);
    if (kind === null) socket.close();
    else play(socket, kind);
  });
  const address = server.address();
  return {
    port: typeof address === 'object' && address !== null ? address.port : port,
    stop: () =>
      new Promise((resolve) => {
        for (const client of server.clients) client.terminate();
        server.close(() => resolve());
      }),
  };
}
