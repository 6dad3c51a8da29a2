import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { whyAcuity, whyIrritability, whyStage, say, sayKey } from '@heathstep/core';
import { isConcluded, type VisitView } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { keys, useSession } from '../../api/queries.js';
import { ChoiceBlank } from '../../parts/Blank.js';
import { openPlace } from '../../parts/goOn.js';
import { sentence } from '../../parts/Judgement.js';
import { Why } from '../../parts/Why.js';
import { Driven } from './conclude/Driven.js';
import { JudgedIdeas } from './conclude/JudgedIdeas.js';
import { Referral } from './conclude/Referral.js';
import type { LiveVisit } from './live.js';
import { needsStage } from './progress.js';

/** What it looks like, how irritable and fresh, what keeps it going, where to start; the clinician's own conclusion is the record. */
export function Conclude({ live }: { live: LiveVisit }) {
  const { episode } = live.course;
  const first = episode.stage === null;
  return (
    <div className="grid grid-cols-[1.35fr_1fr] gap-8 max-md:grid-cols-1">
      <div>
        <JudgedIdeas live={live} />
        <FreeText live={live} entry="conclude.other" label={say('In my words')} />
        <p className="mt-3 text-sm text-ink-2">
          {say(
            'Ranked from what is known, mostly by convention; an order and not a probability. The conclusion is yours, within local rules and your scope of practice.',
          )}
        </p>
      </div>
      <div>
        <h3 className="text-ink-2">{say('Irritability and time course')}</h3>
        <p className="mt-2 text-lg font-semibold">
          <Why of={() => whyIrritability(live.irritability)}>
            {live.irritability.level === 'not-known'
              ? say('Irritability not known yet')
              : say('{{sentence}} irritability', { sentence: sentence(sayKey(live.irritability.level)) })}
          </Why>
          {', '}
          <Why of={() => whyAcuity(live.acuity)}>
            {live.acuity.level === 'not-known' ? say('time course not told') : sayKey(live.acuity.level)}
          </Why>
        </p>
        <p className="text-sm text-ink-2">
          {[
            ...live.irritability.because,
            ...live.irritability.missing.map((m) => say('{{m}} not asked yet', { m })),
            live.acuity.because,
          ].join('; ')}
        </p>
        <Driven live={live} />
        <Referral live={live} />
        <h3 className="mt-6 text-ink-2">{first ? say('Where to start') : say('Stage')}</h3>
        {!needsStage(live.protocol) ? (
          <p className="mt-2 text-ink-2">
            {say(
              'No protocol for this condition stands in the library yet. The visit is kept; a plan follows with its protocol.',
            )}
          </p>
        ) : first ? (
          <Start live={live} />
        ) : (
          <p className="mt-2">
            {say('{{name}}. The decision to go on, hold or ease back is made in Course.', {
              name: live.protocol.stages.find((s) => s.key === episode.stage)?.name ?? '',
            })}
          </p>
        )}
        <Sign live={live} />
      </div>
    </div>
  );
}

function Start({ live }: { live: LiveVisit }) {
  const chosen = live.get('conclude.stage');
  const stages = live.protocol.stages.filter((s) => s.criteria !== null);
  const suggested = stages.find((s) => s.key === live.start.stage);
  const differs = chosen !== null && chosen !== live.start.stage;
  return (
    <>
      <p className="mt-2 text-lg">
        {say('Suggested:')}{' '}
        <Why of={() => whyStage(live.start)} className="font-semibold">
          {suggested?.name ?? ''}
        </Why>
      </p>
      <p className="text-sm text-ink-2">{live.start.because.join('; ')}</p>
      <p className="mt-2 text-lg">
        {say('Start in')}{' '}
        <ChoiceBlank
          label={say('which stage')}
          value={chosen}
          options={stages.map((s) => ({ value: s.key, label: s.name }))}
          onChange={(v) => live.set('conclude.stage', v)}
        />
      </p>
      {differs && <FreeText live={live} entry="conclude.stage-reason" label={say('Why otherwise')} />}
    </>
  );
}

