import { useEffect, useId, useState } from 'react';
import { guardReading, type GuardResult, type MeasureDefinition, say, isWhole } from '@heathstep/core';
import type { Column } from '../live.js';
import { goOnByItself, move } from './moving.js';

interface TrialProps {
  readonly measure: MeasureDefinition;
  readonly side: Column;
  readonly index: number;
  readonly row: number;
  readonly order: number;
  readonly value: number | null;
  readonly outlier: boolean;
  readonly confirmed: boolean;
  readonly refusal: string | null;
  readonly keypad: boolean;
  readonly onValue: (value: number | null) => void;
  readonly onConfirm: () => void;
}

const read = (measure: MeasureDefinition, text: string): number | null => {
  const guard = guardReading(measure, text);
  return guard.state === 'fine' || guard.state === 'unusual' ? guard.value : null;
};

/** One reading. What is typed stays in the field even when it cannot be taken; only possible readings are kept. */
export function Trial(props: TrialProps) {
  const { measure, side, index, value, outlier, confirmed, refusal, onValue, onConfirm } = props;
  const [text, setText] = useState(value === null ? '' : String(value));
  const noteId = useId();
  const guard = guardReading(measure, text);
  useEffect(() => {
    setText((now) => {
      const wrong = value === null && guardReading(measure, now).state === 'impossible';
      return read(measure, now) === value || wrong ? now : value === null ? '' : String(value);
    });
  }, [value, measure]);
  const take = (typed: string) => {
    setText(typed);
    const reading = read(measure, typed);
    if (reading !== value) onValue(reading);
  };
  const asks = guard.state === 'unusual' && !confirmed;
  const wrong = guard.state === 'impossible' ? guard.message : refusal;
  const meant = guard.state === 'impossible' ? guard.meant : undefined;
  const tone =
    wrong !== null
      ? 'border-ease bg-ease-wash'
      : outlier || asks
        ? 'border-hold bg-hold-wash'
        : 'border-edge focus:border-heather';
  // The keys for fingers lie below; a note must not cover them.
  const below = props.keypad ? 'bottom-full' : 'top-full';
  const name = side === 'none' ? measure.label : `${measure.label}, ${say(side)}`;
  return (
    <span className="relative">
      <input
        data-trial
        data-row={props.row}
        data-order={props.order}
        data-column={`${side}-${index}`}
        inputMode={props.keypad ? 'none' : 'decimal'}
        autoComplete="off"
        aria-label={say('{{name}}, trial {{index}}', { name, index: index + 1 })}
        aria-invalid={wrong !== null}
        aria-describedby={noteId}
        placeholder={index === 0 ? measure.unitLabel : undefined}
        value={text}
        className={`h-10 placeholder:font-normal placeholder:text-ink-3 border-b-2 bg-transparent text-center text-[0.95rem] font-semibold focus:outline-none ${measure.trials.count === 1 ? 'w-14' : 'w-8 pointer-coarse:w-11'} ${tone}`}
        onChange={(event) => {
          const { target, nativeEvent } = event;
          take(target.value);
          // What is pasted or dictated in one piece is looked at where it stands.
          const typed = (nativeEvent as InputEvent).data?.length === 1;
          if (typed && isWhole(measure, target.value)) goOnByItself(target);
        }}
        onKeyDown={move}
        onFocus={(event) => event.currentTarget.select()}
      />
      <Notes
        noteId={noteId}
        wrong={wrong}
        below={below}
        meant={meant}
        take={take}
        asks={asks}
        guard={guard}
        onConfirm={onConfirm}
        outlier={outlier}
      />
    </span>
  );
}

/** What is wrong, unusual or apart, beside the reading. */
function Notes({
  noteId,
  wrong,
  below,
  meant,
  take,
  asks,
  guard,
  onConfirm,
  outlier,
}: {
  noteId: string;
  wrong: string | null;
  below: 'bottom-full' | 'top-full';
  meant: number | undefined;
  take: (typed: string) => void;
  asks: boolean;
  guard: GuardResult;
  onConfirm: () => void;
  outlier: boolean;
}) {
  return (
    <span id={noteId} className="pointer-events-none">
      {wrong !== null && (
        <span
          role="alert"
          className={`pointer-events-auto absolute left-0 ${below} z-20 w-60 rounded bg-ease px-2 py-1 text-sm text-paper shadow`}
        >
          {wrong}{' '}
          {meant !== undefined && (
            <button type="button" className="font-bold underline" onClick={() => take(String(meant))}>
              {say('Take {{meant}}', { meant })}
            </button>
          )}
        </span>
      )}
      {wrong === null && asks && (
        <span
          className={`pointer-events-auto absolute left-0 ${below} z-20 w-60 rounded border border-hold bg-hold-wash px-2 py-1 text-sm text-hold-deep shadow`}
        >
          {guard.state === 'unusual' && guard.ask}{' '}
          <button type="button" className="font-bold underline" onClick={onConfirm}>
            {say('Yes, it is')}
          </button>
        </span>
      )}
      {outlier && (
        <span className="sr-only">{say('This trial differs from the others by more than the error')}</span>
      )}
    </span>
  );
}
