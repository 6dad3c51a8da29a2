import { say } from '@heathstep/core';
import {
  collector,
  csvLines,
  type FrameSink,
  jsonLines,
  type LineProblem,
  overview,
  type ReadEnd,
  recordingReader,
  tee,
} from '@heathstep/core/lab';
import type { Answer, Asked, Job, LookedOver, NotTaken, Worked } from './jobs.js';
import { readingOf, transfersOf } from './reading.js';
import { packed, speakAs } from './speak.js';

const tell = (answer: Answer, transfer: Transferable[] = []): void => self.postMessage(answer, { transfer });

let told = 0;
/** Progress, not more often than it can be seen. */
function progress(share: number): void {
  const now = performance.now();
  if (now - told < 80) return;
  told = now;
  tell({ progress: share });
}

/** Reads a text as it comes; ends with the line that is not taken, or what was read. */
async function readAll(
  stream: ReadableStream<Uint8Array<ArrayBuffer>>,
  sink: FrameSink,
  share: (bytes: number) => number,
): Promise<ReadEnd> {
  const reader = recordingReader(sink);
  const decoder = new TextDecoder();
  const pieces = stream.getReader();
  let bytes = 0;
  for (;;) {
    const { done, value } = await pieces.read();
    if (done) break;
    bytes += value.length;
    const problem = reader.push(decoder.decode(value, { stream: true }));
    if (problem !== null) {
      await pieces.cancel();
      return { ok: false, problem };
    }
    progress(share(bytes));
  }
  return reader.finish();
}

const notTaken = (problem: LineProblem): NotTaken => ({ problem });

async function fetched(url: string): Promise<ReadableStream<Uint8Array<ArrayBuffer>>> {
  const response = await fetch(url, { credentials: 'same-origin' });
  if (!response.ok || response.body === null)
    throw new Error(say('The capture could not be fetched ({{status}})', { status: response.status }));
  return response.body;
}

/** About as many bytes as a frame of a mat takes; only for how far it is. */
const BYTES_A_FRAME = 900;

async function capture(job: Extract<Job, { do: 'capture' }>): Promise<Worked | NotTaken> {
  const kept = collector();
  const end = await readAll(await fetched(job.url), kept, (bytes) =>
    Math.min(0.5, bytes / (job.frames * BYTES_A_FRAME) / 2),
  );
  if (!end.ok) return notTaken(end.problem);
  const recording = kept.recording();
  if (recording === null) return notTaken({ line: 0, reason: say('nothing was read') });
  return { reading: readingOf(recording, job.question, (s) => progress(0.5 + s / 2)), packed: null };
}

async function lookOver({ file }: Extract<Job, { do: 'look-over' }>): Promise<LookedOver | NotTaken> {
  const all = overview();
  const end = await readAll(file.stream(), all, (bytes) => bytes / file.size);
  if (!end.ok) return notTaken(end.problem);
  const header = all.header();
  if (header === null) return notTaken({ line: 0, reason: say('nothing was read') });
  return { header, seconds: end.seconds, steps: all.steps(), warnings: end.warnings };
}

async function stretch(job: Extract<Job, { do: 'stretch' }>): Promise<Worked | NotTaken> {
  const kept = collector({ from: job.from, seconds: job.seconds });
  const end = await readAll(job.file.stream(), tee(kept), (bytes) => (bytes / job.file.size) * 0.6);
  if (!end.ok) return notTaken(end.problem);
  const recording = kept.recording();
  if (recording === null) return notTaken({ line: 0, reason: say('nothing was read') });
  const reading = readingOf(recording, job.question, (s) => progress(0.6 + s * 0.3));
  return { reading, packed: await packed(jsonLines(recording)) };
}

async function csv(job: Extract<Job, { do: 'csv' }>): Promise<Blob | NotTaken> {
  const kept = collector();
  const end = await readAll(await fetched(job.url), kept, () => 0.5);
  if (!end.ok) return notTaken(end.problem);
  const recording = kept.recording();
  return recording === null
    ? notTaken({ line: 0, reason: say('nothing was read') })
    : new Blob([...csvLines(recording)], { type: 'text/csv' });
}

function work(job: Job): Promise<Worked | LookedOver | Blob | NotTaken> {
  switch (job.do) {
    case 'capture':
      return capture(job);
    case 'look-over':
      return lookOver(job);
    case 'stretch':
      return stretch(job);
    case 'csv':
      return csv(job);
  }
}

self.onmessage = async ({ data }: MessageEvent<Asked>): Promise<void> => {
  try {
    await speakAs(data.language);
    const done = await work(data.job);
    const transfer = 'reading' in done ? (transfersOf(done.reading) as Transferable[]) : [];
    tell({ done }, transfer);
  } catch (error) {
    tell({ failed: error instanceof Error ? error.message : say('It could not be worked out') });
  }
};