function FreeText({
  live,
  entry,
  label,
}: {
  live: LiveVisit;
  entry: 'conclude.other' | 'conclude.stage-reason' | 'note.conclude';
  label: string;
}) {
  const kept = live.get(entry) ?? '';
  const [text, setText] = useState(kept);
  useEffect(() => setText(kept), [kept]);
  return (
    <label className="mt-2 block">
      <span className="text-sm text-ink-2">{label}</span>
      <textarea
        className="field min-h-16"
        value={text}
        maxLength={2000}
        onChange={(e) => {
          setText(e.target.value);
          live.set(entry, e.target.value === '' ? null : e.target.value);
        }}
      />
    </label>
  );
}

/** Signs once what is still on its way is saved; what cannot be saved lets nothing be signed. */
function useSign(live: LiveVisit) {
  const { episode } = live.course;
  const planned = needsStage(live.protocol);
  const client = useQueryClient();
  const navigate = useNavigate();
  const sign = useMutation({
    mutationFn: async () => {
      await live.store.flush();
      return request<VisitView>('POST', `/api/visits/${live.visit.id}/sign`);
    },
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: keys.course(episode.id) });
      const next = !planned ? 'visit' : episode.stage === null ? 'plan' : 'course';
      await navigate(`/episodes/${episode.id}/${next}`, { state: { goesOn: true } });
    },
  });
  const { status } = live.store;
  const [asked, setAsked] = useState(false);
  const { mutate } = sign;
  useEffect(() => {
    if (!asked || status === 'saving') return;
    setAsked(false);
    if (status === 'saved') mutate();
  }, [asked, status, mutate]);
  return { ask: () => setAsked(true), busy: asked || sign.isPending, error: sign.error };
}

function Sign({ live }: { live: LiveVisit }) {
  const { episode } = live.course;
  const planned = needsStage(live.protocol);
  const session = useSession();
  const sign = useSign(live);
  const missing = live.safety.unanswered.length;
  const waits = [
    ...(missing > 0
      ? [missing === 1 ? say('a safety answer') : say('{{missing}} safety answers', { missing })]
      : []),
    ...(live.unexplained.length > 0
      ? [
          live.unexplained.length === 1
            ? say('why a test was left out')
            : say('why {{n}} tests were left out', { n: live.unexplained.length }),
        ]
      : []),
    ...(!isConcluded(live.readings.entries) ? [say('your conclusion')] : []),
    ...(planned && episode.stage === null && live.get('conclude.stage') === null
      ? [say('the stage to start in')]
      : []),
  ];
  const { status } = live.store;
  const unsaved = status !== 'saved' && status !== 'saving';
  if (live.visit.signedAt !== null)
    return (
      <p className="mt-8 border-t border-line pt-4 text-ink-2">
        {say('Signed by {{signedBy}}.', { signedBy: live.visit.signedBy ?? '' })}
      </p>
    );
  return (
    <div className="mt-8 border-t border-line pt-4" {...openPlace(true)}>
      {session.data?.user.role === 'assistant' ? (
        <p className="text-sm text-ink-2">{say('A clinician signs the visit.')}</p>
      ) : (
        <button
          type="button"
          className="action"
          disabled={waits.length > 0 || unsaved || sign.busy}
          onClick={sign.ask}
        >
          {!planned
            ? say('Sign the visit')
            : episode.stage === null
              ? say('Sign, and make the plan')
              : say('Sign, and decide')}
        </button>
      )}
      {waits.length > 0 && (
        <p className="mt-2 text-sm text-ink-2">
          {say('Still wanted: {{list}}.', { list: waits.join(', ') })}
        </p>
      )}
      {live.missingMeasures.length > 0 && (
        <p className="mt-1 text-sm text-ink-2">
          {say('Not measured: {{list}}. A plan can be made without; its reasons will say so.', {
            list: live.missingMeasures.map((m) => m.label.toLowerCase()).join(', '),
          })}
        </p>
      )}
      {sign.error instanceof ApiError && (
        <p role="alert" className="mt-2 text-ease-deep">
          {sign.error.message}
        </p>
      )}
      {planned && (
        <p className="mt-3 text-sm">
          <Link className="text-action" to={`/episodes/${episode.id}/plan`}>
            {say('To the plan without signing yet')}
          </Link>
        </p>
      )}
    </div>
  );
}
