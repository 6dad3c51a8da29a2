import { useQueryClient } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import type { MeasureDefinition } from '@heathstep/core';
import { ApiError, request } from '../../api/client.js';
import { keys, type OwnMeasureRow } from '../../api/queries.js';
import { keep, stored } from '../../api/useEntries.js';

const DRAFT = 'heathstep.own-measure.draft';

/** What is typed, as it is typed; numbers are read when it is sent. */
type Typed = Record<
  | 'label'
  | 'unit'
  | 'sides'
  | 'trials'
  | 'combine'
  | 'direction'
  | 'min'
  | 'max'
  | 'decimals'
  | 'mdc'
  | 'thresholdOp'
  | 'thresholdValue'
  | 'thresholdMeaning'
  | 'source'
  | 'step'
  | 'method',
  string
>;

const EMPTY: Typed = {
  label: '',
  unit: '',
  sides: 'single',
  trials: '1',
  combine: 'last',
  direction: 'more',
  min: '0',
  max: '100',
  decimals: '0',
  mdc: '',
  thresholdOp: '',
  thresholdValue: '',
  thresholdMeaning: '',
  source: '',
  step: 'story',
  method: '',
};

function typedFrom(row: OwnMeasureRow | null): Typed {
  if (row === null) return { ...EMPTY, ...stored<{ typed?: Typed }>(DRAFT, {}).typed };
  const filled = row.filled as unknown as Record<string, string | number | null | undefined>;
  return Object.fromEntries(
    Object.keys(EMPTY).map((k) => [k, filled[k] == null ? '' : String(filled[k])]),
  ) as Typed;
}

const number = (text: string): number | string => {
  const value = Number(text.replace(',', '.'));
  return text.trim() === '' || Number.isNaN(value) ? text : value;
};
const orNull = (text: string): number | string | null => (text.trim() === '' ? null : number(text));

/** Adds or changes a measure of the clinic's own; what is typed survives a refusal, a lost server and leaving the page. */
export function OwnMeasure({ row, done }: { row: OwnMeasureRow | null; done: (key: string | null) => void }) {
  const client = useQueryClient();
  const [id] = useState(() => row?.filled.id ?? stored<{ id?: string }>(DRAFT, {}).id ?? crypto.randomUUID());
  const [typed, setTyped] = useState(() => typedFrom(row));
  const [error, setError] = useState<ApiError | null>(null);
  const [busy, setBusy] = useState(false);
  const put = (field: keyof Typed, value: string) => {
    const next = { ...typed, [field]: value };
    setTyped(next);
    if (row === null) keep(DRAFT, { id, typed: next }, false);
  };
  const send = async () => {
    setBusy(true);
    setError(null);
    try {
      const made = await request<MeasureDefinition>('POST', '/api/measures', {
        id,
        version: row?.version ?? 0,
        ...typed,
        trials: number(typed.trials),
        min: number(typed.min),
        max: number(typed.max),
        decimals: number(typed.decimals),
        mdc: orNull(typed.mdc),
        thresholdValue: orNull(typed.thresholdValue),
        thresholdOp: typed.thresholdOp === '' ? null : typed.thresholdOp,
        thresholdMeaning: typed.thresholdMeaning.trim() === '' ? null : typed.thresholdMeaning,
      });
      keep(DRAFT, null, true);
      await client.invalidateQueries({ queryKey: keys.content });
      done(made.key);
    } catch (failure) {
      if (!(failure instanceof ApiError)) throw failure;
      setError(failure);
      setBusy(false);
    }
  };
  const text = (field: keyof Typed, label: string, hint = '') => (
    <Field label={label} error={error?.at(`/${field}`) ?? null}>
      <input
        className="field"
        value={typed[field]}
        placeholder={hint}
        maxLength={400}
        aria-label={label}
        onChange={(e) => put(field, e.target.value)}
      />
    </Field>
  );
  const choice = (field: keyof Typed, label: string, options: readonly (readonly [string, string])[]) => (
    <Field label={label} error={error?.at(`/${field}`) ?? null}>
      <select
        className="field"
        aria-label={label}
        value={typed[field]}
        onChange={(e) => put(field, e.target.value)}
      >
        {options.map(([value, name]) => (
          <option key={value} value={value}>
            {name}
          </option>
        ))}
      </select>
    </Field>
  );
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        void send();
      }}
    >
      <h2>{row === null ? 'A measure of our own' : 'Change our measure'}</h2>
      <p className="mt-1 text-sm text-ink-2">
        Of a licensed questionnaire only the total is kept, never its items.
      </p>
      {text('label', 'Name', 'Foot score total')}
      <div className="grid grid-cols-2 gap-4">
        {text('unit', 'Unit, or none')}
        {choice('sides', 'Sides', [
          ['single', 'one value'],
          ['each', 'left and right'],
        ])}
        {text('trials', 'Trials')}
        {choice('combine', 'What counts', [
          ['last', 'the last'],
          ['mean', 'the mean'],
          ['best', 'the best'],
        ])}
        {text('min', 'Lowest possible')}
        {text('max', 'Highest possible')}
        {choice('direction', 'Better is', [
          ['more', 'more'],
          ['less', 'less'],
        ])}
        {text('decimals', 'Decimals')}
        {text('mdc', 'Detectable change', 'empty: not known')}
        {choice('step', 'Taken in', [
          ['story', 'Story'],
          ['look', 'Look'],
          ['measure', 'Measure'],
          ['load', 'Load'],
          ['feel', 'Feel'],
        ])}
      </div>
      <div className="grid grid-cols-[5rem_6rem_1fr] gap-3">
        {choice('thresholdOp', 'Threshold', [
          ['', 'none'],
          ['>=', '≥'],
          ['>', '>'],
          ['<=', '≤'],
          ['<', '<'],
        ])}
        {text('thresholdValue', 'Value')}
        {text('thresholdMeaning', 'It means')}
      </div>
      {text('source', 'Source', 'where it and its limits come from')}
      {text('method', 'How it is taken')}
      {error !== null && (error.problem.errors ?? []).length === 0 && (
        <p role="alert" className="text-sm text-ease-deep">
          {error.passing ? 'The server cannot be reached. What you typed is kept; try again.' : error.message}
        </p>
      )}
      <div className="mt-3 flex gap-3">
        <button type="submit" className="action" disabled={busy}>
          {row === null ? 'Add it' : 'Keep the change'}
        </button>
        <button type="button" className="action-quiet" onClick={() => done(null)}>
          Leave it
        </button>
      </div>
    </form>
  );
}

function Field({ label, error, children }: { label: string; error: string | null; children: ReactNode }) {
  return (
    <div className="mt-2">
      <span className="text-sm text-ink-2" aria-hidden>
        {label}
      </span>
      {children}
      <span role="alert" className="block min-h-5 text-sm text-ease-deep">
        {error}
      </span>
    </div>
  );
}
