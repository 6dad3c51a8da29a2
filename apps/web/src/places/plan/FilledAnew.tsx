import { say } from '@heathstep/core';
import { useQuery } from '@tanstack/react-query';
import type { EpisodeView, PlanIf, PlanView } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';

/** What filling the stage anew would do to the draft, a part of it in each line; names have commas of their own. */
function ifWords({ come, gone, otherwise }: PlanIf): readonly (readonly [what: string, names: string])[] {
  const parts = [
    ['leave', gone],
    ['come', come],
    [say('get another dose'), otherwise],
  ] as const;
  return parts.flatMap(([what, names]) => (names.length === 0 ? [] : [[what, names.join('; ')] as const]));
}

/** What the stage filled anew would have otherwise than the draft, before it is taken. */
export function FilledAnew({
  title,
  because,
  episode,
  draft,
  schools,
  words,
  take,
  leave,
}: {
  title: string;
  because: string;
  episode: EpisodeView;
  draft: PlanView;
  /** Other answers to questions of the protocol than the episode has; none where it is filled as things stand. */
  schools: Readonly<Record<string, string>>;
  words: { readonly take: string; readonly leave: string };
  take: () => void;
  leave: () => void;
}) {
  const preview = useQuery({
    queryKey: ['plan-if', draft.id, draft.version, episode.version, schools],
    queryFn: () => request<PlanIf>('POST', `/api/plans/${draft.id}/if`, { schools }),
  });
  return (
    <div
      role="status"
      aria-label={title}
      className="mt-1 rounded-lg bg-heather-wash px-3 py-2 text-sm leading-6"
    >
      <b>{title}</b>
      {`: ${because}. `}
      {preview.data !== undefined && <Changes words={ifWords(preview.data)} />}
      {preview.error instanceof ApiError && (
        <span className="text-ease-deep">
          {say('What it changes cannot be told now: {{message}}.', { message: preview.error.message })}
        </span>
      )}
      <span className="flex flex-wrap gap-x-4">
        <button type="button" className="text-action min-h-11" onClick={take}>
          {words.take}
        </button>
        <button type="button" className="text-action min-h-11" onClick={leave}>
          {words.leave}
        </button>
      </span>
    </div>
  );
}

function Changes({ words }: { words: ReturnType<typeof ifWords> }) {
  if (words.length === 0) return say('Filled anew, the stage would be the same as this draft.');
  return (
    <>
      {say('Filled anew,')}
      <ul>
        {words.map(([what, names]) => (
          <li key={what} className="pl-4">
            <b>{names}</b> {say('would {{what}}', { what })}
          </li>
        ))}
      </ul>
    </>
  );
}
