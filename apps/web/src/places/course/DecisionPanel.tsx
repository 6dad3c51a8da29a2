import { RadioRow } from '../../parts/RadioRow.js';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import {
  type ProtocolDefinition,
  REVIEW_RULES,
  type ReviewResult,
  whyReview,
  say,
  notMetYet,
} from '@heathstep/core';
import { DECISIONS, STOP_ENDS, type CourseView, type DecisionBody } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { type ClinicContent, keys, useSession } from '../../api/queries.js';
import { CloseDialog, type ClosureValues } from '../../parts/CloseDialog.js';
import { useArrival } from '../../parts/useArrival.js';
import { fullDay, longDay } from '../../parts/dates.js';
import { endedWords } from '../../parts/Ended.js';
import { DECISION_WORDS, Judgement, sentence } from '../../parts/Judgement.js';
import { Questions } from '../../parts/Questions.js';
import { Why } from '../../parts/Why.js';
import { NextReview } from '../../parts/NextReview.js';
import { TriedToday } from './TriedToday.js';
import { Upkeep } from './Upkeep.js';

const HEADLINE: Record<
  ReviewResult['decision'],
  (stages: { now: string; next: string; before: string }) => string
> = {
  refer: () => say('Refer before going on'),
  'ease-back': ({ now, before }) =>
    before === '' ? say('Ease {{now}} back to less', { now }) : say('Ease back to {{before}}', { before }),
  'adjust-dose': ({ now }) => say('Stay in {{now}}, change the dose', { now }),
  'hold-and-retest': ({ now }) => say('Stay in {{now}}, and re-test', { now }),
  progress: ({ next }) => say('Go on to {{next}}', { next }),
  hold: ({ now }) => say('Stay in {{now}}, keep the dose', { now }),
  'look-again': () => say('Look again at what keeps it going'),
};

/** The suggestion with its reasons and what would change it; the clinician uses it or decides otherwise. */
export function DecisionPanel({
  course,
  content,
  protocol,
}: {
  course: CourseView;
  content: ClinicContent;
  protocol: ProtocolDefinition;
}) {
  const { review, episode } = course;
  const at = protocol.stages.findIndex((s) => s.key === episode.stage);
  const names = {
    now: protocol.stages[at]?.name ?? '',
    next: protocol.stages[at + 1]?.name ?? '',
    before: protocol.stages[at - 1]?.name ?? '',
  };
  if (review === null && episode.status === 'open')
    return (
      <div>
        {episode.cameBackAt !== null && protocol.relapse !== '' && (
          <>
            <h2>{say('When it comes back')}</h2>
            <p className="mb-3">{sentence(say(protocol.relapse))}.</p>
          </>
        )}
        <p className="text-ink-2">
          {say('A decision is suggested once a plan is given and something is logged.')}
        </p>
        <History course={course} />
      </div>
    );
  if (episode.status === 'closed')
    return (
      <div>
        <h2 className="text-2xl">{say('Closed')}</h2>
        <p className="mt-2 text-ink-2">
          {say('It was {{ended}}. Nothing is decided for it any more.', { ended: endedWords(episode.ended) })}
        </p>
        <p className="mt-3">
          <Link className="action" to={`/episodes/${episode.id}/letter`}>
            {say('Discharge letter')}
          </Link>
        </p>
        <History course={course} />
      </div>
    );
  if (review === null) return null;
  return (
    <Suggested
      course={course}
      content={content}
      review={review}
      names={names}
      last={at >= protocol.stages.length - 1}
    />
  );
}

/** What is suggested now, to be used or decided otherwise. */
function Suggested({
  course,
  content,
  review,
  names,
  last,
}: {
  course: CourseView;
  content: ClinicContent;
  review: ReviewResult;
  names: { now: string; next: string; before: string };
  last: boolean;
}) {
  const panel = useArrival();
  const words = DECISION_WORDS[review.decision];
  const reviewed = content.reviews['rule:review'];
  return (
    <div ref={panel} tabIndex={-1}>
      <OpenStops course={course} />
      <Questions episodeId={course.episode.id} />
      {words !== undefined && <Judgement tone={words.tone}>{words.text}</Judgement>}
      <h2 className="mt-1 text-2xl">{HEADLINE[review.decision](names)}</h2>
      <Decide course={course} review={review} last={last} />
      {course.upkeep !== null && <Upkeep course={course} upkeep={course.upkeep} />}
      {course.drafted !== null && <Drafted plan={course.drafted} />}
      <TriedToday course={course} content={content} />
      <Reasons review={review} />
      {review.wouldChange.length > 0 && (
        <div className="mt-3 text-sm text-ink-2">
          <p className="font-semibold">{say('What would change it')}</p>
          <ul className="list-disc pl-5">
            {review.wouldChange.map((w) => (
              <li key={w}>{w}</li>
            ))}
          </ul>
        </div>
      )}
      <p className="mt-4 text-sm text-ink-2">
        {say('A suggestion by rule {{rule}} of {{n}}, {{confidence}}. {{words}} The decision is yours.', {
          rule: review.rule,
          n: REVIEW_RULES.length,
          confidence: say(review.confidence),
          words:
            reviewed === undefined
              ? say('The rules are not yet reviewed by this clinic.')
              : say('Rules reviewed by {{reviewer}}, {{on}}.', {
                  reviewer: reviewed.reviewer,
                  on: fullDay(reviewed.on),
                }),
        })}{' '}
        <Why of={() => whyReview(review)}>{say('Show the working')}</Why>
      </p>
      <NextReview course={course} />
      <History course={course} />
    </div>
  );
}

