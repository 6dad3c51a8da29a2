import { Also } from '../../../parts/Also.js';
import { useState } from 'react';
import {
  combineTrials,
  compareValues,
  shown,
  unitAfter,
  type MeasureDefinition,
  say,
  sayKey,
} from '@heathstep/core';
import type { MeasureEntry } from '@heathstep/contracts';
import { ScoreKeys } from '../../../parts/Blank.js';
import { changeTone } from '../../../parts/Judgement.js';
import { Setup } from '../../../parts/Setup.js';
import { columnsOf, type Column } from '../live.js';
import { DevicePanel } from '../tools/DevicePanel.js';
import { Items } from '../tools/Items.js';
import { Tool } from '../tools/Tool.js';
import { nextPlace, STATUS_WORDS, withTrial } from './entries.js';
import { Keypad } from './Keypad.js';
import { afterPain, goTo } from './moving.js';
import type { Change, RowProps } from './Row.js';

/** Beside the trials of the measure at hand: its tool, pain, why there is no value, how it is taken. */
export function Details(props: RowProps) {
  const { measure, entries, actions } = props;
  const columns = columnsOf(measure);
  const write = (side: Column, change: Change) => actions.write(measure, side, change);
  const place = nextPlace(measure, (s) => entries[s], columns, props.alternating);
  const keep = (value: number, more: Partial<MeasureEntry> = {}) => {
    if (place !== null) write(place.side, (now) => withTrial({ ...now, ...more }, place.trial, value));
  };
  const lever = entries[place?.side ?? 'left'].parts?.['lever'] ?? null;
  const force = measure.device === 'dynamometer';
  return (
    <div className="mt-2 border-t border-line-2 pt-2">
      {measure.tool?.kind === 'items' && (
        <Items
          measure={measure}
          items={measure.tool.items}
          left={entries.left}
          right={entries.right}
          write={write}
        />
      )}
      {measure.tool !== null && measure.tool.kind !== 'items' && (
        <Tool tool={measure.tool} place={place} keep={keep} />
      )}
      {measure.device !== null && (
        <div className="mt-1">
          <DevicePanel
            measure={measure}
            kind={measure.device}
            base={props.devicesUrl}
            place={place}
            leverCm={lever}
            bodyMassKg={props.bodyMassKg}
            keep={(value, heldBy, simulated) =>
              keep(value, {
                ...(measure.methods.includes('phone or inclinometer')
                  ? { method: 'phone or inclinometer' }
                  : {}),
                ...(heldBy === 'self' ? { by: 'self' as const } : {}),
                ...(simulated ? { simulated } : {}),
              })
            }
          />
        </div>
      )}
      {props.keypad && <Keypad />}
      <div
        className={`mt-2 grid gap-x-8 gap-y-1 ${columns.length === 2 ? 'grid-cols-2 pointer-coarse:grid-cols-1' : ''}`}
      >
        {columns.map((side) => (
          <Beside
            key={side}
            {...props}
            side={side}
            withLever={force && measure.key.endsWith('-force')}
            write={write}
          />
        ))}
      </div>
      <How {...props} />
    </div>
  );
}

/** Pain with it, why there is no value, and the lever arm of a force, on one side. */
function Beside({
  measure,
  entries,
  side,
  row,
  withLever,
  write,
}: RowProps & {
  side: Column;
  withLever: boolean;
  write: (side: Column, change: Change) => void;
}) {
  const entry = entries[side];
  return (
    <div>
      <div className="flex items-center gap-3">
        {side !== 'none' && (
          <span className="text-sm font-semibold" style={{ color: `var(--color-${side})` }}>
            {side === 'left' ? 'L' : 'R'}
          </span>
        )}
        {!measure.painless && (
          <span className="text-sm whitespace-nowrap text-ink-2">
            {say('pain')} <kbd className="rounded border border-line px-1 pointer-coarse:hidden">P</kbd>
          </span>
        )}
        {!measure.painless && <PainWithIt row={row} side={side} entry={entry} write={write} />}
      </div>
      <div className="mt-0.5 flex flex-wrap items-center gap-x-4 text-sm">
        <WhyNone measure={measure} side={side} entry={entry} write={write} />
        {entry.status === 'not-done' && (
          <Reason
            label={say('Why not done{{words}}', { words: side === 'none' ? '' : `, ${say(side)}` })}
            kept={entry.reason ?? ''}
            onChange={(reason) => write(side, (now) => ({ ...now, reason }))}
          />
        )}
        {withLever && <Lever entry={entry} side={side} write={write} />}
        <Again measure={measure} entry={entry} side={side} write={write} />
      </div>
    </div>
  );
}

