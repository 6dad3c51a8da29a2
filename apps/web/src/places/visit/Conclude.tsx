import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { type HeelPainIdea, whyDriver, whyHeelPain, whyIrritability, whyStage } from '@heathstep/core';
import type { VisitView } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { keys, useSession } from '../../api/queries.js';
import { ChoiceBlank } from '../../parts/Blank.js';
import { sentence } from '../../parts/Judgement.js';
import { Why } from '../../parts/Why.js';
import type { LiveVisit } from './live.js';
import { needsStage } from './progress.js';

export const RANK_WORDS = {
  leading: 'leading',
  likely: 'likely',
  possible: 'possible',
  'cannot-tell': 'cannot tell yet',
} as const;

/** Why it looks like heel pain, how irritable, where to start; the clinician's own conclusion is the record. */
export function Conclude({ live }: { live: LiveVisit }) {
  const { episode } = live.course;
  const first = episode.stage === null;
  return (
    <div className="grid grid-cols-[1.15fr_1fr] gap-10">
      <section>
        <h3 className="text-ink-2">What it looks like</h3>
        <p className="mt-2 font-head text-xl font-semibold">
          {live.conditionName}
          {live.idea !== null && <Rank idea={live.idea} />}
        </p>
        {live.idea === null ? (
          <p className="mt-2 text-ink-2">
            What speaks for and against is not worked out for this condition yet; the conclusion is yours.
          </p>
        ) : (
          <>
            <Balance title="For" items={live.idea.for} mark="+" />
            <Balance title="Against" items={live.idea.against} mark="−" />
            <Balance title="Not asked yet" items={live.idea.missing} mark="?" />
          </>
        )}
        <p className="mt-4 text-lg leading-9">
          My conclusion:{' '}
          <ChoiceBlank
            label="agree or otherwise"
            value={live.get<'agree' | 'other'>('conclude.condition')}
            options={[
              { value: 'agree', label: `I agree, ${live.conditionName.toLowerCase()}` },
              { value: 'other', label: 'something else, in my words' },
            ]}
            onChange={(v) => live.set('conclude.condition', v)}
          />
        </p>
        {live.get('conclude.condition') === 'other' && (
          <FreeText live={live} entry="conclude.other" label="In my words" />
        )}
      </section>
      <section>
        <h3 className="text-ink-2">Irritability</h3>
        <p className="mt-2 text-lg font-semibold">
          <Why of={() => whyIrritability(live.irritability)}>
            {live.irritability.level === 'not-known' ? 'Not known yet' : sentence(live.irritability.level)}
          </Why>
        </p>
        <p className="text-sm text-ink-2">
          {[...live.irritability.because, ...live.irritability.missing.map((m) => `${m} not asked yet`)].join(
            '; ',
          )}
        </p>
        <h3 className="mt-6 text-ink-2">What keeps it going</h3>
        {live.drivers.length === 0 && (
          <p className="mt-1 text-sm text-ink-2">Nothing stands out in what was measured.</p>
        )}
        <ul className="mt-1">
          {live.drivers.map((d) => (
            <li key={`${d.key}-${d.side}`} className="border-b border-line-2 py-1.5">
              <Why of={() => whyDriver(d)} className="font-semibold">
                {d.label}
              </Why>
              , <span style={{ color: `var(--color-${d.side})` }}>{d.side}</span>
              <span className="block text-sm text-ink-2">{d.because}</span>
            </li>
          ))}
        </ul>
        <h3 className="mt-6 text-ink-2">{first ? 'Where to start' : 'Stage'}</h3>
        {!needsStage(live.protocol) ? (
          <p className="mt-2 text-ink-2">
            No protocol for this condition stands in the library yet. The visit is kept; a plan follows with
            its protocol.
          </p>
        ) : first ? (
          <Start live={live} />
        ) : (
          <p className="mt-2">{`${live.protocol.stages.find((s) => s.key === episode.stage)?.name ?? ''}. The decision to go on, hold or ease back is made in Course.`}</p>
        )}
        <Sign live={live} />
      </section>
    </div>
  );
}

