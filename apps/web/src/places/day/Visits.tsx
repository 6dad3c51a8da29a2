import { addDays, say } from '@heathstep/core';
import { TableLink } from '../../parts/TableLink.js';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { lazy, Suspense, useState } from 'react';
import { Link } from 'react-router';
import {
  APPOINTMENT_STATES,
  type AppointmentState,
  type AppointmentView,
  type DayItem,
} from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { keys, useSession } from '../../api/queries.js';
import { ChooseFile } from '../../parts/ChooseFile.js';
import type { TimedEvent } from '../../parts/calendarFile.js';
import { longDay } from '../../parts/dates.js';
import { FieldNote } from '../../parts/fields.js';
import { Judgement } from '../../parts/Judgement.js';
import { AddVisit } from '../../parts/AddVisit.js';
import { KINDS } from './kinds.js';

const TakeEvents = lazy(async () => ({ default: (await import('./TakeEvents.js')).TakeEvents }));

const STATE_WORDS: Record<AppointmentState, string> = {
  planned: say('planned'),
  came: say('came'),
  missed: say('did not come'),
  cancelled: say('cancelled'),
};

/** How far ahead the next days are shown, and a calendar is read. */
const AHEAD_DAYS = 13;
const READ_DAYS = 62;

/** The visits of today by time, those of the next days when asked, and the way in and out for calendars. */
export function Visits({
  today,
  list,
  items,
}: {
  today: string;
  list: readonly AppointmentView[];
  items: readonly DayItem[];
}) {
  const client = useQueryClient();
  const session = useSession();
  const [adding, setAdding] = useState(false);
  const [events, setEvents] = useState<readonly TimedEvent[] | null>(null);
  const changed = () =>
    Promise.all([
      client.invalidateQueries({ queryKey: keys.day }),
      client.invalidateQueries({ queryKey: ['appointments'] }),
    ]);
  const read = async (file: File): Promise<string | null> => {
    const { eventsIn, NoCalendar } = await import('../../parts/calendarFile.js');
    try {
      const timeZone = session.data?.clinic.timeZone ?? 'UTC';
      const found = eventsIn(await file.text(), { from: today, days: READ_DAYS, timeZone });
      if (found.length === 0) return say('No events with a time in the next two months.');
      setEvents(found);
      return null;
    } catch (failure) {
      if (failure instanceof NoCalendar) return failure.message;
      throw failure;
    }
  };
  return (
    <section aria-labelledby="visits" className="mt-6">
      <div className="flex flex-wrap items-baseline gap-x-6 gap-y-1">
        <h2 id="visits">{say('Visits today')}</h2>
        <span className="flex-1" />
        <button type="button" className="text-action min-h-11" onClick={() => setAdding(true)}>
          {say('Plan a visit')}
        </button>
        <ChooseFile
          word={say('From a calendar')}
          label={say('Calendar file')}
          accept="text/calendar,.ics"
          read={read}
        />
        <a
          className="text-action inline-flex min-h-11 items-center"
          href="/api/appointments/visits.ics"
          download
        >
          {say('To a calendar')}
        </a>
        <TableLink href="/api/appointments/visits.csv">{say('As a table')}</TableLink>
      </div>
      <List list={list} items={items} none={say('No visits are planned for today.')} changed={changed} />
      <Ahead today={today} items={items} changed={changed} />
      {adding && (
        <AddVisit
          day={today}
          cancel={() => setAdding(false)}
          done={async () => {
            await changed();
            setAdding(false);
          }}
        />
      )}
      {events !== null && (
        <Suspense fallback={null}>
          <TakeEvents events={events} changed={changed} close={() => setEvents(null)} />
        </Suspense>
      )}
    </section>
  );
}