/** Why there is no value, when there is none. */
function WhyNone({
  measure,
  side,
  entry,
  write,
}: {
  measure: MeasureDefinition;
  side: Column;
  entry: MeasureEntry;
  write: (side: Column, change: Change) => void;
}) {
  return (
    <span
      className="flex gap-4"
      role="group"
      aria-label={say('{{label}}{{words}}: why there is no value', {
        label: measure.label,
        words: side === 'none' ? '' : `, ${say(side)}`,
      })}
    >
      {(['not-done', 'unable', 'stopped-by-pain'] as const).map((status) => (
        <button
          key={status}
          type="button"
          aria-pressed={entry.status === status}
          className={`min-h-9 ${entry.status === status ? 'font-bold' : 'text-action'}`}
          onClick={() => write(side, (now) => ({ ...now, status: now.status === status ? 'taken' : status }))}
        >
          {STATUS_WORDS[status]}
        </button>
      ))}
    </span>
  );
}

/** Pain while it is measured: P leads to it from a reading, Enter on from it. It never stands in the way of the next reading. */
function PainWithIt({
  row,
  side,
  entry,
  write,
}: {
  row: number;
  side: Column;
  entry: MeasureEntry;
  write: (side: Column, change: Change) => void;
}) {
  return (
    <div
      className="origin-left scale-[0.82] pointer-coarse:scale-100"
      data-row={row}
      data-pain={side}
      tabIndex={-1}
      onFocus={(event) => {
        if (event.target === event.currentTarget)
          event.currentTarget.querySelector<HTMLElement>('[aria-pressed="true"], button')?.focus();
      }}
      onKeyDown={(event) => {
        if (event.key !== 'Enter') return;
        event.preventDefault();
        goTo(afterPain(row));
      }}
    >
      <ScoreKeys
        label={
          side === 'none'
            ? say('Pain while doing it')
            : say('Pain while doing it, {{side}}', { side: say(side) })
        }
        low={say('no pain')}
        high={say('worst')}
        value={entry.pain}
        onChange={(pain) => write(side, (now) => ({ ...now, pain }))}
      />
    </div>
  );
}

function Reason({
  label,
  kept,
  onChange,
}: {
  label: string;
  kept: string;
  onChange: (text: string) => void;
}) {
  const [text, setText] = useState(kept);
  return (
    <input
      className="field !min-h-9 max-w-56"
      aria-label={label}
      placeholder={say('why, in a few words')}
      maxLength={200}
      value={text}
      onChange={(e) => {
        setText(e.target.value);
        onChange(e.target.value);
      }}
    />
  );
}

function Lever({
  entry,
  side,
  write,
}: {
  entry: MeasureEntry;
  side: Column;
  write: (side: Column, change: Change) => void;
}) {
  const [text, setText] = useState(String(entry.parts?.['lever'] ?? ''));
  const value = Number(text.replace(',', '.'));
  const wrong = text !== '' && !(value >= 3 && value <= 60);
  return (
    <label className="flex items-center gap-1">
      {say('lever arm')}
      <input
        className="w-12 border-b-2 border-edge bg-transparent text-center font-semibold"
        inputMode="decimal"
        aria-label={say('Lever arm in cm, {{side}}', { side: say(side) })}
        aria-invalid={wrong}
        value={text}
        maxLength={5}
        onChange={(e) => {
          setText(e.target.value);
          const typed = Number(e.target.value.replace(',', '.'));
          const fine = e.target.value !== '' && typed >= 3 && typed <= 60;
          write(side, (now) => {
            const { lever: _lever, ...rest } = now.parts ?? {};
            return { ...now, parts: fine ? { ...rest, lever: typed } : rest };
          });
        }}
      />
      {say('cm')}
      {wrong && (
        <span role="alert" className="text-ease-deep">
          {say('from 3 to 60')}
        </span>
      )}
    </label>
  );
}

/** Taken again after an exercise was tried: a dose that helps shows within the visit. */
function Again({
  measure,
  entry,
  side,
  write,
}: {
  measure: RowProps['measure'];
  entry: MeasureEntry;
  side: Column;
  write: (side: Column, change: Change) => void;
}) {
  const first = entry.status === 'taken' ? combineTrials(measure, entry.trials).value : null;
  if (first === null || measure.levels !== null) return null;
  const again = entry.again;
  if (again === undefined) {
    return (
      <button
        type="button"
        className="text-action min-h-9"
        onClick={() => write(side, (now) => ({ ...now, again: { trials: [], pain: null } }))}
      >
        {say('Re-test')}
      </button>
    );
  }
  const after = combineTrials(measure, again.trials).value;
  const change = after === null ? null : compareValues(measure, first, after);
  return (
    <span className="flex items-center gap-2">
      <span>{say('after')}</span>
      <AgainField
        label={say('{{label}}{{words}}, again', {
          label: measure.label,
          words: side === 'none' ? '' : `, ${say(side)}`,
        })}
        value={again.trials[0] ?? null}
        min={measure.allowed.min}
        max={measure.allowed.max}
        onValue={(v) =>
          write(side, (now) => ({
            ...now,
            again: { pain: null, ...now.again, trials: v === null ? [] : [v] },
          }))
        }
      />
      {change !== null && (
        <b className={changeTone(change.direction)}>
          {say('{{words}}{{change}}{{unitAfter}} within the visit, {{class}}', {
            words: change.change > 0 ? '+' : '',
            change: shown(change.change),
            unitAfter: unitAfter(measure),
            class: sayKey(change.class),
          })}
        </b>
      )}
      <button
        type="button"
        className="text-action min-h-9"
        onClick={() => {
          write(side, ({ again: _again, ...rest }) => rest);
        }}
      >
        {say('drop it')}
      </button>
    </span>
  );
}

