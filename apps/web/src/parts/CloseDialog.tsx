import { say } from '@heathstep/core';
import { useState, type SyntheticEvent } from 'react';
import type { ClosingWay } from '@heathstep/core';
import { ApiError } from '../api/client.js';
import { FieldNote, Refusal, SelectField, SendOrLeave, TextArea, TextField } from './fields.js';
import { Window } from './Window.js';
import { RadioRow } from './RadioRow.js';

export interface ClosureValues {
  readonly kind: 'closed' | 'overridden';
  readonly assessedOn?: string;
  readonly assessedBy?: string;
  readonly done?: string;
  readonly text: string;
}

interface CloseDialogProps {
  readonly title: string;
  readonly today: string;
  /** How it can be assessed, and whether that closes it; left out where a result in words will do. */
  readonly ways?: readonly ClosingWay[];
  readonly overridable: boolean;
  readonly send: (values: ClosureValues) => Promise<void>;
  readonly cancel: () => void;
}

const KINDS = [
  { value: 'closed', word: say('Assessed, with a result') },
  { value: 'overridden', word: say('Go on, with a reason') },
] as const;

/** Date, who and result; or, where it is allowed, a typed reason to go on. */
export function CloseDialog(props: CloseDialogProps) {
  return (
    <Window title={props.title} close={props.cancel}>
      <ClosingForm {...props} />
    </Window>
  );
}

function ClosingForm({ today, ways = [], overridable, send, cancel }: CloseDialogProps) {
  const [kind, setKind] = useState<ClosureValues['kind']>('closed');
  const [assessedOn, setAssessedOn] = useState(today);
  const [assessedBy, setAssessedBy] = useState('');
  const [text, setText] = useState('');
  const [done, setDone] = useState('');
  const [error, setError] = useState<ApiError | null>(null);
  const [busy, setBusy] = useState(false);
  const [tried, setTried] = useState(false);
  const closing = kind === 'closed';
  const submit = async (event: SyntheticEvent) => {
    event.preventDefault();
    setBusy(true);
    setTried(true);
    setError(null);
    try {
      await send(
        closing ? { kind, assessedOn, assessedBy, text, ...(done === '' ? {} : { done }) } : { kind, text },
      );
    } catch (failure) {
      if (failure instanceof ApiError) setError(failure);
      setBusy(false);
    }
  };
  return (
    <>
      {overridable && (
        <RadioRow
          label={say('How it ends')}
          className="mt-4 flex gap-2"
          value={kind}
          options={KINDS}
          onChange={setKind}
          itemClass={(_, on) =>
            `min-h-11 flex-1 rounded-lg border-2 px-3 font-semibold ${on ? 'border-heather bg-heather-wash' : 'border-line'}`
          }
        />
      )}
      <form className="mt-4 space-y-3" onSubmit={(e) => void submit(e)} noValidate>
        {closing && (
          <ByWhom
            today={today}
            assessedOn={assessedOn}
            setAssessedOn={setAssessedOn}
            error={error}
            assessedBy={assessedBy}
            setAssessedBy={setAssessedBy}
          />
        )}
        {closing && ways.length > 0 && (
          <WhatWasDone
            ways={ways}
            value={done}
            onChange={setDone}
            error={tried && done === '' ? say('Choose what was done') : error?.at('/done')}
          />
        )}
        <TextArea
          label={closing ? say('Result, in words') : say('Why it is right to go on')}
          field="field min-h-20"
          value={text}
          onChange={setText}
          error={error?.at('/text')}
        />
        <Refusal error={error} />
        <SendOrLeave
          send={closing ? say('Close it') : say('Override it')}
          leave={say('Leave it open')}
          disabled={busy || (closing && ways.find((w) => w.key === done)?.clears === false)}
          onLeave={cancel}
        />
      </form>
    </>
  );
}

/** When it was assessed and by whom. */
function ByWhom({
  today,
  assessedOn,
  setAssessedOn,
  error,
  assessedBy,
  setAssessedBy,
}: {
  today: string;
  assessedOn: string;
  setAssessedOn: (next: string) => void;
  error: ApiError | null;
  assessedBy: string;
  setAssessedBy: (next: string) => void;
}) {
  return (
    <div className="grid grid-cols-2 gap-4">
      <TextField
        label={say('Assessed on')}
        type="date"
        max={today}
        value={assessedOn}
        onChange={setAssessedOn}
        error={error?.at('/assessedOn')}
      />
      <TextField
        label={say('By whom')}
        maxLength={120}
        value={assessedBy}
        onChange={setAssessedBy}
        error={error?.at('/assessedBy')}
      />
    </div>
  );
}

/** How it was assessed; a way that does not close it says so, and what would. */
function WhatWasDone({
  ways,
  value,
  onChange,
  error,
}: {
  ways: readonly ClosingWay[];
  value: string;
  onChange: (key: string) => void;
  error: string | null | undefined;
}) {
  const clearing = ways.filter((w) => w.clears).map((w) => w.label);
  return (
    <div>
      <SelectField
        label={say('What was done')}
        options={[
          ['', say('Choose')],
          ...ways.map(
            (w) =>
              [w.key, w.clears ? w.label : say('{{label}} (does not close it)', { label: w.label })] as const,
          ),
        ]}
        value={value}
        onChange={onChange}
        error={error}
      />
      {ways.find((w) => w.key === value)?.clears === false && (
        <FieldNote
          text={say('This does not close it. What does: {{list}}.', { list: clearing.join('; ') })}
        />
      )}
    </div>
  );
}
