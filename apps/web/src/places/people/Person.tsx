import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Link, Navigate, useNavigate, useParams } from 'react-router';
import type { EpisodeView } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { keys, useContent, usePerson } from '../../api/queries.js';
import { Failed, Loading } from '../../app/Failures.js';
import { fullDay } from '../../parts/dates.js';

/** Someone with nothing recorded: choose the condition and the side, and begin. */
export function Person() {
  const { personId = '' } = useParams();
  const person = usePerson(personId);
  const content = useContent();
  if (person.data === undefined)
    return person.error === null ? (
      <Loading what="the person" />
    ) : (
      <Failed error={person.error} again={() => void person.refetch()} />
    );
  if (person.data.episode !== null)
    return (
      <Navigate
        to={`/episodes/${person.data.episode.id}/${person.data.episode.stage === null ? 'visit' : 'course'}`}
        replace
      />
    );
  return (
    <main className="mx-auto w-full max-w-3xl px-8 py-10">
      <p className="text-ink-2">
        <Link to="/people" className="text-action">
          People
        </Link>
      </p>
      <h1 className="mt-2">{person.data.name}</h1>
      <p className="mt-1 text-ink-2">
        {[
          person.data.occupation,
          person.data.birthDate === null ? '' : `born ${fullDay(person.data.birthDate)}`,
        ]
          .filter((t) => t !== '')
          .join(', ')}
      </p>
      <p className="mt-8">
        Nothing is recorded yet. A first visit starts with the story, then safety, then both feet.
      </p>
      {content.data !== undefined && <Begin personId={personId} conditions={content.data.pathways} />}
    </main>
  );
}

function Begin({
  personId,
  conditions,
}: {
  personId: string;
  conditions: readonly { key: string; name: string; gloss: string; protocol: string | null }[];
}) {
  const [key, setKey] = useState(conditions[0]?.key ?? '');
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
      <h2>What brings them</h2>
      <div role="radiogroup" aria-label="What brings them" className="mt-2">
        {conditions.map((c) => (
          <label
            key={c.key}
            className={`flex min-h-11 cursor-pointer items-baseline gap-3 border-b border-line-2 px-2 py-2 ${c.key === key ? 'bg-heather-wash' : ''}`}
          >
            <input
              type="radio"
              name="condition"
              checked={c.key === key}
              onChange={() => setKey(c.key)}
              className="translate-y-0.5"
            />
            <span className="w-48 font-semibold">{c.name}</span>
            <span className="flex-1 text-sm text-ink-2">
              {c.gloss}
              {c.protocol === null ? '. Measured and judged; its protocol is still to come' : ''}
            </span>
          </label>
        ))}
      </div>
      <div className="mt-5 flex gap-3" role="group" aria-label="Which side hurts">
        {(['left', 'both', 'right'] as const).map((s) => (
          <button
            key={s}
            type="button"
            aria-pressed={side === s}
            className={`min-h-11 min-w-24 rounded-lg border-2 px-4 font-semibold ${side === s ? 'border-heather bg-heather-wash text-heather-deep' : 'border-line hover:border-heather'}`}
            onClick={() => setSide(s)}
          >
            {s === 'left' ? 'L left' : s === 'right' ? 'right R' : 'both'}
          </button>
        ))}
      </div>
      <button
        type="button"
        className="action mt-6"
        disabled={side === null || begin.isPending}
        onClick={() => begin.mutate()}
      >
        Begin the first visit
      </button>
      {begin.error instanceof ApiError && (
        <p role="alert" className="mt-3 text-ease-deep">
          {begin.error.message}
        </p>
      )}
    </section>
  );
}
