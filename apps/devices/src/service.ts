import { createHash } from 'node:crypto';
import type { IncomingMessage } from 'node:http';
import { WebSocketServer, type WebSocket } from 'ws';
import { DEVICE_MISTAKES, type SignalKind, type SimulatedDevice, simulateDevice } from '@heathstep/core';
import { LAB_TASKS, type RecordingKind } from '@heathstep/core/lab';
import { simulateLab } from '@heathstep/core/simulate';

type Kind = SignalKind | RecordingKind;

const KINDS: readonly Kind[] = ['inclinometer', 'dynamometer', 'thermometer', 'pressure-mat', 'motion-pair'];

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
  /** A measure, or for a mat and a motion pair what is done. */
  readonly measure: string;
  readonly side: string;
  /** Which made-up person is on a mat or a motion pair. */
  readonly who: number;
  /** What they weigh, kg; null where it was not told. */
  readonly massKg: number | null;
}

/** A made-up band pulls harder the further it is stretched. */
function bandTruth(measure: string): number | null {
  const [, band = '', stretch = ''] = /^band-(light|medium|firm)-(\d+)$/.exec(measure) ?? [];
  const firm = { light: 14, medium: 24, firm: 38 }[band];
  return firm === undefined ? null : firm * (0.55 + Number(stretch) / 110);
}

/** The same measure and side always have the same hidden truth. */
export function truthOf(kind: SignalKind, aim: Pick<Aim, 'measure' | 'side'>): number {
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

function kindOf(request: IncomingMessage): Kind | null {
  const path = (request.url ?? '').split('?')[0]?.slice(1);
  return KINDS.find((k) => k === path) ?? null;
}

const isMass = (v: unknown): v is number => typeof v === 'number' && v >= 10 && v <= 300;
const isPerson = (v: unknown): v is number => Number.isSafeInteger(v) && (v as number) > 0;

interface Asked {
  readonly aim: Aim | null;
  readonly mistakes: readonly string[] | null;
}

/** What the bench may say: where it aims, and, to a simulated device, which mistakes to play. Anything else is ignored. */
function asked(text: string): Asked {
  try {
    const o = JSON.parse(text) as Readonly<Record<string, unknown>>;
    const { measure, side, who, massKg, mistakes } = o;
    if (o['type'] === 'aim' && typeof measure === 'string' && typeof side === 'string')
      return {
        aim: { measure, side, who: isPerson(who) ? who : 1, massKg: isMass(massKg) ? massKg : null },
        mistakes: null,
      };
    if (o['type'] === 'mistakes' && Array.isArray(mistakes))
      return { aim: null, mistakes: mistakes.filter((m) => typeof m === 'string') };
  } catch {
    // Not a message of this format.
  }
  return { aim: null, mistakes: null };
}

const isRecording = (kind: Kind): kind is RecordingKind => kind === 'pressure-mat' || kind === 'motion-pair';

/** The instrument as it is aimed now; `go` tells one go from the next, which a mat and a pair never give alike. */
function deviceOf(kind: Kind, aim: Aim, mistakes: readonly string[], go: number): SimulatedDevice {
  if (!isRecording(kind)) {
    const truth = truthOf(kind, aim);
    const known = DEVICE_MISTAKES.filter((m) => mistakes.includes(m));
    return simulateDevice({ kind, truth, seed: Math.round(truth * 1000), mistakes: known });
  }
  const task = LAB_TASKS.find((t) => t === aim.measure) ?? 'stance';
  const side = aim.side === 'left' || aim.side === 'right' ? aim.side : 'both';
  return simulateLab({
    kind,
    who: aim.who,
    massKg: aim.massKg,
    task,
    side,
    seed: aim.who * 101 + go,
    mistakes,
  });
}

/** Plays one simulated device to one bench until either leaves. */
function play(socket: WebSocket, kind: Kind): void {
  let aim: Aim = { measure: '', side: '', who: 1, massKg: null };
  let mistakes: readonly string[] = [];
  let timer: NodeJS.Timeout | undefined;
  let goes = 0;
  const send = (line: string) => socket.send(`${line}\n`);
  const start = () => {
    clearInterval(timer);
    goes += 1;
    const device = deviceOf(kind, aim, mistakes, goes);
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
    // A mat and a pair begin anew with each aim: one go after the other of the same task.
    const moved =
      next.aim !== null &&
      (isRecording(kind) || next.aim.measure !== aim.measure || next.aim.side !== aim.side);
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
