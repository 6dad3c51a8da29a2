import { pageLanguage } from '../../parts/language.js';
import type { Answer, Asked, Job, LookedOver, NotTaken, Worked } from './jobs.js';

/** A job that was refused, with the line that was not taken. */
export class NotTakenError extends Error {
  constructor({ problem }: NotTaken) {
    super(problem.reason);
    this.line = problem.line;
  }
  readonly line: number;
}

type Result<J extends Job> = J['do'] extends 'look-over' ? LookedOver : J['do'] extends 'csv' ? Blob : Worked;

/**
 * Works a job in a worker of its own, off the page. `signal` ends it at once, wherever it is. Rejects with `NotTakenError` for
 * a recording that is not taken.
 */
export function runJob<J extends Job>(
  job: J,
  { signal, progress }: { signal?: AbortSignal; progress?: (share: number) => void } = {},
): Promise<Result<J>> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL('./readWorker.ts', import.meta.url), { type: 'module' });
    const end = (): void => {
      worker.terminate();
      signal?.removeEventListener('abort', stop);
    };
    const stop = (): void => {
      end();
      reject(new DOMException('ended', 'AbortError'));
    };
    if (signal?.aborted === true) {
      stop();
      return;
    }
    signal?.addEventListener('abort', stop);
    worker.onmessage = ({ data }: MessageEvent<Answer>) => {
      if ('progress' in data) {
        progress?.(data.progress);
        return;
      }
      end();
      if ('failed' in data) reject(new Error(data.failed));
      else if ('problem' in data.done) reject(new NotTakenError(data.done));
      else resolve(data.done as Result<J>);
    };
    worker.onerror = (event) => {
      end();
      reject(new Error(event.message));
    };
    worker.postMessage({ job, language: pageLanguage } satisfies Asked);
  });
}
