import { say } from '@heathstep/core';
import { useState } from 'react';
import { Link } from 'react-router';
import type { CaptureView, CourseView, LabMeasure, VisitView } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { keys, queryClient } from '../../api/queries.js';
import { enter, type Entering, enteringOf, takingBack } from './intoVisit.js';
import { isUsable, type LabReading } from './reading.js';

interface IntoVisitProps {
  readonly course: CourseView;
  readonly capture: CaptureView;
  readonly reading: LabReading;
  readonly measures: readonly LabMeasure[];
}

/** Begins a visit, enters the numbers, and takes them back. */
function useEntering({ course, capture, reading, measures }: IntoVisitProps) {
  const { episode } = course;
  const [done, setDone] = useState<{ visitId: string; entering: readonly Entering[] } | null>(null);
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<string | null>(null);
  const told = async (work: () => Promise<void>): Promise<void> => {
    setBusy(true);
    setError(null);
    try {
      await work();
    } catch (failure) {
      setError(failure instanceof ApiError ? failure.message : say('It could not be saved'));
    }
    // What is shown of the course, and whoever opens the visit, reads it anew.
    await queryClient.invalidateQueries({ queryKey: keys.course(episode.id) });
    setBusy(false);
  };
  const begin = () =>
    told(async () => {
      await request<VisitView>('POST', `/api/episodes/${episode.id}/visits`, { id: crypto.randomUUID() });
    });
  const put = (open: VisitView) =>
    told(async () => {
      const fresh = await request<VisitView>('GET', `/api/visits/${open.id}`);
      const entering = enteringOf(measures, reading.quantities, capture, fresh);
      if (entering.length === 0) throw new Error('nothing to enter');
      await enter(open.id, entering);
      setDone({ visitId: open.id, entering });
    });
  const back = (d: NonNullable<typeof done>) =>
    told(async () => {
      await enter(d.visitId, takingBack(d.entering));
      setDone(null);
    });
  return { done, busy, error, begin, put, back };
}

/** Puts the numbers of a capture into the open visit as measures, with their method and instrument; findings and reasons follow from there. */
export function IntoVisit(props: IntoVisitProps) {
  const { course, reading } = props;
  const { episode } = course;
  const { done, busy, error, begin, put, back } = useEntering(props);
  const visit = episode.visits.find((v) => v.signedAt === null) ?? null;
  if (!isUsable(reading)) return null;
  const replaced = done?.entering.filter((e) => e.before !== null).length ?? 0;
  return (
    <section
      className="no-print mt-5 flex flex-wrap items-center gap-x-5 gap-y-2 border-t border-line pt-4"
      aria-label={say('Into the visit')}
    >
      {done !== null ? (
        <>
          <p role="status" className="font-semibold text-go-deep">
            {say('{{n}} values stand in the visit', { n: done.entering.length })}
            {replaced === 0 ? '' : say(', {{n}} of them in place of one taken before', { n: replaced })}
          </p>
          <Link to={`/episodes/${episode.id}/visit/load`} className="action-quiet">
            {say('To the visit')}
          </Link>
          <button
            type="button"
            className="text-action min-h-11"
            disabled={busy}
            onClick={() => void back(done)}
          >
            {say('Take back')}
          </button>
        </>
      ) : visit !== null ? (
        <button type="button" className="action" disabled={busy} onClick={() => void put(visit)}>
          {say('Into the open visit')}
        </button>
      ) : episode.ended !== null ? (
        <p className="text-sm text-ink-2">{say('This complaint is closed: nothing is entered.')}</p>
      ) : (
        <>
          <p className="text-sm text-ink-2">{say('No visit is open to take the numbers.')}</p>
          <button type="button" className="action-quiet" disabled={busy} onClick={() => void begin()}>
            {say('Begin a visit')}
          </button>
        </>
      )}
      {error !== null && (
        <span role="alert" className="text-ease-deep">
          {error}
        </span>
      )}
    </section>
  );
}
