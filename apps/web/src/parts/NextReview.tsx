import { openDayFrom, say } from '@heathstep/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { AppointmentView, CourseView } from '@heathstep/contracts';
import { request } from '../api/client.js';
import { keys, useSession } from '../api/queries.js';
import { AddVisit } from './AddVisit.js';
import { longDay } from './dates.js';

const keyOf = (personId: string) => ['appointments', 'of', personId] as const;

/** So many planned visits are named. */
const MOST_SHOWN = 3;

/** When the next review is due by the stage, the visit that is planned, and the way to plan one. */
export function NextReview({ course }: { course: Pick<CourseView, 'episode' | 'nextReview'> }) {
  const { episode, nextReview } = course;
  const { person, today } = episode;
  const client = useQueryClient();
  const hours = useSession().data?.clinic.defaults.hours ?? [];
  const [adding, setAdding] = useState(false);
  const planned = useQuery({
    queryKey: keyOf(person.id),
    queryFn: () => request<AppointmentView[]>('GET', `/api/people/${person.id}/appointments`),
    enabled: episode.status === 'open',
  });
  if (episode.status !== 'open' || nextReview === null) return null;
  const { due, everyDays } = nextReview;
  const list = planned.data ?? [];
  const [next] = list;
  return (
    <section aria-label={say('Next review')} className="mt-4 text-sm">
      <h3 className="text-sm">{say('Next review')}</h3>
      <p className={due < today ? 'font-semibold text-hold-deep' : ''}>
        {due < today
          ? say('Was due {{due}}, every {{everyDays}} days in this stage.', { due: longDay(due), everyDays })
          : say('Due {{due}}, every {{everyDays}} days in this stage.', { due: longDay(due), everyDays })}
      </p>
      {list.slice(0, MOST_SHOWN).map((a) => (
        <p key={a.id}>
          {say('Planned: {{day}}, {{time}}.', { day: longDay(a.day), time: a.time })}{' '}
          {a === next && a.day > due && due >= today && <b>{say('That is later than due.')}</b>}
        </p>
      ))}
      {planned.data !== undefined && (
        <button type="button" className="text-action min-h-11" onClick={() => setAdding(true)}>
          {next === undefined ? say('Plan the visit') : say('Plan another')}
        </button>
      )}
      {adding && (
        <AddVisit
          day={openDayFrom(hours, due < today ? today : due)}
          who={person}
          done={async () => {
            setAdding(false);
            await client.invalidateQueries({ queryKey: keyOf(person.id) });
            await client.invalidateQueries({ queryKey: keys.day });
          }}
          cancel={() => setAdding(false)}
        />
      )}
    </section>
  );
}
