import { LETTER_KIND_WORDS, LETTER_KINDS, type LetterKind, say } from '@heathstep/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef } from 'react';
import { Link, useLocation, useNavigate } from 'react-router';
import {
  type CourseView,
  LETTER_WAY_WORDS,
  type LetterPageView,
  type LettersView,
  type LetterView,
} from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { type ClinicContent, useSession } from '../../api/queries.js';
import { fullDay, momentText } from '../../parts/dates.js';
import { EpisodeHead } from '../../parts/EpisodeHead.js';
import { Refusal } from '../../parts/fields.js';
import { OfEpisode } from '../../parts/OfEpisode.js';
import { Failed, Loading } from '../../parts/Waiting.js';

export const lettersKey = (episodeId: string) => ['letters', episodeId] as const;

/** The letters of a complaint: what went out and to whom, drafts, and how one is begun. */
export function Letters() {
  return (
    <OfEpisode what={say('the letters')}>
      {(course, content) => <Place course={course} content={content} />}
    </OfEpisode>
  );
}

function Place({ course, content }: { course: CourseView; content: ClinicContent }) {
  const { episode } = course;
  const session = useSession();
  const condition = content.pathways.find((c) => c.key === episode.condition)?.name ?? '';
  return (
    <>
      <EpisodeHead episode={episode} condition={condition} />
      <main className="mx-auto w-full max-w-3xl px-5 py-6">
        <h2 className="text-2xl">{say('Letters')}</h2>
        {session.data?.user.role === 'assistant' ? (
          <p className="mt-2 text-ink-2">{say('Letters are written by clinicians and leads.')}</p>
        ) : (
          <Written episodeId={episode.id} />
        )}
      </main>
    </>
  );
}

const MEANS: Readonly<Record<LetterKind, string>> = {
  referral: say('asks someone else to see them'),
  progress: say('tells how treatment goes'),
  discharge: say('tells how treatment ended'),
};

function Written({ episodeId }: { episodeId: string }) {
  const letters = useQuery({
    queryKey: lettersKey(episodeId),
    queryFn: () => request<LettersView>('GET', `/api/episodes/${episodeId}/letters`),
  });
  if (letters.data === undefined)
    return letters.error === null ? (
      <Loading what={say('the letters')} />
    ) : (
      <Failed error={letters.error} again={() => void letters.refetch()} />
    );
  const { letters: all, open } = letters.data;
  const drafts = all.filter((l) => l.sent === null);
  const sent = all.filter((l) => l.sent !== null);
  return (
    <>
      <Dropped episodeId={episodeId} />
      <Begin episodeId={episodeId} open={open} />
      {drafts.length > 0 && (
        <section aria-label={say('Drafts')} className="mt-6">
          <h3>{say('Drafts')}</h3>
          <List letters={drafts} />
        </section>
      )}
      <section aria-label={say('Sent')} className="mt-6">
        <h3>{say('Sent')}</h3>
        {sent.length === 0 ? (
          <p className="text-ink-2">{say('No letter of this complaint was noted as sent.')}</p>
        ) : (
          <List letters={sent} />
        )}
      </section>
      <p className="mt-6 max-w-prose text-ink-2">
        {say('Without writing one:')}{' '}
        <Link className="text-action" to={`/episodes/${episodeId}/letter`}>
          {say('a page of how it stands now')}
        </Link>
      </p>
    </>
  );
}

function List({ letters }: { letters: readonly LetterView[] }) {
  return (
    <ul className="mt-1 border-t border-line">
      {letters.map((l) => (
        <li key={l.id} className="border-b border-line">
          <Link
            to={`/letters/${l.id}`}
            className="flex min-h-11 flex-wrap items-baseline gap-x-3 py-2 hover:bg-paper"
          >
            <b>{say(LETTER_KIND_WORDS[l.kind])}</b>
            <span data-said-by-others="">{l.to.split('\n')[0]}</span>
            <span className="ml-auto text-sm text-ink-2">
              {l.sent === null
                ? say('changed {{at}} by {{by}}', { at: momentText(l.at), by: l.by })
                : say('{{day}}, {{way}}, by {{by}}', {
                    day: fullDay(l.sent.on),
                    way: say(LETTER_WAY_WORDS[l.sent.way]),
                    by: l.sent.by,
                  })}
            </span>
          </Link>
        </li>
      ))}
    </ul>
  );
}

function Begin({ episodeId, open }: { episodeId: string; open: LettersView['open'] }) {
  const navigate = useNavigate();
  // One id until it worked, so that a second press begins nothing twice.
  const ids = useRef(new Map<LetterKind, string>());
  const begin = useMutation({
    mutationFn: (kind: LetterKind) => {
      const id = ids.current.get(kind) ?? crypto.randomUUID();
      ids.current.set(kind, id);
      return request<LetterPageView>('POST', `/api/episodes/${episodeId}/letters`, { id, kind });
    },
    onSuccess: (page) => navigate(`/letters/${page.letter.id}`),
  });
  return (
    <section aria-label={say('Begin a letter')} className="mt-3">
      <ul className="grid gap-3 sm:grid-cols-3">
        {LETTER_KINDS.map((kind) => (
          <li key={kind}>
            <button
              type="button"
              className="action-quiet w-full"
              disabled={open[kind] !== null || begin.isPending}
              aria-describedby={`begin-${kind}`}
              onClick={() => begin.mutate(kind)}
            >
              {say(LETTER_KIND_WORDS[kind])}
            </button>
            <p id={`begin-${kind}`} className="mt-1 text-sm text-ink-2">
              {open[kind] ?? MEANS[kind]}
            </p>
          </li>
        ))}
      </ul>
      <Refusal error={begin.error instanceof ApiError ? begin.error : null} />
    </section>
  );
}

/** A draft that was just thrown away, to be taken back. */
function Dropped({ episodeId }: { episodeId: string }) {
  const { state } = useLocation() as { state: { readonly dropped?: string } | null };
  const client = useQueryClient();
  const navigate = useNavigate();
  const back = useMutation({
    mutationFn: (id: string) => request<LetterPageView>('POST', `/api/letters/${id}/back`, {}),
    onSuccess: async (page) => {
      await client.invalidateQueries({ queryKey: lettersKey(episodeId) });
      await navigate(`/letters/${page.letter.id}`);
    },
  });
  const id = state?.dropped;
  if (id === undefined) return null;
  return (
    <p role="status" className="mt-2">
      {say('The draft is thrown away.')}{' '}
      <button
        type="button"
        className="text-action min-h-9"
        disabled={back.isPending}
        onClick={() => back.mutate(id)}
      >
        {say('Take back')}
      </button>
    </p>
  );
}
