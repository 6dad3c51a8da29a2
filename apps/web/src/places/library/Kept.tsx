import { say } from '@heathstep/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Star } from 'lucide-react';
import { useState } from 'react';
import type { ExerciseVersionView } from '@heathstep/contracts';
import type { ExerciseDefinition } from '@heathstep/core';
import { ApiError, request } from '../../api/client.js';
import { type ClinicContent, keys, useSession } from '../../api/queries.js';
import { fullDay } from '../../parts/dates.js';

/** Keeps an exercise among one's favourites; shown at once, taken back when it could not be kept. */
export function FavouriteStar({ exercise, on }: { exercise: ExerciseDefinition; on: boolean }) {
  const client = useQueryClient();
  const put = useMutation({
    mutationFn: (next: boolean) => request('PUT', `/api/library/favourites/${exercise.key}`, { on: next }),
    onMutate: (next) => {
      client.setQueryData<ClinicContent>(keys.content, (before) =>
        before === undefined
          ? before
          : {
              ...before,
              favourites: next
                ? [...before.favourites, exercise.key]
                : before.favourites.filter((k) => k !== exercise.key),
            },
      );
    },
    onError: () => void client.invalidateQueries({ queryKey: keys.content }),
  });
  return (
    <button
      type="button"
      className="inline-flex min-h-11 items-center gap-1.5 text-heather-deep"
      aria-pressed={on}
      onClick={() => put.mutate(!on)}
    >
      <Star className="size-5" fill={on ? 'currentColor' : 'none'} aria-hidden />
      {on ? say('favourite') : say('keep as favourite')}
      {put.isError && (
        <span role="alert" className="text-sm text-ease-deep">
          {say('not kept, try again')}
        </span>
      )}
    </button>
  );
}

/** Gives the exercise with its figure as a file. */
export function Export({ exercise }: { exercise: ExerciseDefinition }) {
  const get = useMutation({
    mutationFn: () => request<object>('GET', `/api/library/exercises/${exercise.key}/file`),
    onSuccess: (file) => {
      const link = document.createElement('a');
      link.href = URL.createObjectURL(
        new Blob([JSON.stringify(file, null, 2)], { type: 'application/json' }),
      );
      link.download = `${exercise.key}.exercise.json`;
      link.click();
      setTimeout(() => URL.revokeObjectURL(link.href), 1000);
    },
  });
  return (
    <button type="button" className="text-action min-h-11" onClick={() => get.mutate()}>
      {get.isError ? say('Export again') : say('Export')}
    </button>
  );
}

/** What the clinic has to say about an exercise. */
export function Note({ exercise, content }: { exercise: ExerciseDefinition; content: ClinicContent }) {
  const note = content.notes[exercise.key];
  const client = useQueryClient();
  const [text, setText] = useState<string | null>(null);
  const put = useMutation({
    mutationFn: () =>
      request('PUT', `/api/library/notes/${exercise.key}`, { version: note?.version ?? 0, text: text ?? '' }),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: keys.content });
      setText(null);
    },
    onError: () => void client.invalidateQueries({ queryKey: keys.content }),
  });
  if (text === null)
    return (
      <>
        {note !== undefined && note.text !== '' && (
          <p className="whitespace-pre-line">
            {note.text}
            <span className="block text-sm text-ink-2">{`${note.by}, ${fullDay(note.at)}`}</span>
          </p>
        )}
        <button
          type="button"
          className="no-print text-action min-h-11"
          onClick={() => setText(note?.text ?? '')}
        >
          {note === undefined || note.text === ''
            ? say('Write a note for the clinic')
            : say('Change the note')}
        </button>
      </>
    );
  const stale = put.error instanceof ApiError && put.error.status === 409;
  return (
    <form
      className="no-print"
      onSubmit={(e) => {
        e.preventDefault();
        put.mutate();
      }}
    >
      <textarea
        className="field min-h-24 w-full"
        aria-label={say('Note of the clinic')}
        value={text}
        maxLength={1000}
        onChange={(e) => setText(e.target.value)}
        autoFocus
      />
      {put.error !== null && (
        <p role="alert" className="text-sm text-ease-deep">
          {stale
            ? say(
                'Someone else wrote a moment ago: “{{text}}”. Yours is still here; keep it again to replace theirs.',
                { text: note?.text ?? '' },
              )
            : put.error.message}
        </p>
      )}
      <button type="submit" className="action mt-2 min-h-11" disabled={put.isPending}>
        {say('Keep')}
      </button>
      <button type="button" className="text-action ml-4 min-h-11" onClick={() => setText(null)}>
        {say('Leave it')}
      </button>
    </form>
  );
}

/** Whether this clinic has accepted the version that stands, and by whom. */
export function Review({ exercise, content }: { exercise: ExerciseDefinition; content: ClinicContent }) {
  const session = useSession();
  const client = useQueryClient();
  const item = `exercise:${exercise.key}`;
  const review = content.reviews[item];
  const accept = useMutation({
    mutationFn: () => request('POST', '/api/library/reviews', { item, version: exercise.evidence.version }),
    onSettled: () => client.invalidateQueries({ queryKey: keys.content }),
  });
  const stands = review?.version === exercise.evidence.version;
  return (
    <p className="text-sm text-ink-2">
      {review === undefined
        ? say('Not yet reviewed by this clinic. ')
        : stands
          ? say('Reviewed by {{reviewer}} on {{on}} for this clinic. ', {
              reviewer: review.reviewer,
              on: fullDay(review.on),
            })
          : say('Changed since {{reviewer}} reviewed it on {{on}}. ', {
              reviewer: review.reviewer,
              on: fullDay(review.on),
            })}
      {!stands && session.data?.user.role === 'lead' && (
        <button
          type="button"
          className="no-print text-action min-h-11"
          disabled={accept.isPending}
          onClick={() => accept.mutate()}
        >
          {say('I have reviewed it')}
        </button>
      )}
      {accept.error !== null && (
        <span role="alert" className="text-ease-deep">
          {accept.error.message}
        </span>
      )}
    </p>
  );
}

/** Every version of an exercise of the clinic's own. */
export function Versions({ exerciseKey }: { exerciseKey: string }) {
  const versions = useQuery({
    queryKey: ['exercise-versions', exerciseKey],
    queryFn: () => request<ExerciseVersionView[]>('GET', `/api/library/exercises/${exerciseKey}/versions`),
  });
  return (
    <ul className="text-sm">
      {(versions.data ?? []).map((v) => (
        <li key={v.version}>
          {say('Version {{version}}, {{at}}, {{by}}: {{name}}{{words}}', {
            version: v.version,
            at: fullDay(v.at),
            by: v.by,
            name: v.name,
            words: v.retired ? say(', put aside') : '',
          })}
        </li>
      ))}
    </ul>
  );
}