function Ahead({
  today,
  items,
  changed,
}: {
  today: string;
  items: readonly DayItem[];
  changed: () => unknown;
}) {
  const [open, setOpen] = useState(false);
  const [from, to] = [addDays(today, 1), addDays(today, AHEAD_DAYS)];
  const next = useQuery({
    queryKey: ['appointments', from, to],
    queryFn: () => request<AppointmentView[]>('GET', `/api/appointments?from=${from}&to=${to}`),
    enabled: open,
  });
  const days = [...new Set((next.data ?? []).map((a) => a.day))];
  return (
    <details className="mt-1" onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="min-h-11 text-ink-2">{say('The next two weeks')}</summary>
      {next.error !== null && <FieldNote text={say('The next days could not be fetched. Open it again.')} />}
      {next.data?.length === 0 && <p className="text-ink-2">{say('Nothing is planned.')}</p>}
      {days.map((day) => (
        <div key={day} className="mt-2">
          <h3 className="text-sm text-ink-2">{longDay(day)}</h3>
          <List
            list={(next.data ?? []).filter((a) => a.day === day)}
            items={items}
            none=""
            changed={changed}
          />
        </div>
      ))}
    </details>
  );
}

function List({
  list,
  items,
  none,
  changed,
}: {
  list: readonly AppointmentView[];
  items: readonly DayItem[];
  none: string;
  changed: () => unknown;
}) {
  if (list.length === 0) return <p className="mt-1 text-ink-2">{none}</p>;
  return (
    <ul className="mt-2 border-t border-line">
      {list.map((a) => (
        <Row key={a.id} visit={a} own={items.filter((i) => i.personId === a.personId)} changed={changed} />
      ))}
    </ul>
  );
}

/** Straight to the visit where there is one complaint; else to the person, to choose. */
function placeOf(visit: AppointmentView, own: readonly DayItem[]): string {
  const [only, ...more] = own;
  return only?.episodeId == null || more.length > 0
    ? `/people/${visit.personId}`
    : `/episodes/${only.episodeId}/visit`;
}

function Row({
  visit,
  own,
  changed,
}: {
  visit: AppointmentView;
  own: readonly DayItem[];
  changed: () => unknown;
}) {
  const [wrong, setWrong] = useState<string | null>(null);
  const set = async (state: AppointmentState) => {
    setWrong(null);
    try {
      await request('PATCH', `/api/appointments/${visit.id}`, { version: visit.version, state });
    } catch (failure) {
      setWrong(failure instanceof ApiError ? failure.message : null);
    }
    await changed();
  };
  const pressing = own.find((i) => i.kind !== 'steady' && i.aside === null);
  const kind = pressing === undefined ? null : KINDS[pressing.kind];
  const over = visit.state === 'cancelled' || visit.state === 'missed';
  return (
    <li className="flex flex-wrap items-center gap-x-4 border-b border-line px-2 py-1">
      <span className="w-14 font-head text-lg font-semibold tabular-nums">{visit.time}</span>
      <Link
        to={placeOf(visit, own)}
        className={`inline-flex min-h-11 items-center font-semibold hover:underline ${over ? 'text-ink-2 line-through' : ''}`}
      >
        {visit.name}
      </Link>
      {kind !== null && (
        <Judgement tone={kind.tone} icon={kind.icon}>
          {kind.word}
        </Judgement>
      )}
      <span className="text-sm text-ink-2">{say('{{n}} min', { n: visit.minutes })}</span>
      <span className="min-w-32 flex-1 text-ink-2 max-sm:order-last max-sm:basis-full">{visit.note}</span>
      <select
        className="field w-auto min-h-11"
        aria-label={say('{{name}} at {{time}}', { name: visit.name, time: visit.time })}
        value={visit.state}
        onChange={(e) => void set(e.target.value as AppointmentState)}
      >
        {APPOINTMENT_STATES.map((s) => (
          <option key={s} value={s}>
            {STATE_WORDS[s]}
          </option>
        ))}
      </select>
      <FieldNote text={wrong} />
    </li>
  );
}
