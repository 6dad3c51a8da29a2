import { RadioRow } from '../../../parts/RadioRow.js';
import { combineTrials, type MeasureDefinition, say, sayKey } from '@heathstep/core';
import type { MeasureEntry } from '@heathstep/contracts';
import type { Column } from '../live.js';
import { goTo, nextStop, painOf } from './moving.js';
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

/** Order of taking within a row: side after side, or alternating. */
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
        aria-label={say('{{label}}, {{side}}: {{status}}. Take it instead', {
          label: measure.label,
          side: say(side),
          status: STATUS_WORDS[entry.status],
        })}
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
      aria-label={`${measure.label}, ${say(side)}`}
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
  const colour = side === 'none' ? 'var(--color-ink)' : `var(--color-${side})`;
  const choose = (value: number | null) => write(side, (now) => withTrial({ ...now, trials: [] }, 0, value));
  return (
    <RadioRow
      label={`${measure.label}, ${say(side)}`}
      marks={{ 'data-row': row, 'data-order': orderOf(measure, side, 0, alternating) }}
      className={`flex flex-wrap outline-none ${side === 'left' ? 'justify-end' : ''}`}
      value={chosen === null ? null : String(chosen)}
      options={levels.map((level) => ({ value: String(level.value), word: sayKey(level.word) }))}
      onChange={(value) => choose(Number(value))}
      onClear={() => choose(null)}
      itemClass={(_, on) =>
        `min-h-10 border-b-2 px-1.5 text-sm font-semibold ${on ? 'text-paper' : 'border-edge text-ink-2 hover:bg-heather-wash'}`
      }
      itemStyle={(_, on) => (on ? { background: colour, borderColor: colour } : undefined)}
      onKeyDown={(event) => {
        if (event.key === 'Enter') {
          event.preventDefault();
          goTo(nextStop(event.currentTarget, event.shiftKey ? -1 : 1));
        }
        const letter =
          event.key.length === 1 && !event.ctrlKey && !event.metaKey ? event.key.toLowerCase() : '';
        const at =
          letter.trim() === ''
            ? -1
            : levels.findIndex((l) => sayKey(l.word).toLowerCase().startsWith(letter));
        const picked = levels[at];
        if (picked === undefined && letter === 'p') goTo(painOf(String(row), side));
        if (picked === undefined) return;
        event.preventDefault();
        choose(picked.value);
        // A letter is a whole answer: on to the next, where there is one.
        if (!goTo(nextStop(event.currentTarget, 1)))
          (event.currentTarget.children[at] as HTMLElement | undefined)?.focus();
      }}
    />
  );
}
