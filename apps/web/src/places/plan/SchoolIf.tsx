import { useQuery } from '@tanstack/react-query';
import type { PlanIf, PlanView } from '@heathstep/contracts';
import type { School } from '@heathstep/core';
import { ApiError, request } from '../../api/client.js';

/** What another choice would do to the draft, in words. */
function ifWords({ come, gone, otherwise }: PlanIf): string {
  const parts = [
    gone.length === 0 ? '' : `drop ${gone.join(', ').toLowerCase()}`,
    come.length === 0 ? '' : `bring ${come.join(', ').toLowerCase()}`,
    otherwise.length === 0 ? '' : `change the dose of ${otherwise.join(', ').toLowerCase()}`,
  ].filter((p) => p !== '');
  return parts.length === 0 ? 'It would change nothing in this draft.' : `It would ${parts.join('; ')}.`;
}

/** Another answer to a question of the protocol that has more than one good one: what it changes, before it is taken. */
export function SchoolIf({
  school,
  option,
  draft,
  take,
  leave,
}: {
  school: School;
  option: School['options'][number];
  draft: PlanView;
  take: () => void;
  leave: () => void;
}) {
  const preview = useQuery({
    queryKey: ['plan-if', draft.id, draft.version, school.key, option.key],
    queryFn: () =>
      request<PlanIf>('POST', `/api/plans/${draft.id}/if`, { schools: { [school.key]: option.key } }),
  });
  return (
    <div
      role="status"
      aria-label={`If ${option.label.toLowerCase()}`}
      className="mt-1 rounded-lg bg-heather-wash px-3 py-2 text-sm leading-6"
    >
      <b>{option.label}</b>
      {`: ${option.reason}. `}
      {preview.data === undefined ? '' : ifWords(preview.data)}
      {preview.error instanceof ApiError && (
        <span className="text-ease-deep">{`What it changes cannot be told now: ${preview.error.message}.`}</span>
      )}
      <span className="flex gap-4">
        <button type="button" className="text-action min-h-11" onClick={take}>
          Take it, and fill the stage anew
        </button>
        <button type="button" className="text-action min-h-11" onClick={leave}>
          Leave it as it is
        </button>
      </span>
    </div>
  );
}
