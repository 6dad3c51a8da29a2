import { say } from '@heathstep/core';
import { RadioRow } from '../../parts/RadioRow.js';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Link, Navigate, useNavigate, useParams, useSearchParams } from 'react-router';
import type { Pathway } from '@heathstep/content';
import type { EpisodeView } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { keys, useContent, usePerson } from '../../api/queries.js';
import { Failed, Loading } from '../../parts/Waiting.js';
import { ReadsIn } from '../../parts/ReadsIn.js';
import { dayHere } from '../../parts/dates.js';
import { Complaints } from './Complaints.js';
import { Consent } from './Consent.js';
import { Facts } from './Facts.js';
import { PathwayChoice } from './PathwayChoice.js';
import { FromElsewhere, WholeRecord } from './WholeRecord.js';

/** Someone with nothing recorded: choose the condition and the side, and begin. */
export function Person() {
  const { personId = '' } = useParams();
  const person = usePerson(personId);
  const content = useContent();
  const [search] = useSearchParams();
  const all = search.has('all');
  if (person.data === undefined)
    return person.error === null ? (
      <Loading what={say('the person')} />
    ) : (
      <Failed error={person.error} again={() => void person.refetch()} />
    );
  const { episodes } = person.data;
  const open = episodes.filter((e) => e.status === 'open');
  const [only] = open;
  if (only !== undefined && open.length === 1 && !all)
    return <Navigate to={`/episodes/${only.id}/${only.stage === null ? 'visit' : 'course'}`} replace />;
  return (
    <main className="mx-auto w-full max-w-3xl px-8 py-10">
      <p className="text-ink-2">
        <Link to="/people" className="text-action">
          {say('People')}
        </Link>
      </p>
      <Facts person={person.data} changed={() => person.refetch()} />
      <ReadsIn person={person.data} changed={() => person.refetch()} />
      <Consent personId={person.data.id} today={dayHere(new Date().toISOString())} />
      <WholeRecord person={person.data} />
      <FromElsewhere personId={person.data.id} />
      {episodes.length === 0 ? (
        <p className="mt-8">
          {say('Nothing is recorded yet. A first visit starts with the story, then safety, then both feet.')}
        </p>
      ) : (
        <Complaints person={person.data} pathways={content.data?.pathways ?? []} />
      )}
      {content.data !== undefined && (
        <Begin
          personId={personId}
          conditions={content.data.pathways}
          title={episodes.length === 0 ? say('What brings them') : say('Another complaint')}
        />
      )}
    </main>
  );
}

const SIDES_THAT_HURT = [
  { value: 'left', word: say('L left') },
  { value: 'both', word: say('both') },
  { value: 'right', word: say('right R') },
] as const;

function Begin({
  personId,
  conditions,
  title,
}: {
  title: string;
  personId: string;
  conditions: readonly Pathway[];
}) {
  const [key, setKey] = useState('');
  const [side, setSide] = useState<'left' | 'right' | 'both' | null>(null);
  const id = useRef(crypto.randomUUID());
  const client = useQueryClient();
  const navigate = useNavigate();
  const condition = conditions.find((c) => c.key === key);
  const begin = useMutation({
    mutationFn: () =>
      request<EpisodeView>('POST', `/api/people/${personId}/episodes`, {
        id: id.current,
        condition: condition?.key,
        affected: side,
      }),
    onSuccess: async (episode) => {
      await client.invalidateQueries({ queryKey: keys.person(personId) });
      await navigate(`/episodes/${episode.id}/visit`);
    },
  });
  return (
    <section className="mt-6 border-t border-line pt-6">
      <h2>{title}</h2>
      <PathwayChoice pathways={conditions} value={key} onChange={setKey} />
      <div className="sticky bottom-0 z-10 mt-3 flex flex-wrap items-center gap-x-6 gap-y-2 border-t border-line bg-ground py-3">
        <RadioRow
          label={say('Which side hurts')}
          className="flex gap-3"
          value={side}
          options={SIDES_THAT_HURT}
          onChange={setSide}
          itemClass={(_, on) =>
            `min-h-11 min-w-20 rounded-lg border-2 px-4 font-semibold ${on ? 'border-heather bg-heather-wash text-heather-deep' : 'border-line hover:border-heather'}`
          }
        />
        <button
          type="button"
          className="action"
          disabled={side === null || condition === undefined || begin.isPending}
          onClick={() => begin.mutate()}
        >
          {say('Begin the first visit')}
        </button>
        <p className="text-sm text-ink-2" aria-live="polite">
          {condition === undefined
            ? say('Choose what brings them')
            : side === null
              ? say('{{name}}: which side hurts?', { name: condition.name })
              : ''}
        </p>
      </div>
      {begin.error instanceof ApiError && (
        <p role="alert" className="mt-3 text-ease-deep">
          {begin.error.message}
        </p>
      )}
    </section>
  );
}