function Rank({ idea }: { idea: HeelPainIdea }) {
  return (
    <>
      :{' '}
      <Why of={() => whyHeelPain(idea)} className="text-heather-deep">
        {RANK_WORDS[idea.rank]}
      </Why>
    </>
  );
}

function Balance({ title, items, mark }: { title: string; items: readonly string[]; mark: string }) {
  if (items.length === 0) return null;
  return (
    <div className="mt-3">
      <h4 className="text-sm text-ink-2">{title}</h4>
      <ul>
        {items.map((item) => (
          <li key={item} className="flex gap-3 border-b border-line-2 py-1.5">
            <span aria-hidden className="w-4 text-center font-bold text-ink-3">
              {mark}
            </span>
            {item}
          </li>
        ))}
      </ul>
    </div>
  );
}

function Start({ live }: { live: LiveVisit }) {
  const chosen = live.get<string>('conclude.stage');
  const stages = live.protocol.stages.filter((s) => s.criteria !== null);
  const suggested = stages.find((s) => s.key === live.start.stage);
  const differs = chosen !== null && chosen !== live.start.stage;
  return (
    <>
      <p className="mt-2 text-lg">
        Suggested:{' '}
        <Why of={() => whyStage(live.start)} className="font-semibold">
          {suggested?.name ?? ''}
        </Why>
      </p>
      <p className="text-sm text-ink-2">{live.start.because.join('; ')}</p>
      <p className="mt-2 text-lg">
        Start in{' '}
        <ChoiceBlank
          label="which stage"
          value={chosen}
          options={stages.map((s) => ({ value: s.key, label: s.name }))}
          onChange={(v) => live.set('conclude.stage', v)}
        />
      </p>
      {differs && <FreeText live={live} entry="conclude.stage-reason" label="Why otherwise" />}
    </>
  );
}

function FreeText({ live, entry, label }: { live: LiveVisit; entry: string; label: string }) {
  const kept = live.get<string>(entry) ?? '';
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

function Sign({ live }: { live: LiveVisit }) {
  const { episode } = live.course;
  const planned = needsStage(live.protocol);
  const session = useSession();
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
      await navigate(`/episodes/${episode.id}/${next}`);
    },
  });
  const missing = live.safety.unanswered.length;
  const waits = [
    ...(missing > 0 ? [`${missing} safety answers`] : []),
    ...(live.get('conclude.condition') === null ? ['your conclusion'] : []),
    ...(planned && episode.stage === null && live.get('conclude.stage') === null
      ? ['the stage to start in']
      : []),
  ];
  const unsaved = live.store.status !== 'saved';
  if (live.visit.signedAt !== null)
    return (
      <p className="mt-8 border-t border-line pt-4 text-ink-2">{`Signed by ${live.visit.signedBy ?? ''}.`}</p>
    );
  return (
    <div className="mt-8 border-t border-line pt-4">
      {session.data?.user.role === 'assistant' ? (
        <p className="text-sm text-ink-2">A clinician signs the visit.</p>
      ) : (
        <button
          type="button"
          className="action"
          disabled={waits.length > 0 || unsaved || sign.isPending}
          onClick={() => sign.mutate()}
        >
          {!planned
            ? 'Sign the visit'
            : episode.stage === null
              ? 'Sign, and make the plan'
              : 'Sign, and decide'}
        </button>
      )}
      {waits.length > 0 && <p className="mt-2 text-sm text-ink-2">Still wanted: {waits.join(', ')}.</p>}
      {live.missingMeasures.length > 0 && (
        <p className="mt-1 text-sm text-ink-2">
          Not measured: {live.missingMeasures.map((m) => m.label.toLowerCase()).join(', ')}. A plan can be
          made without; its reasons will say so.
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
            To the plan without signing yet
          </Link>
        </p>
      )}
    </div>
  );
}
