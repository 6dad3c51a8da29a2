import { say } from '@heathstep/core';
import { useState } from 'react';
import { Ring, sideColour } from './Ring.js';
import { placeText } from './Stopwatch.js';
import type { ToolProps } from './Tool.js';
import { intervalAt } from './timers.js';
import { useNow } from './useNow.js';

/** Holds and rests by the clock; keeps how many holds were finished. */
export function Interval({
  place,
  keep,
  workSeconds,
  restSeconds,
}: ToolProps & { workSeconds: number; restSeconds: number }) {
  const [startedMs, setStartedMs] = useState<number | null>(null);
  const running = startedMs !== null;
  const now = useNow(running);
  const at = intervalAt(startedMs ?? now, now, workSeconds, restSeconds);
  return (
    <div className="flex items-center gap-4" role="group" aria-label={say('Interval timer')}>
      <Ring
        share={running ? 1 - at.leftSeconds / (at.phase === 'work' ? workSeconds : restSeconds) : 0}
        colour={at.phase === 'work' ? sideColour(place?.side ?? 'none') : 'var(--color-ink-3)'}
      >
        {running ? Math.ceil(at.leftSeconds) : workSeconds}
      </Ring>
      <div className="text-sm">
        <div className="font-semibold" aria-live="polite">
          {running
            ? say('{{words}}, {{finished}} finished', {
                words: at.phase === 'work' ? say('Hold') : say('Rest'),
                finished: at.finished,
              })
            : say('{{place}}: {{workSeconds}} s hold, {{restSeconds}} s rest', {
                place: placeText(place),
                workSeconds,
                restSeconds,
              })}
        </div>
        <div className="mt-1 flex gap-2">
          {running ? (
            <>
              <button
                type="button"
                className="action"
                autoFocus
                onClick={() => {
                  keep(at.finished);
                  setStartedMs(null);
                }}
              >
                {say('Stop and keep {{finished}}', { finished: at.finished })}
              </button>
              <button type="button" className="text-action min-h-11" onClick={() => setStartedMs(null)}>
                {say('Discard')}
              </button>
            </>
          ) : (
            <button
              type="button"
              className="action"
              disabled={place === null}
              onClick={() => setStartedMs(performance.now())}
            >
              {place === null ? say('Both sides counted') : say('Start')}
            </button>
          )}
        </div>
      </div>
    </div>
  );
}
