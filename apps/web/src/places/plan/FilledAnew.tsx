import { useQuery } from '@tanstack/react-query';
import type { EpisodeView, PlanIf, PlanView } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';

/** What filling the stage anew would do to the draft, in words. */
function ifWords({ come, gone, otherwise }: PlanIf): string {
  const parts = [
    gone.length === 0 ? '' : `drop ${gone.join(', ').toLowerCase()}`,
    come.length === 0 ? '' : `bring ${come.join(', ').toLowerCase()}`,
    otherwise.length === 0 ? '' : `change the dose of ${otherwise.join(', ').toLowerCase()}`,
  ].filter((p) => p !== '');
  return parts.length === 0 ? 'It would change nothing in this draft.' : `It would ${parts.join('; ')}.`;
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
      {preview.data === undefined ? '' : ifWords(preview.data)}
      {preview.error instanceof ApiError && (
        <span className="text-ease-deep">{`What it changes cannot be told now: ${preview.error.message}.`}</span>
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
