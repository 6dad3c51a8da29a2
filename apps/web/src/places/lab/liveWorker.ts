import { say } from '@heathstep/core';
import {
  beginCapture,
  breakCapture,
  captureLoad,
  type CaptureSession,
  collector,
  endCapture,
  jsonLines,
  liveReader,
  newtonPerUnit,
  PER_KPA,
  scaleTop,
  SILENT_SECONDS,
} from '@heathstep/core/lab';
import type { LiveAsked, LiveSeen, LiveTold } from './live.js';
import { readingOf, transfersOf } from './reading.js';
import { packed, speakAs } from './speak.js';

type Start = Extract<LiveAsked, { ask: 'start' }>;

const tell = (told: LiveTold, transfer: Transferable[] = []): void => self.postMessage(told, { transfer });

/** Pictures a second that are sent to the page. */
const SEEN_MS = 33;
const OPEN_WITHIN_MS = 4000;

/** One capture, from the connection to what is worked out of it. */
class Capture {
  private session: CaptureSession;
  private readonly kept = collector();
  /** The newest frame, whether it is recorded or not. */
  private readonly now = collector({ from: 0, seconds: 0 });
  private readonly socket: WebSocket;
  private newest: { newton: number; left: number | null; right: number | null } = {
    newton: 0,
    left: null,
    right: null,
  };
  private sentAt = 0;
  private heardAt = performance.now();
  private mostKpa = 0;
  private readonly timers: ReturnType<typeof setInterval>[] = [];
  private over = false;
  private spoke = false;

  constructor(private readonly asked: Start) {
    const session = beginCapture(asked.kind, asked.task);
    if (session === null) throw new Error('no such capture');
    this.session = session;
    this.socket = new WebSocket(`${asked.base}/${asked.kind}`);
    const aim = {
      type: 'aim',
      measure: asked.task,
      side: asked.question.side,
      who: asked.who,
      massKg: asked.question.massKg,
    };
    this.socket.onopen = () => {
      if (asked.mistakes.length > 0)
        this.socket.send(`${JSON.stringify({ type: 'mistakes', mistakes: asked.mistakes })}\n`);
      this.socket.send(`${JSON.stringify(aim)}\n`);
    };
    this.listen();
    this.socket.onclose = () => this.lost();
    this.timers.push(
      setTimeout(() => {
        if (this.socket.readyState === WebSocket.CONNECTING) this.socket.close();
      }, OPEN_WITHIN_MS),
      setInterval(() => this.look(), 250),
    );
  }

  private listen(): void {
    let recorded = false;
    const read = liveReader({
      begin: (h) => {
        this.spoke = true;
        this.kept.begin(h);
        this.now.begin(h);
        // A new hello begins the countdown anew: nothing of what was said before counts.
        this.session = { ...this.session, ...beginCapture(this.asked.kind, this.asked.task) };
        recorded = false;
      },
      mat: (t, cells) => {
        this.now.again();
        this.now.mat(0, cells);
        const header = this.kept.header();
        const per = header?.kind === 'pressure-mat' ? newtonPerUnit(header) : 0;
        let sum = 0;
        for (const c of cells) sum += c;
        this.newest = { ...this.newest, newton: sum * per };
        this.session = captureLoad(this.session, t, sum * per);
        if (this.session.phase === 'recording') {
          if (!recorded) this.kept.again();
          recorded = true;
          this.kept.mat(t, cells);
        }
      },
      motion: (t, left, right) => {
        this.newest = {
          newton: 0,
          left: left === null ? null : left[1] - left[0],
          right: right === null ? null : right[1] - right[0],
        };
        this.session = captureLoad(this.session, t, 0);
        if (this.session.phase === 'recording') {
          if (!recorded) this.kept.again();
          recorded = true;
          this.kept.motion(t, left, right);
        }
      },
    });
    this.socket.onmessage = (event: MessageEvent<unknown>) => {
      if (this.over || typeof event.data !== 'string') return;
      this.heardAt = performance.now();
      for (const line of event.data.split('\n')) {
        if (line.trim() === '') continue;
        const said = read(line);
        // A bad frame before it records does no harm; within it nothing can be made of it.
        if (said.type === 'bad' && this.session.phase === 'recording') {
          this.broken('bad-frame', said.reason);
          return;
        }
        if (said.type === 'end') {
          this.broken('lost', said.reason);
          return;
        }
        if (this.session.phase === 'done') {
          void this.finish();
          return;
        }
      }
      this.show();
    };
  }

  private show(): void {
    const now = performance.now();
    if (now - this.sentAt < SEEN_MS) return;
    this.sentAt = now;
    const header = this.kept.header();
    if (header === null) return;
    const cells = this.now.newest();
    let picture: LiveSeen['picture'] = null;
    if (header.kind === 'pressure-mat' && cells !== null) {
      for (const c of cells) this.mostKpa = Math.max(this.mostKpa, c / PER_KPA);
      const topKpa = scaleTop(this.mostKpa);
      picture = {
        columns: header.columns,
        rows: header.rows,
        cells: Uint8Array.from(cells, (c) => Math.min(255, (c / PER_KPA / topKpa) * 255)),
        topKpa,
      };
    }
    tell(
      {
        seen: {
          session: this.session,
          device: header.name,
          simulated: header.simulated,
          newton: this.newest.newton,
          picture,
          angles: header.kind === 'motion-pair' ? { left: this.newest.left, right: this.newest.right } : null,
        },
      },
      picture === null ? [] : [picture.cells.buffer],
    );
  }

  /** Looks at the clock: an instrument that says nothing breaks the capture off. */
  private look(): void {
    if (this.over || !this.spoke) return;
    if (performance.now() - this.heardAt > SILENT_SECONDS * 1000)
      this.broken('silent', say('the instrument says nothing any more'));
  }

  private lost(): void {
    if (this.over) return;
    if (!this.spoke) {
      this.leave();
      tell({ failed: 'connect' });
    } else this.broken('lost', say('the connection was lost'));
  }

  private broken(why: 'bad-frame' | 'silent' | 'lost', reason: string): void {
    this.leave();
    tell({ broken: breakCapture(this.session, why), reason });
  }

  /** Ends it by hand. */
  stop(): void {
    if (this.over) return;
    this.session = endCapture(this.session);
    if (this.session.phase === 'done') void this.finish();
    else {
      this.leave();
      tell({ broken: this.session, reason: say('stopped before anything was recorded') });
    }
  }

  private async finish(): Promise<void> {
    this.leave();
    tell({ working: true });
    const recording = this.kept.recording();
    if (recording === null) return;
    const reading = readingOf(recording, this.asked.question);
    const bytes = await packed(jsonLines(recording));
    tell({ done: { reading, packed: bytes } }, transfersOf(reading) as Transferable[]);
  }

  private leave(): void {
    this.over = true;
    for (const t of this.timers) clearInterval(t);
    this.socket.close();
  }
}

let capture: Capture | null = null;

self.onmessage = async ({ data }: MessageEvent<LiveAsked>): Promise<void> => {
  if (data.ask === 'stop') {
    capture?.stop();
    return;
  }
  await speakAs(data.language);
  capture = new Capture(data);
};
