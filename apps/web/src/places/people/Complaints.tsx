import { say } from '@heathstep/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Pathway } from '@heathstep/content';
import type { EpisodePatch, EpisodeSummary, EpisodeView, PersonRow } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { keys } from '../../api/queries.js';
import { complaintName } from '../../parts/complaints.js';
import { fullDay } from '../../parts/dates.js';
import { endedWords, OUTCOME_OPTIONS } from '../../parts/Ended.js';
import { Refusal, SelectField, SendOrLeave, TextArea } from '../../parts/fields.js';

/** Every complaint of the person: what is under way, and what was closed and how. */
export function Complaints({ person, pathways }: { person: PersonRow; pathways: readonly Pathway[] }) {
  const [ending, setEnding] = useState<string | null>(null);
  const client = useQueryClient();
  const change = useMutation({
    mutationFn: ({ of, ...patch }: { of: EpisodeSummary } & Omit<EpisodePatch, 'version'>) =>
      request<EpisodeView>('PATCH', `/api/episodes/${of.id}`, { version: of.version, ...patch }),
    onSuccess: () => setEnding(null),
    onSettled: async () => {
      await client.invalidateQueries({ queryKey: keys.person(person.id) });
      await client.invalidateQueries({ queryKey: ['people'] });
      await client.invalidateQueries({ queryKey: ['course'] });
    },
  });
  const error = change.error instanceof ApiError ? change.error : null;
  return (
    <section className="mt-6">
      <h2>{say('Complaints')}</h2>
      <ul className="mt-2 border-t border-line">
        {person.episodes.map((e) => {
          const name = complaintName(e, pathways);
          const closed = e.status === 'closed';
          return (
            <li key={e.id} className="border-b border-line px-2 py-2">
              <div className="flex min-h-11 flex-wrap items-center gap-x-6">
                <Link
                  to={`/episodes/${e.id}/${e.stage === null ? 'visit' : 'course'}`}
                  className="text-action flex min-h-11 items-center font-semibold max-sm:w-full sm:flex-1"
                >
                  {name}
                </Link>
                <span className="text-sm text-ink-2">
                  {closed ? endedWords(e.ended) : (e.stageName ?? say('not started'))}
                  {say(', since {{startedAt}}', { startedAt: fullDay(e.startedAt) })}
                </span>
                <button
                  type="button"
                  className="text-action min-h-11 text-sm"
                  aria-label={`${closed ? say('Open again') : say('Close')}: ${name}`}
                  aria-expanded={closed ? undefined : ending === e.id}
                  disabled={change.isPending}
                  onClick={() => {
                    change.reset();
                    if (closed) change.mutate({ of: e, status: 'open' });
                    else setEnding(ending === e.id ? null : e.id);
                  }}
                >
                  {closed ? say('Open again') : say('Close')}
                </button>
              </div>
              {ending === e.id && (
                <End
                  name={name}
                  error={error}
                  busy={change.isPending}
                  leave={() => setEnding(null)}
                  close={(end) => change.mutate({ of: e, status: 'closed', ...end })}
                />
              )}
            </li>
          );
        })}
      </ul>
      {ending === null && error !== null && (
        <p role="alert" className="mt-2 text-ease-deep">
          {error.message}
        </p>
      )}
    </section>
  );
}

/** How it ended, before a complaint is closed; it says what closing does. */
function End({
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
