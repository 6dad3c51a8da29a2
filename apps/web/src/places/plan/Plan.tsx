import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Octagon } from 'lucide-react';
import { useRef } from 'react';
import { Link, useParams } from 'react-router';
import type { CourseView, PlanView } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { type ClinicContent, keys, useContent, useCourse } from '../../api/queries.js';
import { Failed, Loading } from '../../app/Failures.js';
import { EpisodeHead } from '../../parts/EpisodeHead.js';
import { Draft } from './Draft.js';
import { Given } from './Given.js';
import { Frame } from './Frame.js';

export function Plan() {
  const { episodeId = '' } = useParams();
  const course = useCourse(episodeId);
  const content = useContent();
  if (course.data === undefined || content.data === undefined) {
    const error = course.error ?? content.error;
    return error === null ? <Loading what="the plan" /> : <Failed error={error} again={() => void course.refetch()} />;
  }
  return <PlanPlace course={course.data} content={content.data} />;
}

function PlanPlace({ course, content }: { course: CourseView; content: ClinicContent }) {
  const { episode } = course;
  const name = content.conditions.find((c) => c.key === episode.condition)?.name ?? '';
  return (
    <>
      <EpisodeHead episode={episode} condition={name} />
      <PlanBody course={course} content={content} />
    </>
  );
}

function PlanBody({ course, content }: { course: CourseView; content: ClinicContent }) {
  const { episode } = course;
  const blocked = whyBlocked(course);
  if (episode.draft !== null) return <Draft key={episode.draft.id} course={course} content={content} draft={episode.draft} blocked={blocked} />;
  if (episode.plan !== null) return <Given course={course} content={content} plan={episode.plan} blocked={blocked} />;
  return (
    <Frame course={course} content={content} stage={startStage(course)} aside={null}>
      {blocked.length > 0 ? <Blocked reasons={blocked} episodeId={episode.id} /> : <FirstPlan course={course} />}
    </Frame>
  );
}

/** Why nothing can be prescribed; empty when something can. */
export function whyBlocked(course: CourseView): string[] {
  const { safety, openStops } = course.episode;
  return [...openStops.map((s) => `Reported at home on ${s.day}: ${s.sign}`), ...(safety === null ? ['The safety questions have not been asked'] : safety.blockedBecause)];
}

export function Blocked({ reasons, episodeId }: { reasons: readonly string[]; episodeId: string }) {
  return (
    <div className="max-w-xl rounded-lg bg-ease-wash p-6" role="alert">
      <h2 className="flex items-center gap-2 text-ease-deep">
        <Octagon className="size-5" aria-hidden /> Nothing can be prescribed yet
      </h2>
      <ul className="mt-3 list-disc space-y-1 pl-5">
        {reasons.map((r) => (
          <li key={r}>{r}</li>
        ))}
      </ul>
      <Link to={`/episodes/${episodeId}/visit/safety`} className="action-quiet mt-5">
        To the safety answers
      </Link>
    </div>
  );
}

function startStage(course: CourseView): string {
  const chosen = [...course.episode.visits].reverse().flatMap((v) => v.entries.filter((e) => e.key === 'conclude.stage' && e.value !== null))[0]?.value;
  return course.episode.stage ?? (typeof chosen === 'string' ? chosen : 'calm');
}

function FirstPlan({ course }: { course: CourseView }) {
  const make = useDraft(course);
  return (
    <div className="max-w-xl">
      <h2>No plan yet</h2>
      <p className="mt-2 text-ink-2">The stage&rsquo;s slots are filled for this patient from the measures, equipment, minutes and safety answers. Every choice can be changed.</p>
      <button type="button" className="action mt-5" disabled={make.isPending} onClick={() => make.mutate({ stage: startStage(course), from: 'stage' })}>
        Make the plan
      </button>
      {make.error instanceof ApiError && (
        <p role="alert" className="mt-3 text-ease-deep">
          {make.error.message}
        </p>
      )}
    </div>
  );
}

/** Makes the next draft; the id is fixed until it worked, so a second press makes nothing twice. */
export function useDraft(course: CourseView) {
  const client = useQueryClient();
  const id = useRef(crypto.randomUUID());
  return useMutation({
    mutationFn: (body: { stage: string | undefined; from: 'stage' | 'current' }) => request<PlanView>('POST', `/api/episodes/${course.episode.id}/plans`, { id: id.current, ...body }),
    onSuccess: async () => {
      id.current = crypto.randomUUID();
      await client.invalidateQueries({ queryKey: keys.course(course.episode.id) });
    },
  });
}
