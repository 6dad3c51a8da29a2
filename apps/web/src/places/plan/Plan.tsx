import { useMutation, useQueryClient } from '@tanstack/react-query';
import { type StageKey, stageKey, stageOf, say } from '@heathstep/core';
import { Link } from 'react-router';
import type { CourseView } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { type ClinicContent, keys } from '../../api/queries.js';
import { OfEpisode } from '../../parts/OfEpisode.js';
import { EpisodeHead } from '../../parts/EpisodeHead.js';
import { AboutProtocol } from './AboutProtocol.js';
import { Confirm } from './Confirm.js';
import { Blocked } from './Blocked.js';
import { Draft } from './Draft.js';
import { Given } from './Given.js';
import { Frame } from './Frame.js';
import { useDraft } from './useDraft.js';

export function Plan() {
  return (
    <OfEpisode what={say('the plan')}>
      {(course, content) => <PlanPlace course={course} content={content} />}
    </OfEpisode>
  );
}

function PlanPlace({ course, content }: { course: CourseView; content: ClinicContent }) {
  const { episode } = course;
  const name = content.pathways.find((c) => c.key === episode.condition)?.name ?? '';
  return (
    <>
      <EpisodeHead episode={episode} condition={name} />
      <PlanBody course={course} content={content} />
    </>
  );
}

function PlanBody({ course, content }: { course: CourseView; content: ClinicContent }) {
  const { episode } = course;
  const blocked = episode.notPrescribed;
  if (episode.protocol === '') return <NoProtocol course={course} content={content} />;
  if (episode.draft !== null)
    return (
      <Draft
        key={episode.draft.id}
        course={course}
        content={content}
        draft={episode.draft}
        blocked={blocked}
      />
    );
  if (episode.plan !== null)
    return <Given course={course} content={content} plan={episode.plan} blocked={blocked} />;
  return (
    <Frame
      course={course}
      content={content}
      stage={startStage(course)}
      aside={
        <>
          <Confirm course={course} content={content} />
          <AboutProtocol protocol={course.protocol} />
        </>
      }
    >
      {blocked.length > 0 ? (
        <Blocked reasons={blocked} episodeId={episode.id} episode={episode} />
      ) : (
        <FirstPlan course={course} />
      )}
    </Frame>
  );
}

/** A complaint begun before the library had a protocol for it goes on with the one it has now; else the visit is all there is. */
function NoProtocol({ course, content }: { course: CourseView; content: ClinicContent }) {
  const { episode } = course;
  const client = useQueryClient();
  const pathway = content.pathways.find((p) => p.key === episode.condition);
  const take = useMutation({
    mutationFn: () =>
      request('PATCH', `/api/episodes/${episode.id}`, {
        version: episode.version,
        condition: episode.condition,
      }),
    onSettled: () => client.invalidateQueries({ queryKey: keys.course(episode.id) }),
  });
  const there = pathway?.protocol != null;
  return (
    <main className="mx-auto w-full max-w-2xl px-8 py-12">
      <h2>{there ? say('There is a protocol for this now') : say('No protocol for this condition yet')}</h2>
      <p className="mt-2 text-ink-2">
        {there
          ? say('This complaint was begun before there was one. Everything taken so far stays.')
          : say(
              'The visit is taken, judged and kept. Nothing is prescribed without a protocol of staged doses and criteria.',
            )}
      </p>
      {there ? (
        <button type="button" className="action mt-5" disabled={take.isPending} onClick={() => take.mutate()}>
          {say('Plan by it')}
        </button>
      ) : (
        <Link to={`/episodes/${episode.id}/visit`} className="action mt-5">
          {say('To the visit')}
        </Link>
      )}
      {take.error instanceof ApiError && (
        <p role="alert" className="mt-3 text-ease-deep">
          {take.error.message}
        </p>
      )}
    </main>
  );
}

function startStage(course: CourseView): StageKey {
  const chosen = [...course.episode.visits]
    .reverse()
    .flatMap((v) => v.entries.filter((e) => e.key === 'conclude.stage' && e.value !== null))[0]?.value;
  return (
    course.episode.stage ??
    stageOf(course.protocol, typeof chosen === 'string' ? stageKey(chosen) : null)?.key ??
    course.protocol.stages[0]?.key ??
    stageKey('')
  );
}

function FirstPlan({ course }: { course: CourseView }) {
  const make = useDraft(course);
  return (
    <div className="max-w-xl">
      <h2>{say('No plan yet')}</h2>
      <p className="mt-2 text-ink-2">
        {say(
          'The stage’s slots are filled for this patient from the measures, equipment, minutes and safety answers. Every choice can be changed.',
        )}
      </p>
      <button
        type="button"
        className="action mt-5"
        disabled={make.isPending}
        onClick={() => make.mutate({ stage: startStage(course), from: 'stage' })}
      >
        {say('Make the plan')}
      </button>
      {make.error instanceof ApiError && (
        <p role="alert" className="mt-3 text-ease-deep">
          {make.error.message}
        </p>
      )}
    </div>
  );
}
