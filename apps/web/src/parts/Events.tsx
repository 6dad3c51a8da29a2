import { say } from '@heathstep/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { type SyntheticEvent, useRef, useState } from 'react';
import { EVENT_KINDS, EVENT_WORDS, type EventKind, type EventView } from '@heathstep/contracts';
import { ApiError, request } from '../api/client.js';
import { shortDay } from './dates.js';
import { Refusal, SelectField, SendOrLeave, TextField } from './fields.js';
import { sentence } from './Judgement.js';
import { Window } from './Window.js';

const keyOf = (episodeId: string) => ['events', episodeId] as const;

const NONE: readonly EventView[] = [];

/** What may have bent the course, the first first; none while it is loading. */
export function useEvents(episodeId: string): readonly EventView[] {
  return (
    useQuery({
      queryKey: keyOf(episodeId),
      queryFn: () => request<EventView[]>('GET', `/api/episodes/${episodeId}/events`),
    }).data ?? NONE
  );
}

/** An event in a line. */
export const eventText = ({ kind, note }: Pick<EventView, 'kind' | 'note'>): string =>
  note === '' ? say(EVENT_WORDS[kind]) : `${say(EVENT_WORDS[kind])}: ${note}`;

/** What happened, numbered as on the charts, with the way to add and to take back. */
export function Events({
  episodeId,
  today,
  events,
}: {
  episodeId: string;
  today: string;
  events: readonly EventView[];
}) {
  const client = useQueryClient();
  const [adding, setAdding] = useState(false);
  const [error, setError] = useState<ApiError | null>(null);
  const keep = (list: EventView[]) => client.setQueryData(keyOf(episodeId), list);
  const remove = async (id: string) => {
    setError(null);
    try {
      keep(await request<EventView[]>('DELETE', `/api/events/${id}`));
    } catch (failure) {
      setError(failure instanceof ApiError ? failure : null);
    }
  };
  return (
    <section aria-label={say('What happened meanwhile')} className="mt-2 text-sm">
      <ol>
        {events.map((e, i) => (
          <li key={e.id} className="flex flex-wrap items-baseline gap-x-3">
            <span className="w-4 text-right font-semibold text-heather">{i + 1}</span>
            <span>{shortDay(e.day)}</span>
            <span className="min-w-0 flex-1">{sentence(eventText(e))}</span>
            <button
              type="button"
              className="text-action min-h-9"
              aria-label={say('Take back: {{event}}', { event: eventText(e) })}
              onClick={() => void remove(e.id)}
            >
              {say('Take back')}
            </button>
          </li>
        ))}
      </ol>
      <Refusal error={error} />
      <button type="button" className="text-action min-h-9" onClick={() => setAdding(true)}>
        {say('Something happened')}
      </button>
      {adding && (
        <Window title={say('Something happened')} close={() => setAdding(false)}>
          <AddEvent
            episodeId={episodeId}
            today={today}
            leave={() => setAdding(false)}
            added={(list) => {
              keep(list);
              setAdding(false);
            }}
          />
        </Window>
      )}
    </section>
  );
}

function AddEvent({
  episodeId,
  today,
  leave,
  added,
}: {
  episodeId: string;
  today: string;
  leave: () => void;
  added: (list: EventView[]) => void;
}) {
  const id = useRef(crypto.randomUUID());
  const [kind, setKind] = useState<EventKind | ''>('');
  const [day, setDay] = useState(today);
  const [note, setNote] = useState('');
  const [error, setError] = useState<ApiError | null>(null);
  const [busy, setBusy] = useState(false);
  const submit = async (event: SyntheticEvent) => {
    event.preventDefault();
    setBusy(true);
    setError(null);
    try {
      added(
        await request<EventView[]>('POST', `/api/episodes/${episodeId}/events`, {
          id: id.current,
          kind,
          day,
          note,
        }),
      );
    } catch (failure) {
      setError(failure instanceof ApiError ? failure : null);
      setBusy(false);
    }
  };
  return (
    <form className="mt-2 space-y-3" noValidate onSubmit={(e) => void submit(e)}>
      <p className="text-sm text-ink-2">
        {say('It is marked on the charts, so that a bend in the course is not taken for the treatment’s.')}
      </p>
      <SelectField
        label={say('What it was')}
        options={[['', say('choose')], ...EVENT_KINDS.map((k) => [k, say(EVENT_WORDS[k])] as const)]}
        value={kind}
        onChange={(next) => setKind(next as EventKind | '')}
        error={error?.at('/kind')}
      />
      <TextField
        label={say('Day')}
        type="date"
        max={today}
        value={day}
        onChange={setDay}
        error={error?.at('/day')}
      />
      <TextField
        label={say('In a few words')}
        maxLength={200}
        value={note}
        onChange={setNote}
        error={error?.at('/note')}
      />
      <Refusal error={error} />
      <SendOrLeave send={say('Keep it')} leave={say('Leave it')} disabled={busy} onLeave={leave} />
    </form>
  );
}
