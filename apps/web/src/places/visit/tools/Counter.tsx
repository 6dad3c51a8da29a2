import { say } from '@heathstep/core';
import { type Dispatch, type SetStateAction, useEffect, useEffectEvent, useRef, useState } from 'react';
import { click } from './click.js';
import { Ring, sideColour } from './Ring.js';
import type { ToolProps } from './Tool.js';
import {
  addCount,
  addFault,
  beatAt,
  endCount,
  READY,
  startCount,
  takeBackFault,
  tenths,
  type CountState,
} from './timers.js';
import { useNow } from './useNow.js';
import type { Column } from '@heathstep/core';

interface MetronomeProps extends ToolProps {
  readonly beatsPerMinute: number;
  readonly faults: readonly string[];
  readonly stopAtFaults: number;
}

/** Counts raises to a beat: Space counts, a number key marks its fault, and the last fault allowed ends it. */
export function Metronome({ place, keep, beatsPerMinute, faults, stopAtFaults }: MetronomeProps) {
  const [state, setState] = useState(READY);
  const counting = state.phase === 'counting';
  const now = useNow(counting);
  const beat = beatAt(state.startedMs ?? now, now, beatsPerMinute);
  const lastBeat = useRef(-1);
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!counting || beat.beat === lastBeat.current) return;
    lastBeat.current = beat.beat;
    click(beat.way === 'up');
  }, [counting, beat.beat, beat.way]);
  const kept = useEffectEvent(() => keep(state.count));
  useEffect(() => {
    if (state.phase === 'done') kept();
  }, [state.phase]);
  const begin = () => {
    lastBeat.current = -1;
    setState(startCount(performance.now()));
    box.current?.focus();
  };
  const onKeyDown = (event: React.KeyboardEvent) => {
    if (!counting || event.repeat) return;
    const fault = faults[Number(event.key) - 1];
    if (event.key === ' ') setState(addCount);
    else if (fault !== undefined) setState((s) => addFault(s, fault, stopAtFaults));
    else if (event.key === 'Backspace') setState(takeBackFault);
    else if (event.key === 'Escape' || event.key === 'Enter') setState((s) => endCount(s, 'stopped'));
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div
      ref={box}
      tabIndex={-1}
      onKeyDown={onKeyDown}
      className="flex items-center gap-4 outline-none"
      role="group"
      aria-label={say('Counter with metronome')}
    >
      <Ring share={counting ? beat.share : 0} colour={sideColour(place?.side ?? 'none')}>
        <span aria-live="polite">{state.count}</span>
      </Ring>
      <div className="min-w-0 text-sm">
        {counting ? (
          <WhileCounting
            place={place}
            beat={beat}
            faults={faults}
            stopAtFaults={stopAtFaults}
            state={state}
            setState={setState}
          />
        ) : (
          <>
            <div className="font-semibold">
              {say('{{beatsPerMinute}} beats a minute, one up, one down', { beatsPerMinute })}
            </div>
            {state.endedBecause !== null && (
              <div className="text-ink-2">
                {say('Kept {{n}}. Ended: {{endedBecause}}{{words}}', {
                  n: state.count,
                  endedBecause: state.endedBecause,
                  words: state.faults.length > 0 ? ` (${state.faults.join(', ')})` : '',
                })}
              </div>
            )}
            <button type="button" className="action mt-1" disabled={place === null} onClick={begin}>
              {place === null
                ? say('Both sides counted')
                : say('Start {{words}}', { words: place.side === 'none' ? '' : say(place.side) })}
            </button>
          </>
        )}
      </div>
    </div>
  );
}

/** The beat it stands at, the faults to mark, and the end of it. */
function WhileCounting({
  place,
  beat,
  faults,
  stopAtFaults,
  state,
  setState,
}: {
  place: { readonly side: Column; readonly trial: number } | null;
  beat: { beat: number; way: 'up' | 'down'; share: number };
  faults: readonly string[];
  stopAtFaults: number;
  state: CountState;
  setState: Dispatch<SetStateAction<CountState>>;
}) {
  return (
    <>
      <div>
        <b>
          {say('Counting {{words}}, {{way}}', {
            words: place?.side === 'none' ? '' : (place?.side ?? ''),
            way: say(beat.way),
          })}
        </b>
        <span className="text-ink-2">{`. Space counts, 1 to ${faults.length} mark a fault, ${stopAtFaults} faults stop it`}</span>
      </div>
      <div className="mt-1 flex flex-wrap gap-1.5">
        {faults.map((fault, i) => {
          const times = state.faults.filter((f) => f === fault).length;
          return (
            <button
              key={fault}
              type="button"
              className={`min-h-11 rounded-full border px-3 ${times > 0 ? 'border-hold bg-hold-wash text-hold-deep' : 'border-line'}`}
              onClick={() => setState((s) => addFault(s, fault, stopAtFaults))}
            >
              <span className="text-ink-3">{i + 1}</span> {fault} {times > 0 && <b>{times}</b>}
            </button>
          );
        })}
      </div>
      <div className="mt-2 flex gap-2">
        <button type="button" className="action" onClick={() => setState(addCount)}>
          {say('One more')}
        </button>
        <button
          type="button"
          className="action-quiet"
          onClick={() => setState((s) => endCount(s, 'stopped'))}
        >
          {say('Stop and keep {{n}}', { n: state.count })}
        </button>
      </div>
    </>
  );
}

/** Counts stands up to a number and keeps the time they took. */
export function SitToStand({ place, keep, target }: ToolProps & { target: number }) {
  const [state, setState] = useState(READY);
  const counting = state.phase === 'counting';
  const now = useNow(counting);
  const spent = state.startedMs === null ? 0 : now - state.startedMs;
  const stand = () => {
    const next = addCount(state);
    if (next.count < target) {
      setState(next);
      return;
    }
    setState(endCount(next, say('{{target}} stands', { target })));
    keep(tenths(performance.now() - (state.startedMs ?? 0)));
  };
  return (
    <div className="flex items-center gap-4" role="group" aria-label={say('Sit-to-stand counter')}>
      <Ring share={state.count / target} colour={sideColour('none')}>
        {state.count}
      </Ring>
      <div className="text-sm">
        <div className="font-semibold">
          {counting
            ? `${tenths(spent).toFixed(1)} s`
            : say('{{target}} times up and down, arms crossed', { target })}
        </div>
        <div className="mt-1 flex gap-2">
          {counting ? (
            <>
              <button type="button" className="action" onClick={stand} autoFocus>
                {say('Standing')}
              </button>
              <button type="button" className="text-action min-h-11" onClick={() => setState(READY)}>
                {say('Discard')}
              </button>
            </>
          ) : (
            <button
              type="button"
              className="action"
              disabled={place === null}
              onClick={() => setState(startCount(performance.now()))}
            >
              {place === null ? say('Taken') : say('Start')}
            </button>
          )}
        </div>
      </div>
    </div>
  );
}
