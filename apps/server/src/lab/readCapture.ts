import { createGunzip } from 'node:zlib';
import { Readable } from 'node:stream';
import { CAPTURE_LIMITS } from '@heathstep/contracts';
import { say } from '@heathstep/core';
import {
  type FrameSink,
  type LineProblem,
  type RecordingHeader,
  recordingReader,
  RECORDING_LIMITS,
} from '@heathstep/core/lab';

/** A packed recording that was read to its end, or why it is not taken. */
export type ReadCapture =
  | { readonly ok: true; readonly header: RecordingHeader; readonly seconds: number }
  | { readonly ok: false; readonly problem: LineProblem };

const tooLong = (line: number): ReadCapture => ({
  ok: false,
  problem: {
    line,
    reason: say('longer than the {{seconds}} s that are kept', { seconds: RECORDING_LIMITS.seconds }),
  },
});

const MOST_FRAMES = (RECORDING_LIMITS.seconds + 1) * RECORDING_LIMITS.rateHz;

/**
 * Unpacks a recording as it is read, a piece at a time, so that others are answered meanwhile; hands its frames to `sink`.
 * What unpacks to more than is ever kept is refused before it is held.
 */
export async function readCapture(packed: Buffer, sink: FrameSink): Promise<ReadCapture> {
  let header: RecordingHeader | null = null;
  let frames = 0;
  const counted = (): void => {
    frames += 1;
  };
  const reader = recordingReader({
    begin(h) {
      header = h;
      sink.begin(h);
    },
    mat(t, cells) {
      counted();
      sink.mat(t, cells);
    },
    motion(t, left, right) {
      counted();
      sink.motion(t, left, right);
    },
  });
  const unpacked = Readable.from([packed]).pipe(createGunzip());
  const decoder = new TextDecoder();
  let bytes = 0;
  try {
    for await (const piece of unpacked) {
      const chunk = piece as Buffer;
      bytes += chunk.length;
      if (bytes > CAPTURE_LIMITS.unpacked) return tooLong(0);
      const problem = reader.push(decoder.decode(chunk, { stream: true }));
      if (problem !== null) return { ok: false, problem };
      // More frames than a minute has, whatever their times say.
      if (frames > MOST_FRAMES) return tooLong(frames + 1);
    }
  } catch {
    return { ok: false, problem: { line: 0, reason: say('not packed as a capture is, or cut off') } };
  } finally {
    unpacked.destroy();
  }
  const end = reader.finish();
  if (!end.ok) return end;
  if (header === null || end.warnings.some((w) => w.line === 0)) return tooLong(0);
  if (end.seconds > RECORDING_LIMITS.seconds + 1) return tooLong(end.frames + 1);
  return { ok: true, header, seconds: end.seconds };
}
