import { say } from '@heathstep/core';
import { useEffect, useRef, useState } from 'react';
import { Ring, sideColour } from './Ring.js';
import type { ToolProps } from './Tool.js';
import { elapsed, lapWatch, startWatch, STOPPED, stopWatch, tenths } from './timers.js';
import { useNow } from './useNow.js';

/** Times one trial and keeps it; stops by itself at the cap. */
export function Stopwatch({ place, keep, capSeconds }: ToolProps & { capSeconds: number }) {
  const [state, setState] = useState(STOPPED);
  const running = state.runningSince !== null;
  const now = useNow(running);
  const cap = capSeconds * 1000;
  const shownMs = elapsed(state, now, cap);
  const start = useRef<HTMLButtonElement>(null);
  const finish = () => {
    const stopped = stopWatch(state, performance.now(), cap);
    setState(stopped);
    keep(tenths(stopped.elapsedMs));
    start.current?.focus();
  };
  const capped = running && shownMs >= cap;
  useEffect(() => {
    if (!capped) return;
    setState((s) => stopWatch(s, s.runningSince === null ? 0 : s.runningSince + cap, cap));
    keep(capSeconds);
  }, [capped, cap, capSeconds, keep]);
  return (
    <div className="flex items-center gap-4" role="group" aria-label={say('Stop-watch')}>
      <Ring share={shownMs / cap} colour={sideColour(place?.side ?? 'none')}>
        {tenths(shownMs).toFixed(1)}
      </Ring>
      <div className="text-sm">
        <div className="font-semibold">
          {say('{{place}}, cap {{capSeconds}} s', { place: placeText(place), capSeconds })}
        </div>
        {state.laps.length > 0 && (
          <div className="text-ink-2">
            {say('laps {{list}}', { list: state.laps.map((l) => tenths(l).toFixed(1)).join(', ') })}
          </div>
        )}
        <div className="mt-1 flex gap-2">
          {running ? (
            <>
              <button type="button" className="action" onClick={finish} autoFocus>
                {say('Stop and keep')}
              </button>
              <button
                type="button"
                className="action-quiet"
                onClick={() => setState(lapWatch(state, performance.now(), cap))}
              >
                {say('Lap')}
              </button>
              <button type="button" className="text-action min-h-11" onClick={() => setState(STOPPED)}>
                {say('Discard')}
              </button>
            </>
          ) : (
            <button
              ref={start}
              type="button"
              className="action"
              disabled={place === null}
              onClick={() => setState(startWatch(performance.now()))}
            >
              {place === null ? say('All trials taken') : say('Start {{place}}', { place: placeText(place) })}
            </button>
          )}
        </div>
      </div>
    </div>
  );
}

export const placeText = (place: ToolProps['place']): string =>
  place === null
    ? say('all trials taken')
    : say('{{words}}trial {{trial}}', {
        words: place.side === 'none' ? '' : `${say(place.side)} `,
        trial: place.trial + 1,
      });
