import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { CourseView, PlanView } from '@heathstep/contracts';
import { heldBack, say } from '@heathstep/core';
import { ApiError, request } from '../../api/client.js';
import { type ClinicContent, keys, useSession } from '../../api/queries.js';
import { fullDay } from '../../parts/dates.js';
import { NextReview } from '../../parts/NextReview.js';
import { AboutProtocol } from './AboutProtocol.js';
import { Adjuncts, LeftOut } from './Beside.js';
import { Confirm } from './Confirm.js';
import { Blocked } from './Blocked.js';
import { Frame } from './Frame.js';
import { OverWeeks } from './OverWeeks.js';
import { ReadsIn } from '../../parts/ReadsIn.js';
import { Lines } from './Lines.js';
import { planModel } from './planModel.js';
import { Sums } from './Sums.js';
import { useDraft } from './useDraft.js';
import { Versions } from './Versions.js';

/** The version the patient has: frozen, with the way to print it, to send it and to make the next. */
export function Given({
  course,
  content,
  plan,
  blocked,
}: {
  course: CourseView;
  content: ClinicContent;
  plan: PlanView;
  blocked: readonly string[];
}) {
  const stage = plan.madeOf;
  const model = planModel(plan.items, course, content, stage);
  const next = useDraft(course);
  const nameOf = (exercise: string) => content.exercises.find((e) => e.key === exercise)?.name ?? exercise;
  const { held } = heldBack(
    plan.items,
    (key) => content.exercises.find((e) => e.key === key),
    course.episode,
  );
  const aside = (
    <>
      <Sums model={model} course={course} stage={stage} />
      <HomeLink course={course} />
      <NextReview course={course} />
      <LeftOut left={plan.left.map((l) => ({ name: nameOf(l.exercise), why: l.why }))} />
      <Adjuncts course={course} stage={stage} />
      <Confirm course={course} content={content} />
      <AboutProtocol protocol={course.protocol} />
    </>
  );
  return (
    <Frame course={course} content={content} stage={plan.stage} aside={aside}>
      <div className="flex items-baseline gap-4">
        <h2>{say('At home')}</h2>
        <span className="text-sm text-ink-2">
          {say('version {{number}}, given {{words}} by {{givenBy}}', {
            number: plan.number,
            words: plan.givenAt === null ? '' : fullDay(plan.givenAt),
            givenBy: plan.givenBy ?? '',
          })}
        </span>
      </div>
      <p className="mt-1 text-ink-2">{stage.purpose.clinician}.</p>
      {blocked.length > 0 && (
        <div className="my-4">
          <Blocked reasons={blocked} episodeId={course.episode.id} />
        </div>
      )}
      {held.length > 0 && (
        <p className="mt-3 rounded bg-hold-wash px-3 py-2 text-hold-deep" role="status">
          {say('Held back at home since an answer changed: {{list}}. Make the next version.', {
            list: held.map((h) => `${nameOf(h.exercise)} (${h.why})`).join('; '),
          })}
        </p>
      )}
      <div className="mt-4">
        <Lines model={model} course={course} content={content} stage={stage} previous={null} errors={{}} />
      </div>
      <div className="mt-5 flex flex-wrap gap-3">
        <Link to={`/episodes/${course.episode.id}/handout`} className="action">
          {say('Print the handout')}
        </Link>
        <button
          type="button"
          className="action-quiet"
          disabled={next.isPending || blocked.length > 0}
          onClick={() => next.mutate({ stage: undefined, from: 'current' })}
        >
          {say('Make the next version')}
        </button>
      </div>
      <OverWeeks course={course} />
      <Versions course={course} content={content} plan={plan} />
      {next.error instanceof ApiError && (
        <p role="alert" className="mt-3 text-ease-deep">
          {next.error.message}
        </p>
      )}
    </Frame>
  );
}

/** The patient's link and code; both are shown once, and a new one ends the old. */
function HomeLink({ course }: { course: CourseView }) {
  const { episode } = course;
  const session = useSession();
  const client = useQueryClient();
  const [made, setMade] = useState<{ token: string; code: string } | null>(null);
  const make = useMutation({
    mutationFn: () =>
      request<{ token: string; code: string }>('POST', `/api/episodes/${episode.id}/home-link`),
    onSuccess: async (link) => {
      setMade(link);
      await client.invalidateQueries({ queryKey: keys.course(episode.id) });
    },
  });
  const link = made === null ? '' : `${window.location.origin}/home#${made.token}`;
  return (
    <section className="mt-5 border-t border-line pt-4">
      <h3>{say('On the patient’s phone')}</h3>
      <ReadsIn
        person={episode.person}
        changed={() => client.invalidateQueries({ queryKey: keys.course(episode.id) })}
      />
      {made === null ? (
        <p className="mt-1 text-sm text-ink-2">
          {episode.homeLink === null
            ? say('No link yet.')
            : episode.homeLink.locked
              ? say('The link is locked after five wrong codes.')
              : say('A link stands since {{createdAt}}.', { createdAt: fullDay(episode.homeLink.createdAt) })}
        </p>
      ) : (
        <div className="mt-2 rounded bg-heather-wash p-3 text-sm">
          <p>{say('Shown once. Give the link and the code by different ways.')}</p>
          <p className="mt-2 break-all font-semibold" data-testid="home-link">
            {link}
          </p>
          <p className="mt-2">
            {say('Code')}{' '}
            <span className="font-head text-2xl font-semibold tracking-widest" data-testid="home-code">
              {made.code}
            </span>
          </p>
          <button
            type="button"
            className="text-action mt-1 min-h-9"
            onClick={() => void navigator.clipboard.writeText(link)}
          >
            {say('Copy the link')}
          </button>
        </div>
      )}
      {session.data?.user.role !== 'assistant' && (
        <button
          type="button"
          className="text-action mt-1 min-h-9 text-sm"
          disabled={make.isPending}
          onClick={() => make.mutate()}
        >
          {episode.homeLink === null && made === null
            ? say('Make a link')
            : say('Make a new link, ending this one')}
        </button>
      )}
      {make.error instanceof ApiError && (
        <p role="alert" className="text-sm text-ease-deep">
          {make.error.message}
        </p>
      )}
    </section>
  );
}
