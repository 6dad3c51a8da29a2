import { say } from '@heathstep/core';
import { OfEpisode } from '../../parts/OfEpisode.js';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { memo, useEffect, useId, useMemo, useRef, useState } from 'react';
import { Link, Navigate, NavLink, useParams, useSearchParams } from 'react-router';
import type { CourseView, VisitView } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { type ClinicContent, keys } from '../../api/queries.js';
import { useEntries } from '../../api/useEntries.js';
import { dayHere, longDay } from '../../parts/dates.js';
import { SOLE_BOX, SOLE_OUTLINE } from '../../parts/footShapes.js';
import { EpisodeHead } from '../../parts/EpisodeHead.js';
import { SaveState, SaveTrouble } from '../../parts/SaveState.js';
import { Conclude } from './Conclude.js';
import { Conflicts } from './Conflicts.js';
import { type LiveVisit, liveVisit } from './live.js';
import { Feel, Look } from './look/Look.js';
import { Amend, Amendments } from './Amend.js';
import { Presence } from './Presence.js';
import { STEP_NAMES, STEPS, type Step } from './progress.js';
import { UndoRedo } from './UndoRedo.js';
import { VisitRecord } from './record/VisitRecord.js';
import { QuickLine } from './QuickLine.js';
import { MeasureStepView } from './Steps.js';
import { WhatIfProvider } from './findings/whatIf.js';
import { useKeys } from './useKeys.js';
import { Safety } from './Safety.js';
import { Story } from './Story.js';
import { Tally } from './Tally.js';

/** Drawn anew when something worked out changed, not when it was merely saved. */
const MemoTally = memo(Tally);
const MemoLook = memo(Look);
const MemoMeasures = memo(MeasureStepView);
const MemoFeel = memo(Feel);

export function Visit() {
  return (
    <OfEpisode what={say('the visit')}>
      {(course, content) => <Chosen course={course} content={content} />}
    </OfEpisode>
  );
}

