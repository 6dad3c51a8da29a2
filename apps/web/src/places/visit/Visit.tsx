import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { Navigate, NavLink, useParams } from 'react-router';
import type { CourseView, VisitView } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { type ClinicContent, keys, useContent, useCourse } from '../../api/queries.js';
import { useEntries } from '../../api/useEntries.js';
import { Failed, Loading } from '../../app/Failures.js';
import { longDay } from '../../parts/dates.js';
import { EpisodeHead } from '../../parts/EpisodeHead.js';
import { SaveState } from '../../parts/SaveState.js';
import { Conclude } from './Conclude.js';
import { Conflicts } from './Conflicts.js';
import { type LiveVisit, liveVisit } from './live.js';
import { Measure } from './Measure.js';
import { Safety } from './Safety.js';
import { Story } from './Story.js';
import { Tally } from './Tally.js';

const STEPS = ['story', 'safety', 'measure', 'conclude'] as const;
type Step = (typeof STEPS)[number];
const NAMES: Record<Step, string> = {
  story: 'Story',
  safety: 'Safety',
  measure: 'Measure',
  conclude: 'Conclude',
};

export function Visit() {
  const { episodeId = '', step } = useParams();
  const course = useCourse(episodeId);
  const content = useContent();
  if (course.data === undefined || content.data === undefined) {
    const error = course.error ?? content.error;
    return error === null ? (
      <Loading what="the visit" />
    ) : (
      <Failed error={error} again={() => void course.refetch()} />
    );
  }
  if (!STEPS.includes(step as Step)) return <Navigate to={`/episodes/${episodeId}/visit/story`} replace />;
  const { episode } = course.data;
  const open = episode.visits.find((v) => v.signedAt === null);
  if (open === undefined) return <NoOpenVisit course={course.data} content={content.data} />;
  return <Bench key={open.id} course={course.data} content={content.data} visit={open} step={step as Step} />;
}

/** Nothing open: the first visit opens by itself, a review by one press. */
function NoOpenVisit({ course, content }: { course: CourseView; content: ClinicContent }) {
  const { episode } = course;
  const client = useQueryClient();
  const id = useRef(crypto.randomUUID());
  const open = useMutation({
    mutationFn: () => request<VisitView>('POST', `/api/episodes/${episode.id}/visits`, { id: id.current }),
    onSuccess: () => client.invalidateQueries({ queryKey: keys.course(episode.id) }),
  });
  const first = episode.visits.length === 0;
  const { mutate, isIdle } = open;
  useEffect(() => {
    if (first && isIdle) mutate();
  }, [first, isIdle, mutate]);
  const last = episode.visits[episode.visits.length - 1];
  return (
    <>
      <EpisodeHead
        episode={episode}
        condition={content.conditions.find((c) => c.key === episode.condition)?.name ?? ''}
      />
      <main className="mx-auto w-full max-w-3xl px-8 py-12">
        {last !== undefined && (
          <>
            <h2>{`Visit ${last.number} was signed`}</h2>
            <p className="mt-2 text-ink-2">{`${longDay(last.startedAt)}, by ${last.signedBy ?? ''}. A review asks the acute safety signs again and re-measures beside the last values.`}</p>
            <button
              type="button"
              className="action mt-6"
              disabled={open.isPending}
              onClick={() => open.mutate()}
            >
              Start a review
            </button>
          </>
        )}
        {open.error instanceof ApiError && (
          <p role="alert" className="mt-4 text-ease-deep">
            {open.error.message}{' '}
            <button type="button" className="text-action" onClick={() => open.mutate()}>
              Try again
            </button>
          </p>
        )}
      </main>
    </>
  );
}

function Bench({
  course,
  content,
  visit,
  step,
}: {
  course: CourseView;
  content: ClinicContent;
  visit: VisitView;
  step: Step;
}) {
  const store = useEntries(visit);
  const { episode } = course;
  const live = liveVisit(course, content, visit, store);
  useEffect(() => {
    const undo = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLInputElement || event.target instanceof HTMLTextAreaElement;
      if (event.key === 'z' && (event.ctrlKey || event.metaKey) && !typing) store.undo();
    };
    window.addEventListener('keydown', undo);
    return () => window.removeEventListener('keydown', undo);
  }, [store]);
  return (
    <>
      <EpisodeHead episode={{ ...episode, affected: live.affected }} condition={live.conditionName}>
        <p className="text-right text-sm text-ink-2">
          <span className="font-semibold text-ink">
            {visit.kind === 'first' ? 'First visit' : `Review, visit ${visit.number}`}
          </span>
          , {longDay(visit.startedAt)}
        </p>
      </EpisodeHead>
      <div className="grid flex-1 grid-cols-[9.5rem_minmax(0,1fr)_17.5rem]">
        <Steps live={live} episodeId={episode.id} />
        <main className="min-w-0 border-x border-line px-5 py-4">
          <div className="flex min-h-9 items-center gap-4">
            <h2>{NAMES[step]}</h2>
            <div className="flex-1" />
            {store.canUndo && (
              <button type="button" className="text-action text-sm" onClick={() => store.undo()}>
                Undo
              </button>
            )}
            <SaveState status={store.status} retry={() => store.retry()} />
          </div>
          <Conflicts store={store} content={content} />
          <fieldset disabled={store.status === 'locked'} className="mt-2 border-t border-line pt-4">
            <legend className="sr-only">{NAMES[step]}</legend>
            {step === 'story' && <Story live={live} />}
            {step === 'safety' && <Safety live={live} />}
            {step === 'measure' && <Measure live={live} />}
            {step === 'conclude' && <Conclude live={live} />}
          </fieldset>
        </main>
        <Tally live={live} />
      </div>
    </>
  );
}

function Steps({ live, episodeId }: { live: LiveVisit; episodeId: string }) {
  return (
    <nav aria-label="Steps of the visit" className="py-5 pl-5">
      <ol>
        {STEPS.map((s, i) => {
          const progress = live.progress[s];
          return (
            <li key={s} className="relative">
              {i < STEPS.length - 1 && (
                <span
                  aria-hidden
                  className={`absolute left-[6px] top-6 h-full w-0.5 ${progress.done ? 'bg-ink' : 'bg-line'}`}
                />
              )}
              <NavLink to={`/episodes/${episodeId}/visit/${s}`} className="group flex min-h-16 gap-3 pt-1">
                {({ isActive }) => (
                  <>
                    <span
                      aria-hidden
                      className={`relative mt-1.5 size-3.5 shrink-0 rounded-full border-[3px] ${isActive ? 'border-heather bg-paper ring-4 ring-heather-wash' : progress.done ? 'border-ink bg-ink' : 'border-ink-3 bg-ground'}`}
                    />
                    <span>
                      <span
                        className={`block font-head text-lg ${isActive ? 'font-semibold text-heather-deep' : 'group-hover:underline'}`}
                      >
                        {NAMES[s]}
                      </span>
                      <span className="text-sm text-ink-2">{progress.text}</span>
                    </span>
                  </>
                )}
              </NavLink>
            </li>
          );
        })}
      </ol>
    </nav>
  );
}