/** What using the suggestion would draft, before it is used; the draft can still be changed before it is given. */
function Drafted({ plan }: { plan: NonNullable<CourseView['drafted']> }) {
  const { come, gone, otherwise } = plan;
  return (
    <section
      aria-label={say('The plan it would draft')}
      className="mt-4 rounded-lg bg-heather-wash px-3 py-2 text-sm"
    >
      <h3 className="text-sm">{say('Using this drafts a plan in which')}</h3>
      {come.length + gone.length + otherwise.length === 0 && <p>{say('nothing is otherwise than now.')}</p>}
      <ul className="space-y-1">
        {gone.map((g) => (
          <li key={g.name}>
            <b>{g.name}</b> {say('leaves')}
          </li>
        ))}
        {come.map((c) => (
          <li key={c.name}>
            <b>{c.name}</b> {say('comes: {{dose}}', { dose: c.dose })}
          </li>
        ))}
        {otherwise.map((o) => (
          <li key={o.name}>
            <b>{o.name}</b> {say('becomes: {{dose}}', { dose: o.dose })}{' '}
            <span className="text-ink-2">{say('Before: {{before}}', { before: o.before })}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Why, in full; criteria that are simply not met yet stand at the left and are only counted here. */
function Reasons({ review }: { review: ReviewResult }) {
  const notYet = notMetYet(review.criteria);
  const waiting = review.because.filter((b) => notYet.includes(b)).length;
  const told = review.because.filter((b) => !notYet.includes(b));
  return (
    <ul className="mt-4 border-t border-line">
      {told.map((reason) => (
        <li key={reason} className="border-b border-line-2 py-1.5">
          {sentence(reason)}
        </li>
      ))}
      {waiting > 0 && (
        <li className="border-b border-line-2 py-1.5 text-ink-2">
          {waiting === 1
            ? say('One criterion is not met yet')
            : say('{{waiting}} criteria are not met yet', { waiting })}
        </li>
      )}
    </ul>
  );
}

function Decide({ course, review, last }: { course: CourseView; review: ReviewResult; last: boolean }) {
  const { episode } = course;
  const client = useQueryClient();
  const session = useSession();
  const navigate = useNavigate();
  const id = useRef(crypto.randomUUID());
  const [otherwise, setOtherwise] = useState(false);
  const decide = useMutation({
    mutationFn: (body: { decision: DecisionBody['decision']; reason?: string }) =>
      request<CourseView>('POST', `/api/episodes/${episode.id}/decisions`, {
        id: id.current,
        on: { stage: episode.stage, planId: episode.plan?.id ?? null, suggested: review.decision },
        ...body,
      }),
    onError: (failure) => {
      if (failure instanceof ApiError && failure.status === 409)
        void client.invalidateQueries({ queryKey: keys.course(episode.id) });
    },
    onSuccess: async (next) => {
      id.current = crypto.randomUUID();
      setOtherwise(false);
      client.setQueryData(keys.course(episode.id), next);
      void client.invalidateQueries({ queryKey: keys.day });
      if (next.episode.draft !== null)
        await navigate(`/episodes/${episode.id}/plan`, { state: { goesOn: true } });
    },
  });
  if (session.data?.user.role === 'assistant')
    return <p className="mt-4 text-sm text-ink-2">{say('A clinician decides.')}</p>;
  const error = decide.error instanceof ApiError ? decide.error : null;
  const reasonError = error?.at('/reason') ?? null;
  return (
    <div className="mt-4">
      <div className="flex flex-wrap gap-3">
        <button
          type="button"
          className="action"
          disabled={decide.isPending}
          onClick={() => decide.mutate({ decision: review.decision })}
        >
          {say('Use this')}
        </button>
        <button
          type="button"
          className="action-quiet"
          aria-expanded={otherwise}
          onClick={() => setOtherwise(!otherwise)}
        >
          {say('Decide otherwise')}
        </button>
      </div>
      {otherwise && (
        <Otherwise
          review={review}
          last={last}
          busy={decide.isPending}
          reasonError={reasonError}
          record={(decision, reason) => decide.mutate({ decision, reason })}
        />
      )}
      {error !== null && (
        <p role="alert" className="mt-2 text-ease-deep">
          {reasonError ?? error.message}
        </p>
      )}
    </div>
  );
}

/** Another decision, with its reason. */
function Otherwise({
  review,
  last,
  busy,
  reasonError,
  record,
}: {
  review: ReviewResult;
  last: boolean;
  busy: boolean;
  reasonError: string | null;
  record: (decision: DecisionBody['decision'], reason: string) => void;
}) {
  const [choice, setChoice] = useState<DecisionBody['decision'] | null>(null);
  const [reason, setReason] = useState('');
  return (
    <form
      className="mt-4 rounded-lg border border-line p-4"
      onSubmit={(e) => {
        e.preventDefault();
        if (choice !== null) record(choice, reason);
      }}
    >
      <RadioRow
        label={say('Decision')}
        className="flex flex-wrap gap-2"
        value={choice}
        options={DECISIONS.filter((d) => d !== review.decision && !(d === 'progress' && last)).map((d) => ({
          value: d,
          word: DECISION_WORDS[d]?.text,
        }))}
        onChange={setChoice}
        itemClass={(_, on) =>
          `min-h-10 rounded border-2 px-2.5 text-sm font-semibold ${on ? 'border-heather bg-heather-wash' : 'border-line'}`
        }
      />
      <label className="mt-3 block">
        <span className="text-sm text-ink-2">{say('Why otherwise')}</span>
        <textarea
          className="field min-h-16"
          value={reason}
          maxLength={2000}
          aria-invalid={reasonError !== null}
          onChange={(e) => setReason(e.target.value)}
        />
      </label>
      <button type="submit" className="action mt-2" disabled={choice === null || busy}>
        {say('Record it')}
      </button>
    </form>
  );
}

/** Stop signs reported at home, closed here with their result. */
function OpenStops({ course }: { course: CourseView }) {
  const { episode } = course;
  const client = useQueryClient();
  const [closing, setClosing] = useState<string | null>(null);
  const id = useRef(crypto.randomUUID());
  const stop = episode.openStops.find((s) => s.id === closing);
  const send = async (values: ClosureValues) => {
    await request('POST', `/api/episodes/${episode.id}/closures`, {
      id: id.current,
      subject: `stop:${closing ?? ''}`,
      side: 'none',
      ...values,
    });
    id.current = crypto.randomUUID();
    setClosing(null);
    await client.invalidateQueries({ queryKey: keys.course(episode.id) });
  };
  return (
    <>
      {episode.openStops.map((s) => (
        <div key={s.id} className="mb-4 rounded bg-ease-wash p-3" role="alert">
          <p className="font-semibold text-ease-deep">
            {say('Stop sign reported at home, {{longDay}}', { longDay: longDay(s.day) })}
          </p>
          <p>{`${s.sign} (${s.grade})`}</p>
          <button type="button" className="text-action min-h-9" onClick={() => setClosing(s.id)}>
            {say('Close with result')}
          </button>
        </div>
      ))}
      {stop !== undefined && (
        <CloseDialog
          title={stop.sign}
          today={episode.today}
          overridable={false}
          ways={STOP_ENDS}
          send={send}
          cancel={() => setClosing(null)}
        />
      )}
    </>
  );
}

function History({ course }: { course: CourseView }) {
  if (course.decisions.length === 0) return null;
  return (
    <section className="mt-6 border-t border-line pt-4">
      <h3>{say('Decided before')}</h3>
      <ol className="mt-1 text-sm">
        {course.decisions.map((d) => (
          <li key={d.id} className="border-b border-line-2 py-2">
            <span className="font-semibold">{DECISION_WORDS[d.decision]?.text ?? d.decision}</span>,{' '}
            {fullDay(d.at)}, {d.by}
            <span className="block text-ink-2">
              {d.agreed
                ? say('as suggested')
                : say('suggested: {{text}}. {{reason}}', {
                    text: DECISION_WORDS[d.suggested]?.text ?? d.suggested,
                    reason: d.reason,
                  })}
            </span>
          </li>
        ))}
      </ol>
      <p className="mt-2 text-sm">
        <Link className="text-action" to={`/episodes/${course.episode.id}/plan`}>
          {say('To the plan')}
        </Link>
      </p>
    </section>
  );
}