/** The visit asked for, or the one that is open. */
function Chosen({ course, content }: { course: CourseView; content: ClinicContent }) {
  const { step } = useParams();
  const [query] = useSearchParams();
  const { episode } = course;
  const chosen = query.get('of');
  const open = episode.visits.find((v) => (chosen === null ? v.signedAt === null : v.id === chosen));
  // The same page under both addresses, so that a press on it is never lost to another just like it.
  if (open === undefined) return <NoOpenVisit course={course} content={content} />;
  if (!STEPS.includes(step as Step)) return <Navigate to={`/episodes/${episode.id}/visit/story`} replace />;
  return <Bench key={open.id} course={course} content={content} visit={open} step={step as Step} />;
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
  const first = episode.visits.length === 0 && episode.status !== 'closed';
  const { mutate, isIdle } = open;
  useEffect(() => {
    if (first && isIdle) mutate();
  }, [first, isIdle, mutate]);
  const last = episode.visits[episode.visits.length - 1];
  return (
    <>
      <EpisodeHead
        episode={episode}
        condition={content.pathways.find((c) => c.key === episode.condition)?.name ?? ''}
      />
      <main className="mx-auto w-full max-w-3xl px-8 py-12">
        {last !== undefined && (
          <>
            <h2>{say('Visit {{number}} was signed', { number: last.number })}</h2>
            <p className="mt-2 text-ink-2">
              {say(
                '{{longDay}}, by {{signedBy}}. A review asks the acute safety signs again and re-measures beside the last values.',
                { longDay: longDay(last.startedAt), signedBy: last.signedBy ?? '' },
              )}
            </p>
            {episode.status !== 'closed' && (
              <button
                type="button"
                className="action mt-6"
                autoFocus
                disabled={open.isPending}
                onClick={() => open.mutate()}
              >
                {say('Start a review')}
              </button>
            )}
            <h3 className="mt-8">{say('Visits so far')}</h3>
            <ul>
              {[...episode.visits].reverse().map((v) => (
                <li key={v.id} className="border-b border-line-2">
                  <Link
                    className="flex min-h-11 items-center justify-between gap-4 hover:underline"
                    to={`/episodes/${episode.id}/visit/story?of=${v.id}`}
                  >
                    <span className="font-semibold">
                      {say('Visit {{number}}, {{longDay}}', {
                        number: v.number,
                        longDay: longDay(v.startedAt),
                      })}
                    </span>
                    <span className="text-sm text-ink-2">
                      {say('signed by {{signedBy}}{{words}}', {
                        signedBy: v.signedBy ?? '',
                        words:
                          v.amendments.length > 0
                            ? say(', amended {{n}} times', { n: v.amendments.length })
                            : '',
                      })}
                    </span>
                  </Link>
                </li>
              ))}
            </ul>
          </>
        )}
        {open.error instanceof ApiError && (
          <p role="alert" className="mt-4 text-ease-deep">
            {open.error.message}{' '}
            <button type="button" className="text-action" onClick={() => open.mutate()}>
              {say('Try again')}
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
  const [reason, setReason] = useState<string | null>(null);
  const store = useEntries(visit, reason);
  const { episode } = course;
  const { revision } = store;
  const live = useMemo(
    () => liveVisit(course, content, visit, store),
    // What stands in the store is told by its revision: a value merely saved changes nothing that is worked out.
    // oxlint-disable-next-line react/exhaustive-deps
    [course, content, visit, store, revision],
  );
  const signed = visit.signedAt !== null;
  useKeys(live, step);
  return (
    <WhatIfProvider>
      <EpisodeHead
        episode={{ ...episode, affected: live.affected }}
        condition={live.conditionName}
        safety={live.safety}
        query={live.visitQuery}
      >
        <p className="text-right text-sm text-ink-2 max-md:text-left">
          <span className="font-semibold text-ink">
            {visit.kind === 'first'
              ? say('First visit')
              : say('Review, visit {{number}}', { number: visit.number })}
          </span>
          , {longDay(visit.startedAt)}
        </p>
      </EpisodeHead>
      <VisitRecord live={live} />
      <div className="grid flex-1 grid-cols-[8.75rem_minmax(0,1fr)_14rem] max-md:grid-cols-1 max-md:content-start print:hidden min-[1240px]:grid-cols-[9.5rem_minmax(0,1fr)_17.5rem]">
        <Steps live={live} episodeId={episode.id} />
        <main className="min-w-0 border-line px-5 py-4 md:border-x">
          <div className="flex min-h-9 flex-wrap items-center gap-x-4 md:flex-nowrap">
            <h2>{STEP_NAMES[step]}</h2>
            <div className="flex-1" />
            {(!signed || reason !== null) && <QuickLine live={live} />}
            <UndoRedo live={live} />
            <SaveState status={store.status} />
          </div>
          <SaveTrouble status={store.status} retry={() => store.retry()} />
          {!signed && <Presence visitId={visit.id} step={step} store={store} />}
          {signed && <Amend reason={reason} begin={setReason} />}
          <Amendments list={visit.amendments} content={content} />
          <LeftOpen visit={visit} today={episode.today} />
          <Conflicts store={store} content={content} />
          <fieldset
            disabled={store.status === 'locked' || (signed && reason === null)}
            className="mt-2 border-t border-line pt-4"
          >
            <legend className="sr-only">{STEP_NAMES[step]}</legend>
            {step === 'story' && <Story live={live} />}
            {step === 'safety' && <Safety live={live} />}
            {step === 'look' && <MemoLook live={live} />}
            {(step === 'measure' || step === 'load') && <MemoMeasures key={step} live={live} step={step} />}
            {step === 'feel' && <MemoFeel live={live} />}
            {step === 'conclude' && <Conclude live={live} />}
          </fieldset>
        </main>
        <MemoTally live={live} atOnce={step === 'feel' || step === 'conclude' || step === 'safety'} />
      </div>
    </WhatIfProvider>
  );
}

/** A visit that was begun on another day still takes what is typed as of its own day; that is told rather than assumed. */
function LeftOpen({ visit, today }: { visit: VisitView; today: string }) {
  if (visit.signedAt !== null || dayHere(visit.startedAt) >= today) return null;
  return (
    <p className="mt-2 rounded bg-hold-wash px-3 py-2 text-sm text-hold-deep" role="status">
      {say(
        'This visit was begun on {{longDay}} and left open. What is entered counts as of that day; sign it and start a review for what is measured today.',
        { longDay: longDay(visit.startedAt) },
      )}
    </p>
  );
}

/** One of the prints along the way, filled from the heel as far as its step is done. */
function Footprint({ side, share, here }: { side: 'left' | 'right'; share: number; here: boolean }) {
  const id = useId();
  const edge = here ? 'var(--color-heather)' : 'var(--color-ink-3)';
  const full = here ? 'var(--color-heather)' : 'var(--color-ink)';
  return (
    <svg
      aria-hidden
      viewBox={SOLE_BOX}
      className={`h-11 w-[1.1rem] shrink-0 ${side === 'right' ? 'ml-4 rotate-6' : 'mr-4 -rotate-6'}`}
      style={here ? { filter: 'drop-shadow(0 0 5px var(--color-heather-wash))' } : undefined}
    >
      <clipPath id={id}>
        <rect x="0" y={336 * (1 - share)} width="130" height="336" />
      </clipPath>
      <g transform={side === 'right' ? 'translate(130 0) scale(-1 1)' : undefined}>
        {SOLE_OUTLINE.map((d) => (
          <path
            key={d}
            d={d}
            fill={here ? 'var(--color-heather-wash)' : 'transparent'}
            stroke={edge}
            strokeWidth={here ? 9 : 6}
          />
        ))}
        {share > 0 && (
          <g clipPath={`url(#${id})`} fill={full}>
            {SOLE_OUTLINE.map((d) => (
              <path key={d} d={d} />
            ))}
          </g>
        )}
      </g>
    </svg>
  );
}

function Steps({ live, episodeId }: { live: LiveVisit; episodeId: string }) {
  return (
    <nav
      aria-label={say('Steps of the visit')}
      className="self-start py-5 pl-3 max-md:overflow-x-auto max-md:border-b max-md:border-line max-md:py-2 md:sticky md:top-[4.5rem] min-[1240px]:pl-5"
    >
      <ol className="max-md:flex max-md:gap-5 max-md:pr-3">
        {STEPS.map((s, i) => {
          const progress = live.progress[s];
          return (
            <li key={s} className="relative">
              <NavLink
                to={`/episodes/${episodeId}/visit/${s}${live.visitQuery}`}
                className="group flex min-h-14 items-center gap-2.5"
              >
                {({ isActive }) => (
                  <>
                    <Footprint side={i % 2 === 0 ? 'left' : 'right'} share={progress.share} here={isActive} />
                    <span>
                      <span
                        className={`block font-head text-lg ${isActive ? 'font-semibold text-heather-deep' : 'group-hover:underline'}`}
                      >
                        {STEP_NAMES[s]}
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
