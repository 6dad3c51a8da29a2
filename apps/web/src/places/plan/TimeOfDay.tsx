import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import type { EpisodeView } from '@heathstep/contracts';
import {
  addDays,
  betterTime,
  type Busy,
  displaced,
  type ScheduleInput,
  SITTING_TIMES,
  weekdayOf,
  say,
} from '@heathstep/core';
import { ApiError, request } from '../../api/client.js';
import { keys } from '../../api/queries.js';
import { ChooseFile } from '../../parts/ChooseFile.js';
import { fullDay } from '../../parts/dates.js';
import type { PlanModel } from './planModel.js';
import { dayName } from './weekWords.js';

/** How far ahead a calendar is looked at. */
const LOOK_AHEAD_DAYS = 14;
/** Larger than any calendar someone lives by. */
const MOST_BYTES = 5_000_000;

/** When of the day the person exercises, and what their own calendar says to that. */
export function TimeOfDay({ episode, model }: { episode: EpisodeView; model: PlanModel }) {
  const client = useQueryClient();
  const [busy, setBusy] = useState<readonly Busy[] | null>(null);
  const time = episode.exerciseTime ?? SITTING_TIMES.usual;
  const change = useMutation({
    mutationFn: (exerciseTime: string) =>
      request<EpisodeView>('PATCH', `/api/episodes/${episode.id}`, {
        version: episode.version,
        exerciseTime,
      }),
    onSettled: () => client.invalidateQueries({ queryKey: keys.course(episode.id) }),
  });
  const error = change.error instanceof ApiError ? change.error : null;
  return (
    <div className="mt-3">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <label className="flex items-center gap-2">
          {say('At')}
          <TimeField key={time} time={time} put={(next) => change.mutate(next)} />
        </label>
        <ReadCalendar
          episode={episode}
          take={setBusy}
          word={busy === null ? say('Hold their calendar against it') : say('Another calendar')}
        />
      </div>
      {error !== null && (
        <p role="alert" className="text-sm text-ease-deep">
          {error.status === 409
            ? say('Someone else changed this a moment ago; it is read again, set the time once more.')
            : (error.at('/exerciseTime') ?? error.message)}
        </p>
      )}
      {busy !== null && <Against busy={busy} {...{ episode, model, time }} take={(t) => change.mutate(t)} />}
    </div>
  );
}

/** `7:05`, `705` and `07.05` are 07:05; anything else goes as it is, to be refused by its field. */
function asTime(typed: string): string {
  const read = /^(\d{1,2})[:.h]?(\d{2})$/.exec(typed.trim());
  return read === null ? typed.trim() : `${(read[1] ?? '').padStart(2, '0')}:${read[2] ?? ''}`;
}

/** Put when it is left or Enter is pressed, so that no half of a time is kept. */
function TimeField({ time, put }: { time: string; put: (time: string) => void }) {
  const [typed, setTyped] = useState(time);
  const done = () => {
    const next = asTime(typed);
    if (next === '' || next === time) setTyped(time);
    else put(next);
  };
  return (
    <input
      type="text"
      inputMode="numeric"
      maxLength={8}
      className="field w-20"
      aria-label={say('Time of day for the exercises')}
      value={typed}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={done}
      onKeyDown={(e) => {
        if (e.key === 'Enter') done();
      }}
    />
  );
}

function ReadCalendar({
  episode,
  take,
  word,
}: {
  episode: EpisodeView;
  take: (busy: readonly Busy[] | null) => void;
  word: string;
}) {
  const read = async (file: File): Promise<string | null> => {
    take(null);
    if (file.size > MOST_BYTES) return say('A calendar of more than 5 MB is not read.');
    const { busyIn, NoCalendar } = await import('../../parts/calendarFile.js');
    try {
      const from = addDays(episode.today, 1);
      take(busyIn(await file.text(), { from, days: LOOK_AHEAD_DAYS, timeZone: episode.timeZone }));
      return null;
    } catch (error) {
      if (!(error instanceof NoCalendar)) throw error;
      return error.message;
    }
  };
  return <ChooseFile {...{ word, read }} label={say('Calendar file')} accept="text/calendar,.ics" />;
}

interface AgainstProps {
  readonly busy: readonly Busy[];
  readonly episode: EpisodeView;
  readonly model: PlanModel;
  readonly time: string;
  readonly take: (time: string) => void;
}

/** On which of the coming days the time is taken, where there is room, and a time that does better. */
function Against({ busy, episode, model, time, take }: AgainstProps) {
  const { timeZone, today } = episode;
  const { lines } = model;
  const input = useMemo<ScheduleInput>(
    () => ({
      items: lines.map((l) => ({ item: l.item, definition: l.exercise })),
      from: addDays(today, 1),
      days: LOOK_AHEAD_DAYS,
      timeZone,
      busy,
      usualTime: time,
    }),
    [lines, today, timeZone, busy, time],
  );
  const { moved, full } = useMemo(() => displaced(input), [input]);
  const better = useMemo(() => betterTime(input), [input]);
  const days = [...new Set([...moved.map((i) => i.day), ...full.flatMap((c) => c.days)])].sort();
  const told = (day: string): string => {
    const room = moved
      .filter((i) => i.day === day)
      .map((i) => i.start.slice(11, 16))
      .sort();
    return room.length > 0 ? say('room at {{list}}', { list: room.join(say(' and ')) }) : say('no room');
  };
  return (
    <div className="mt-1 text-sm" role="status">
      {days.length === 0 ? (
        <p>
          {say('{{time}} is free on every day of the next {{days}} that has exercises.', {
            time,
            days: LOOK_AHEAD_DAYS,
          })}
        </p>
      ) : (
        <>
          <p>{say('Taken in the next {{days}} days:', { days: LOOK_AHEAD_DAYS })}</p>
          <ul className="columns-2 sm:columns-3">
            {days.map((day) => (
              <li key={day}>{`${dayName(weekdayOf(day))} ${fullDay(day)}, ${told(day)}`}</li>
            ))}
          </ul>
        </>
      )}
      {better !== null && (
        <button type="button" className="text-action min-h-11" onClick={() => take(better)}>
          {say('At {{better}} fewer are taken: set it', { better })}
        </button>
      )}
      <p className="text-ink-2">
        {say('Only the times were read, on this device; nothing of the calendar is sent or kept.')}
      </p>
    </div>
  );
}
