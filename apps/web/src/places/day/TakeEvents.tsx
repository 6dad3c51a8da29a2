import { localTime, say } from '@heathstep/core';
import { useQueries } from '@tanstack/react-query';
import { useState } from 'react';
import type { PersonRow } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { useSession } from '../../api/queries.js';
import type { TimedEvent } from '../../parts/calendarFile.js';
import { shortDay } from '../../parts/dates.js';
import { FieldNote } from '../../parts/fields.js';
import { Window } from '../../parts/Window.js';
import { WhoField } from '../../parts/WhoField.js';

/** A calendar of more than this is read in parts. */
const MOST = 100;
const [SHORTEST, LONGEST] = [5, 240];

/** What became of taking an event. */
type Taken = 'taken' | 'already' | { readonly wrong: string };

const minutesOf = (event: TimedEvent): number =>
  Math.min(LONGEST, Math.max(SHORTEST, Math.round((event.end.getTime() - event.start.getTime()) / 60_000)));

/** Words that calendars write before a name. */
const nameIn = (summary: string): string => summary.replace(/^\s*[\p{L} ]{3,20}:\s*/u, '').slice(0, 80);

/** Events of a calendar, each to be taken as a visit of someone; whose name it says is found, the others are chosen. */
export function TakeEvents({
  events,
  changed,
  close,
}: {
  events: readonly TimedEvent[];
  changed: () => unknown;
  close: () => void;
}) {
  const shown = events.slice(0, MOST);
  const names = [...new Set(shown.map((e) => nameIn(e.summary)).filter((n) => n.trim() !== ''))];
  const found = useQueries({
    queries: names.map((name) => ({
      queryKey: ['people', 'named', name],
      queryFn: () => request<PersonRow[]>('GET', `/api/people?q=${encodeURIComponent(name)}&after=0`),
    })),
  });
  const whose = (event: TimedEvent): PersonRow | null => {
    const at = names.indexOf(nameIn(event.summary));
    const [only, ...more] = found[at]?.data ?? [];
    return only !== undefined && more.length === 0 ? only : null;
  };
  return (
    <Window title={say('From a calendar')} close={close} wide>
      <p className="mt-1 text-ink-2">
        {say('Take those that are visits. Nothing else of the calendar is kept.')}
        {events.length > MOST && ` ${say('The first {{most}} are shown.', { most: MOST })}`}
      </p>
      <ul className="mt-3 border-t border-line">
        {shown.map((event) => (
          <EventRow key={event.uid} event={event} found={whose(event)} changed={changed} />
        ))}
      </ul>
      <button type="button" className="action mt-4" onClick={close}>
        {say('Done')}
      </button>
    </Window>
  );
}

function EventRow({
  event,
  found,
  changed,
}: {
  event: TimedEvent;
  found: PersonRow | null;
  changed: () => unknown;
}) {
  const session = useSession();
  const [id] = useState(() => crypto.randomUUID());
  const [chosen, setChosen] = useState<PersonRow | null>(null);
  const [choosing, setChoosing] = useState(false);
  const [taken, setTaken] = useState<Taken | null>(null);
  const who = chosen ?? found;
  const at = localTime(event.start, session.data?.clinic.timeZone ?? 'UTC');
  const [day, time] = [at.slice(0, 10), at.slice(11, 16)];
  const take = async () => {
    if (who === null) return;
    const visit = {
      id,
      personId: who.id,
      day,
      time,
      minutes: minutesOf(event),
      note: '',
      uid: event.uid.slice(0, 300),
    };
    try {
      await request('POST', '/api/appointments', visit);
      setTaken('taken');
      await changed();
    } catch (failure) {
      if (!(failure instanceof ApiError)) throw failure;
      setTaken(failure.status === 409 ? 'already' : { wrong: failure.message });
    }
  };
  return (
    <li className="border-b border-line py-2">
      <div className="flex flex-wrap items-center gap-x-4">
        <span className="w-28 tabular-nums">
          {shortDay(day)}, <b>{time}</b>
        </span>
        <span className="min-w-0 flex-1 truncate">
          {event.summary === '' ? say('no title') : event.summary}
        </span>
        {taken === 'taken' ? (
          <span className="font-semibold text-go-deep">{say('taken')}</span>
        ) : taken === 'already' ? (
          <span className="text-ink-2">{say('was taken before')}</span>
        ) : (
          <>
            {who !== null && <b>{who.name}</b>}
            <button type="button" className="text-action min-h-11" onClick={() => setChoosing(!choosing)}>
              {who === null ? say('Who is it?') : say('someone else')}
            </button>
            <button
              type="button"
              className="action-quiet"
              disabled={who === null}
              onClick={() => void take()}
            >
              {say('Take')}
            </button>
          </>
        )}
      </div>
      {choosing && taken === null && (
        <div className="mt-1 max-w-sm">
          <WhoField
            asked={nameIn(event.summary)}
            choose={(person) => {
              setChosen(person);
              setChoosing(false);
            }}
          />
        </div>
      )}
      {taken !== null && typeof taken === 'object' && <FieldNote text={taken.wrong} />}
    </li>
  );
}
