import { Dialog } from 'radix-ui';
import { useState, type SyntheticEvent } from 'react';
import type { ClosingWay } from '@heathstep/core';
import { ApiError } from '../api/client.js';

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

/** Date, who and result; or, where it is allowed, a typed reason to go on. */
export function CloseDialog({ title, today, ways = [], overridable, send, cancel }: CloseDialogProps) {
  const [kind, setKind] = useState<'closed' | 'overridden'>('closed');
  const [assessedOn, setAssessedOn] = useState(today);
  const [assessedBy, setAssessedBy] = useState('');
  const [text, setText] = useState('');
  const [done, setDone] = useState('');
  const way = ways.find((w) => w.key === done);
  const [error, setError] = useState<ApiError | null>(null);
  const [busy, setBusy] = useState(false);
  const [tried, setTried] = useState(false);
  const submit = async (event: SyntheticEvent) => {
    event.preventDefault();
    setBusy(true);
    setTried(true);
    setError(null);
    try {
      await send(
        kind === 'closed'
          ? { kind, assessedOn, assessedBy, text, ...(done === '' ? {} : { done }) }
          : { kind, text },
      );
    } catch (failure) {
      if (failure instanceof ApiError) setError(failure);
      setBusy(false);
    }
  };
  const note = (pointer: string) => (
    <span role="alert" className="block min-h-5 text-sm text-ease-deep">
      {error?.at(pointer)}
    </span>
  );
  return (
    <Dialog.Root open onOpenChange={(open) => !open && cancel()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/30" />
        <Dialog.Content
          className="fixed left-1/2 top-1/2 z-50 w-[30rem] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 rounded-xl bg-paper p-6 shadow-2xl"
          aria-describedby={undefined}
        >
          <Dialog.Title asChild>
            <h2>{title}</h2>
          </Dialog.Title>
          {overridable && (
            <div className="mt-4 flex gap-2" role="group" aria-label="How it ends">
              {(['closed', 'overridden'] as const).map((k) => (
                <button
                  key={k}
                  type="button"
                  aria-pressed={kind === k}
                  className={`min-h-11 flex-1 rounded-lg border-2 px-3 font-semibold ${kind === k ? 'border-heather bg-heather-wash' : 'border-line'}`}
                  onClick={() => setKind(k)}
                >
                  {k === 'closed' ? 'Assessed, with a result' : 'Go on, with a reason'}
                </button>
              ))}
            </div>
          )}
          <form className="mt-4" onSubmit={(e) => void submit(e)} noValidate>
            {kind === 'closed' && (
              <div className="grid grid-cols-2 gap-4">
                <label>
                  <span className="text-sm text-ink-2">Assessed on</span>
                  <input
                    className="field"
                    type="date"
                    value={assessedOn}
                    max={today}
                    onChange={(e) => setAssessedOn(e.target.value)}
                  />
                  {note('/assessedOn')}
                </label>
                <label>
                  <span className="text-sm text-ink-2">By whom</span>
                  <input
                    className="field"
                    value={assessedBy}
                    maxLength={120}
                    onChange={(e) => setAssessedBy(e.target.value)}
                  />
                  {note('/assessedBy')}
                </label>
              </div>
            )}
            {kind === 'closed' && ways.length > 0 && (
              <label className="block">
                <span className="text-sm text-ink-2">What was done</span>
                <select className="field" value={done} onChange={(e) => setDone(e.target.value)}>
                  <option value="">Choose</option>
                  {ways.map((w) => (
                    <option key={w.key} value={w.key}>
                      {w.clears ? w.label : `${w.label} (does not close it)`}
                    </option>
                  ))}
                </select>
                {way?.clears === false && (
                  <span role="alert" className="block text-sm text-ease-deep">
                    {`This does not close it. What does: ${ways
                      .filter((w) => w.clears)
                      .map((w) => w.label)
                      .join('; ')}.`}
                  </span>
                )}
                {tried && done === '' ? (
                  <span role="alert" className="block min-h-5 text-sm text-ease-deep">
                    Choose what was done
                  </span>
                ) : (
                  note('/done')
                )}
              </label>
            )}
            <label className="block">
              <span className="text-sm text-ink-2">
                {kind === 'closed' ? 'Result, in words' : 'Why it is right to go on'}
              </span>
              <textarea
                className="field min-h-20"
                value={text}
                maxLength={2000}
                onChange={(e) => setText(e.target.value)}
              />
              {note('/text')}
            </label>
            {error !== null && (error.problem.errors ?? []).length === 0 && (
              <p role="alert" className="text-sm text-ease-deep">
                {error.message}
              </p>
            )}
            <div className="mt-2 flex gap-3">
              <button
                type="submit"
                className="action"
                disabled={busy || (kind === 'closed' && way?.clears === false)}
              >
                {kind === 'closed' ? 'Close it' : 'Override it'}
              </button>
              <button type="button" className="action-quiet" onClick={cancel}>
                Leave it open
              </button>
            </div>
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
