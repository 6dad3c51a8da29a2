import { say } from '@heathstep/core';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { MeasureDefinition } from '@heathstep/core';
import { ApiError, request } from '../../api/client.js';
import { keys, type OwnMeasureRow } from '../../api/queries.js';
import { keep, stored } from '../../api/kept.js';
import { type Options, Refusal, SelectField, SendOrLeave, TextField } from '../../parts/fields.js';

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

/** Numbers as numbers where they are; what was left empty as not known. */
const asSent = (typed: Typed) => ({
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

const CHOICES: Partial<Record<keyof Typed, Options>> = {
  sides: [
    ['single', say('one value')],
    ['each', say('left and right')],
  ],
  combine: [
    ['last', say('the last')],
    ['mean', say('the mean')],
    ['best', say('the best')],
  ],
  direction: [
    ['more', say('more')],
    ['less', say('less')],
  ],
  step: [
    ['story', say('Story')],
    ['look', say('Look')],
    ['measure', say('Measure')],
    ['load', say('Load')],
    ['feel', say('Feel')],
  ],
  thresholdOp: [
    ['', say('none')],
    ['>=', '≥'],
    ['>', '>'],
    ['<=', '≤'],
    ['<', '<'],
  ],
};

/** What a measure is: its unit, sides and limits, from where on it means something, and how it is taken. */
function Fields({
  typed,
  error,
  put,
}: {
  typed: Typed;
  error: ApiError | null;
  put: (field: keyof Typed, value: string) => void;
}) {
  const text = (field: keyof Typed, label: string, hint = '') => (
    <TextField
      label={label}
      className="mt-2"
      placeholder={hint}
      value={typed[field]}
      onChange={(value) => put(field, value)}
      error={error?.at(`/${field}`)}
    />
  );
  const choice = (field: keyof Typed, label: string) => (
    <SelectField
      label={label}
      className="mt-2"
      options={CHOICES[field] ?? []}
      value={typed[field]}
      onChange={(value) => put(field, value)}
      error={error?.at(`/${field}`)}
    />
  );
  return (
    <>
      {text('label', say('Name'), say('Foot score total'))}
      <div className="grid grid-cols-2 gap-4">
        {text('unit', say('Unit, or none'))}
        {choice('sides', say('Sides'))}
        {text('trials', say('Trials'))}
        {choice('combine', say('What counts'))}
        {text('min', say('Lowest possible'))}
        {text('max', say('Highest possible'))}
        {choice('direction', say('Better is'))}
        {text('decimals', say('Decimals'))}
        {text('mdc', say('Detectable change'), say('empty: not known'))}
        {choice('step', say('Taken in'))}
      </div>
      <div className="grid grid-cols-[5rem_6rem_1fr] gap-3">
        {choice('thresholdOp', say('Threshold'))}
        {text('thresholdValue', say('Value'))}
        {text('thresholdMeaning', say('It means'))}
      </div>
      {text('source', say('Source'), say('where it and its limits come from'))}
      {text('method', say('How it is taken'))}
    </>
  );
}

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
        ...asSent(typed),
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
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        void send();
      }}
    >
      <h2>{row === null ? say('A measure of our own') : say('Change our measure')}</h2>
      <p className="mt-1 text-sm text-ink-2">
        {say('Of a licensed questionnaire only the total is kept, never its items.')}
      </p>
      <Fields typed={typed} error={error} put={put} />
      <Refusal error={error} />
      <SendOrLeave
        send={row === null ? say('Add it') : say('Keep the change')}
        leave={say('Leave it')}
        disabled={busy}
        onLeave={() => done(null)}
      />
    </form>
  );
}