function AgainField({
  label,
  value,
  min,
  max,
  onValue,
}: {
  label: string;
  value: number | null;
  min: number;
  max: number;
  onValue: (value: number | null) => void;
}) {
  const [text, setText] = useState(value === null ? '' : String(value));
  const read = (t: string): number | null => {
    const n = Number(t.replace(',', '.'));
    return t.trim() === '' || !Number.isFinite(n) || n < min || n > max ? null : n;
  };
  const wrong = text.trim() !== '' && read(text) === null;
  return (
    <>
      <input
        className="w-12 border-b-2 border-edge bg-transparent text-center font-semibold"
        inputMode="decimal"
        aria-label={label}
        aria-invalid={wrong}
        value={text}
        maxLength={8}
        onChange={(e) => {
          setText(e.target.value);
          onValue(read(e.target.value));
        }}
      />
      {wrong && (
        <span role="alert" className="text-ease-deep">
          {say('from {{min}} to {{max}}', { min, max })}
        </span>
      )}
    </>
  );
}

/** How it is taken: the steps with their drawn setup, and method, position and taker where they are not the usual ones. */
function How(props: RowProps) {
  const { measure, entries, actions } = props;
  const columns = columnsOf(measure);
  const says = (side: Column) => entries[side].trials.length > 0 || entries[side].method !== undefined;
  const lead = columns.find(says) ?? columns[0] ?? 'left';
  const entry = entries[lead];
  const set = (change: Partial<MeasureEntry>) => {
    for (const side of columns) actions.write(measure, side, (now) => ({ ...now, ...change }));
  };
  return (
    <div className="mt-1 flex flex-wrap items-center gap-x-5 text-sm">
      <Choice
        label={say('Method')}
        options={measure.methods}
        value={entry.method ?? measure.methods[0] ?? ''}
        onChange={(method) => set({ method })}
      />
      <Choice
        label={say('Position')}
        options={measure.positions}
        value={entry.position ?? measure.positions[0] ?? ''}
        onChange={(position) => set({ position })}
      />
      <Choice
        label={say('Measured by')}
        options={['another', 'self']}
        words={TAKEN_BY}
        value={entry.by ?? 'another'}
        onChange={(by) => set({ by: by as 'another' | 'self' })}
      />
      {columns.length === 2 && (
        <>
          <label className="flex min-h-9 items-center gap-1.5">
            <input
              type="checkbox"
              checked={props.alternating}
              onChange={(e) => actions.setAlternating(e.target.checked)}
            />
            {say('alternate left and right')}
          </label>
          <button type="button" className="text-action min-h-9" onClick={() => actions.swap(measure)}>
            {say('Swap left and right')}
          </button>
        </>
      )}
      {measure.photo !== null && (
        <button type="button" className="text-action min-h-9" onClick={() => actions.openPhoto(measure)}>
          {say('From a picture')}
        </button>
      )}
      <details className="basis-full">
        <summary className="min-h-8 text-ink-2">
          {say('How it is taken')}
          <span className="ml-2">
            <Also of={measure} most={4} />
          </span>
        </summary>
        <div className="flex gap-5 pb-1">
          {measure.setup !== null && <Setup name={measure.setup} label={say(measure.positions[0] ?? '')} />}
          <div>
            <ol className="list-decimal pl-5">
              {measure.method.map((step) => (
                <li key={step}>{step}</li>
              ))}
            </ol>
            <p className="mt-1 text-ink-2">{`${measure.evidence.statement}. ${measure.evidence.source}.`}</p>
          </div>
        </div>
      </details>
    </div>
  );
}

const TAKEN_BY = { another: say('the clinician'), self: say('the patient') };

function Choice({
  label,
  options,
  words = {},
  value,
  onChange,
}: {
  label: string;
  options: readonly string[];
  /** How an option is called where its key does not say it. */
  words?: Readonly<Record<string, string>>;
  value: string;
  onChange: (value: string) => void;
}) {
  if (options.length < 2) return null;
  return (
    <label className="flex min-h-9 items-center gap-1.5">
      <span className="text-ink-2">{label}</span>
      <select
        className="min-h-9 border-b border-edge bg-transparent font-semibold"
        value={value}
        onChange={(e) => onChange(e.target.value)}
      >
        {options.map((o) => (
          <option key={o} value={o}>
            {words[o] ?? say(o)}
          </option>
        ))}
      </select>
    </label>
  );
}
