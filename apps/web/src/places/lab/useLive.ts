import { useCallback, useEffect, useRef, useState } from 'react';
import { pageLanguage } from '../../parts/language.js';
import type { LiveAsked, LiveSeen, LiveTold } from './live.js';
import type { LabReading } from './reading.js';

/** Where a capture from an instrument is. */
type LiveState =
  | { readonly at: 'off' }
  | { readonly at: 'connecting' }
  | { readonly at: 'failed' }
  | { readonly at: 'running'; readonly seen: LiveSeen }
  | { readonly at: 'working' }
  | { readonly at: 'broken'; readonly reason: string }
  | { readonly at: 'done'; readonly reading: LabReading; readonly packed: Blob };

export interface Live {
  readonly state: LiveState;
  readonly start: (asked: Omit<Extract<LiveAsked, { ask: 'start' }>, 'ask' | 'language'>) => void;
  readonly stop: () => void;
  /** Leaves whatever runs; nothing is kept of it. */
  readonly leave: () => void;
}

/** A capture from an instrument, listened to in a worker of its own; left with the page, it ends. */
export function useLive(): Live {
  const [state, setState] = useState<LiveState>({ at: 'off' });
  const worker = useRef<Worker | null>(null);
  const end = useCallback(() => {
    worker.current?.terminate();
    worker.current = null;
  }, []);
  const leave = useCallback(() => {
    end();
    setState({ at: 'off' });
  }, [end]);
  useEffect(() => end, [end]);
  const start: Live['start'] = (asked) => {
    end();
    const w = new Worker(new URL('./liveWorker.ts', import.meta.url), { type: 'module' });
    worker.current = w;
    setState({ at: 'connecting' });
    w.onmessage = ({ data }: MessageEvent<LiveTold>) => {
      if (worker.current !== w) return;
      if ('seen' in data) setState({ at: 'running', seen: data.seen });
      else if ('working' in data) setState({ at: 'working' });
      else if ('done' in data) setState({ at: 'done', ...data.done });
      else if ('broken' in data) setState({ at: 'broken', reason: data.reason });
      else setState({ at: 'failed' });
    };
    w.onerror = () => {
      if (worker.current === w) setState({ at: 'failed' });
    };
    w.postMessage({ ask: 'start', ...asked, language: pageLanguage } satisfies LiveAsked);
  };
  return {
    state,
    start,
    stop: () => worker.current?.postMessage({ ask: 'stop' } satisfies LiveAsked),
    leave,
  };
}
