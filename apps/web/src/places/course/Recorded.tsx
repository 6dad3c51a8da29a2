import { RUN_DAYS, RUN_RISE_PERCENT, say, shown } from '@heathstep/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { CourseView, OutingsView, OutingView } from '@heathstep/contracts';
import { ApiError, request, sendFile } from '../../api/client.js';
import { keys } from '../../api/queries.js';
import { ChooseFile } from '../../parts/ChooseFile.js';
import { fullDay } from '../../parts/dates.js';
import { Refusal } from '../../parts/fields.js';

/** As many as are shown before all are asked for. */
const FEW = 6;

const km = (metres: number): string => say('{{n}} km', { n: shown(metres / 1000, 1) });

/** How far, how long, how much of it run, how far up. */
const figures = (o: OutingView): string =>
  [
    km(o.metres),
    say('{{n}} min', { n: shown(o.minutes, 0) }),
    o.runMinutes < 0.5 ? say('walked') : say('{{n}} min of it run', { n: shown(o.runMinutes, 0) }),
    ...(o.climbMetres === null || o.climbMetres < 1
      ? []
      : [say('{{n}} m up', { n: shown(o.climbMetres, 0) })]),
  ].join(', ');

/** What was recorded, and how it is changed; `said` is what came of the last file, `gone` what was taken back last. */
function useOutings({ person, id: episodeId }: CourseView['episode']) {
  const client = useQueryClient();
  const key = ['outings', person.id] as const;
  const [said, setSaid] = useState<string | null>(null);
  const [gone, setGone] = useState<OutingView | null>(null);
  const outings = useQuery({
    queryKey: key,
    queryFn: () => request<OutingsView>('GET', `/api/people/${person.id}/outings`),
  });
  const stands = async (now: OutingsView): Promise<void> => {
    client.setQueryData(key, now);
    await client.invalidateQueries({ queryKey: keys.course(episodeId) });
  };
  const change = useMutation({
    mutationFn: ({ of, back }: { of: OutingView; back: boolean }) =>
      back
        ? request<OutingsView>('POST', `/api/outings/${of.id}/back`, {})
        : request<OutingsView>('DELETE', `/api/outings/${of.id}`),
    onSuccess: async (now, { of, back }) => {
      setGone(back ? null : of);
      setSaid(null);
      await stands(now);
    },
  });
  const read = async (file: File): Promise<string | null> => {
    setSaid(null);
    try {
      const now = await sendFile<OutingsView>(`/api/people/${person.id}/outings`, file, {
        type: 'application/octet-stream',
        name: file.name,
      });
      setGone(null);
      setSaid(
        now.taken === 0
          ? say('All of it is here already.')
          : say('{{taken}} taken, {{here}} here already.', { taken: now.taken ?? 0, here: now.here }),
      );
      await stands(now);
      return null;
    } catch (error) {
      return error instanceof ApiError
        ? (error.at('/file') ?? error.message)
        : say('This file cannot be read.');
    }
  };
  return { list: outings.data?.outings ?? [], said, gone, change, read };
}

/** Runs and walks from the files of a watch: they count as done, beside what was logged. */
export function Recorded({ course }: { course: CourseView }) {
  const { list, said, gone, change, read } = useOutings(course.episode);
  const [all, setAll] = useState(false);
  return (
    <section aria-label={say('Recorded runs and walks')} className="mt-6">
      <h2>{say('Recorded runs and walks')}</h2>
      <ul className="text-sm">
        {(all ? list : list.slice(0, FEW)).map((o) => (
          <Line
            key={o.id}
            of={o}
            counted={course.recorded.find((r) => r.id === o.id)?.countedMinutes ?? null}
            busy={change.isPending}
            remove={() => change.mutate({ of: o, back: false })}
          />
        ))}
      </ul>
      {list.length > FEW && !all && (
        <button type="button" className="text-action min-h-9 text-sm" onClick={() => setAll(true)}>
          {say('All {{n}}', { n: list.length })}
        </button>
      )}
      <p role="status" className="text-sm">
        {said ?? ''}
        {gone !== null && (
          <>
            {say('Taken back: {{day}}.', { day: fullDay(gone.day) })}{' '}
            <button
              type="button"
              className="text-action min-h-9"
              onClick={() => change.mutate({ of: gone, back: true })}
            >
              {say('Keep it after all')}
            </button>
          </>
        )}
      </p>
      <Refusal error={change.error instanceof ApiError ? change.error : null} />
      <div className="no-print text-sm">
        <ChooseFile
          word={say('From a watch (GPX or TCX)')}
          label={say('Recording of a watch')}
          accept=".gpx,.tcx"
          read={read}
        />
        <p className="text-ink-2">
          {say(
            'Minutes at the speed of running count as run, for every complaint; on a day that was logged too, the more of the two. The way itself is not kept.',
          )}
        </p>
      </div>
    </section>
  );
}

/** What a run is too long for. */
const tooLong = ({ longestMinutes, mostMinutes }: OutingView['rise']): string =>
  longestMinutes === null
    ? say('No run is known of the {{days}} days before: a first week would hold {{most}} min', {
        days: RUN_DAYS,
        most: shown(mostMinutes, 0),
      })
    : say('More than {{percent}} % over the longest run of the {{days}} days before, {{longest}} min', {
        percent: RUN_RISE_PERCENT,
        days: RUN_DAYS,
        longest: shown(longestMinutes, 0),
      });

interface LineProps {
  readonly of: OutingView;
  /** Minutes of it that a coming week may be built on; null until it is known. */
  readonly counted: number | null;
  readonly busy: boolean;
  readonly remove: () => void;
}

function Line({ of: o, counted, busy, remove }: LineProps) {
  return (
    <li className="flex flex-wrap items-baseline gap-x-3 border-b border-line-2">
      <span className="w-24 font-semibold">{fullDay(o.day)}</span>
      <span className="min-w-0 flex-1">
        {figures(o)}
        {o.rise.over && <span className="block text-ease-deep">{tooLong(o.rise)}</span>}
        {counted !== null && shown(counted, 0) !== shown(o.runMinutes, 0) && (
          <span className="block text-ink-2">
            {say('For what a coming week may hold it counts as {{minutes}} min', {
              minutes: shown(counted, 0),
            })}
          </span>
        )}
      </span>
      <button
        type="button"
        className="text-action min-h-9"
        disabled={busy}
        aria-label={say('Take back: {{day}}, {{figures}}', { day: fullDay(o.day), figures: figures(o) })}
        onClick={remove}
      >
        {say('Take back')}
      </button>
    </li>
  );
}
