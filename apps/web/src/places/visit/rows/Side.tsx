import { combineTrials, type MeasureDefinition } from '@heathstep/core';
import type { MeasureEntry } from '@heathstep/contracts';
import type { Column } from '../live.js';
import { nextStop, goTo } from './moving.js';
import type { Change } from './Row.js';
import { Trial } from './Trial.js';
import { STATUS_WORDS, withTrial } from './entries.js';

export interface SideProps {
  readonly measure: MeasureDefinition;
  readonly side: Column;
  readonly row: number;
  readonly entry: MeasureEntry;
  readonly refusal: string | null;
  readonly alternating: boolean;
  readonly keypad: boolean;
  readonly write: (side: Column, change: Change) => void;
}

const SIDE_ORDER: Record<Column, number> = { none: 0, left: 0, right: 1 };

/** Order of taking within a row: side after side, or alternating. Pain comes after the trials. */
const orderOf = (measure: MeasureDefinition, side: Column, index: number, alternating: boolean): number =>
  alternating ? index * 2 + SIDE_ORDER[side] : SIDE_ORDER[side] * measure.trials.count + index;

/** The trials of one side, or why there are none. */
export function Side(props: SideProps) {
  const { measure, side, entry, write } = props;
  if (entry.status !== 'taken') {
    return (
      <button
        type="button"
        className="text-action min-h-9 text-sm"
        onClick={() => write(side, (now) => ({ ...now, status: 'taken' }))}
        aria-label={`${measure.label}, ${side}: ${STATUS_WORDS[entry.status]}. Take it instead`}
      >
        {STATUS_WORDS[entry.status]}
      </button>
    );
  }
  if (measure.levels !== null) return <Levels {...props} />;
  const { outliers } = combineTrials(measure, entry.trials);
  return (
    <div
      className={`flex gap-1 ${side === 'left' ? 'justify-end' : ''}`}
      role="group"
      aria-label={`${measure.label}, ${side}`}
    >
      {Array.from({ length: measure.trials.count }, (_, i) => (
        <Trial
          key={i}
          measure={measure}
          side={side}
          index={i}
          row={props.row}
          order={orderOf(measure, side, i, props.alternating)}
          value={entry.trials[i] ?? null}
          outlier={outliers.includes(i)}
          confirmed={entry.confirmed === true}
          refusal={props.refusal}
          keypad={props.keypad}
          onValue={(value) => write(side, (now) => withTrial(now, i, value))}
          onConfirm={() => write(side, (now) => ({ ...now, confirmed: true }))}
        />
      ))}
    </div>
  );
}

/** A measure that is chosen rather than read: its words, one key each. */
function Levels({ measure, side, row, entry, alternating, write }: SideProps) {
  const levels = measure.levels ?? [];
  const chosen = entry.trials.at(-1) ?? null;
  const choose = (value: number | null) => write(side, (now) => withTrial({ ...now, trials: [] }, 0, value));
  return (
    <div
      role="radiogroup"
      aria-label={`${measure.label}, ${side}`}
      data-row={row}
      data-order={orderOf(measure, side, 0, alternating)}
      tabIndex={-1}
      className={`flex flex-wrap outline-none ${side === 'left' ? 'justify-end' : ''}`}
      onFocus={(event) => {
        if (event.target === event.currentTarget)
          event.currentTarget.querySelector<HTMLElement>('[tabindex="0"]')?.focus();
      }}
    >
      {levels.map((level, i) => {
        const on = chosen === level.value;
        return (
          <button
            key={level.value}
            type="button"
            role="radio"
            aria-checked={on}
            tabIndex={on || (chosen === null && i === 0) ? 0 : -1}
            className={`min-h-10 border-b-2 px-1.5 text-sm font-semibold ${on ? 'text-paper' : 'border-line text-ink-2 hover:bg-heather-wash'}`}
            style={
              on
                ? {
                    background: side === 'none' ? 'var(--color-ink)' : `var(--color-${side})`,
                    borderColor: side === 'none' ? 'var(--color-ink)' : `var(--color-${side})`,
                  }
                : undefined
            }
            onClick={() => choose(on ? null : level.value)}
            onKeyDown={(event) => {
              const begins = levels.findIndex((l) => l.word.startsWith(event.key.toLowerCase()));
              const step = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
              const target = event.key.length === 1 && begins !== -1 ? begins : step === 0 ? null : i + step;
              if (event.key === 'Enter') {
                event.preventDefault();
                goTo(nextStop(event.currentTarget, event.shiftKey ? -1 : 1));
              }
              const picked = target === null ? undefined : levels[(target + levels.length) % levels.length];
              if (picked === undefined) return;
              event.preventDefault();
              choose(picked.value);
              const at = levels.indexOf(picked);
              (event.currentTarget.parentElement?.children[at] as HTMLElement | undefined)?.focus();
            }}
          >
            {level.word.replaceAll('-', ' ')}
          </button>
        );
      })}
    </div>
  );
}
