import { say } from '@heathstep/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { EpisodePatch, EpisodeSummary, EpisodeView, Reopened } from '@heathstep/contracts';
import { ApiError, request } from '../api/client.js';
import { keys } from '../api/queries.js';
import { OUTCOME_OPTIONS } from './Ended.js';
import { FieldNote, Refusal, SelectField, SendOrLeave, TextArea } from './fields.js';
import { RadioRow } from './RadioRow.js';

/** Closes complaints of a person, or opens them again. */
export function useEpisodeChange(personId: string, done: () => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({
      of,
      ...patch
    }: { of: { readonly id: string; readonly version: number } } & Omit<EpisodePatch, 'version'>) =>
      request<EpisodeView>('PATCH', `/api/episodes/${of.id}`, { version: of.version, ...patch }),
    onSuccess: done,
    onSettled: async () => {
      await client.invalidateQueries({ queryKey: keys.person(personId) });
      await client.invalidateQueries({ queryKey: ['people'] });
      await client.invalidateQueries({ queryKey: ['course'] });
      await client.invalidateQueries({ queryKey: keys.day });
    },
  });
}

/** How it ended, before a complaint is closed; it says what closing does. */
export function End({
  name,
  error,
  busy,
  leave,
  close,
}: {
  name: string;
  error: ApiError | null;
  busy: boolean;
  leave: () => void;
  close: (end: Pick<EpisodePatch, 'outcome' | 'note'>) => void;
}) {
  const [outcome, setOutcome] = useState('');
  const [note, setNote] = useState('');
  const chosen = OUTCOME_OPTIONS.find(([v]) => v === outcome)?.[0] as EpisodePatch['outcome'] | undefined;
  return (
    <form
      aria-label={say('Close: {{name}}', { name })}
      className="mt-2 max-w-xl space-y-3 pb-2"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        close({ ...(chosen === undefined ? {} : { outcome: chosen }), note });
      }}
    >
      <p className="text-sm text-ink-2">
        {say(
          'Nothing new is begun or prescribed for it after this, and it leaves the day. With the last open complaint the page at home ends too. It can be opened again.',
        )}
      </p>
      <SelectField
        label={say('How it ended')}
        options={[['', say('choose')], ...OUTCOME_OPTIONS]}
        value={outcome}
        onChange={setOutcome}
        error={error?.at('/outcome')}
      />
      <TextArea
        label={say('What to know of it later')}
        hint={say('what was reached, what to do if it comes back')}
        field="field min-h-20 w-full"
        value={note}
        onChange={setNote}
        error={error?.at('/note')}
      />
      {error?.at('/status') != null && (
        <p role="alert" className="text-ease-deep">{`${error.message}: ${error.at('/status') ?? ''}`}</p>
      )}
      <Refusal error={error} />
      <SendOrLeave send={say('Close it')} leave={say('Leave it open')} disabled={busy} onLeave={leave} />
    </form>
  );
}

const WHY_AGAIN: readonly { readonly value: Reopened; readonly word: string }[] = [
  { value: 'came-back', word: say('It came back') },
  { value: 'closed-too-early', word: say('It was closed too early') },
];

/** Why a complaint is opened again, and what follows from that. */
export function Reopen({
  name,
  again,
  error,
  busy,
  leave,
  open,
}: {
  name: string;
  again: EpisodeSummary['again'];
  error: ApiError | null;
  busy: boolean;
  leave: () => void;
  open: (why: Pick<EpisodePatch, 'reopened'>) => void;
}) {
  const [why, setWhy] = useState<Reopened | null>(null);
  return (
    <form
      aria-label={say('Open again: {{name}}', { name })}
      className="mt-2 max-w-xl space-y-3 pb-2"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        open(why === null ? {} : { reopened: why });
      }}
    >
      <RadioRow
        label={say('Why it is opened again')}
        className="flex flex-wrap gap-2"
        value={why}
        options={WHY_AGAIN}
        onChange={setWhy}
        itemClass={(_, on) =>
          `min-h-11 rounded-lg border-2 px-3 font-semibold ${on ? 'border-heather bg-heather-wash' : 'border-line'}`
        }
      />
      {error?.at('/reopened') != null && <FieldNote text={error.at('/reopened') ?? ''} />}
      {why === 'closed-too-early' && (
        <p className="text-sm text-ink-2">
          {say('It goes on where it was, with the plan that stands. The page at home needs a new link.')}
        </p>
      )}
      {why === 'came-back' && (
        <div className="text-sm text-ink-2">
          <p>
            {say(
              'What was given before counts no more, here and at home. Safety is asked anew at a visit before anything is prescribed.',
            )}
          </p>
          {again !== null && again.stageName !== null && (
            <p className="mt-1">
              {say('It begins again at {{stage}}.', { stage: again.stageName })}{' '}
              {again.text !== '' && say('By the protocol: {{text}}.', { text: again.text })}
            </p>
          )}
        </div>
      )}
      <Refusal error={error} />
      <SendOrLeave send={say('Open it')} leave={say('Leave it closed')} disabled={busy} onLeave={leave} />
    </form>
  );
}
