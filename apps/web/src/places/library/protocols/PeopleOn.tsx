import { say } from '@heathstep/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { PersonOnProtocol } from '@heathstep/contracts';
import { ApiError, request } from '../../../api/client.js';
import { keys } from '../../../api/queries.js';

/** What a plan made anew would bring and drop, in words. */
const changeWords = ({ come, gone }: PersonOnProtocol): string =>
  come.length + gone.length === 0
    ? say('A plan made anew would have the same exercises.')
    : [
        gone.length === 0
          ? ''
          : say('A plan made anew would drop {{list}}', { list: gone.join(', ').toLowerCase() }),
        come.length === 0
          ? ''
          : `${gone.length === 0 ? say('A plan made anew would bring') : say('and bring')} ${come.join(', ').toLowerCase()}`,
      ]
        .filter((t) => t !== '')
        .join(' ')
        .concat('.');

/** Who is treated by a protocol, in which version; those on another one are moved by choice, each with what it changes. */
export function PeopleOn({ protocolKey, mayMove }: { protocolKey: string; mayMove: boolean }) {
  const client = useQueryClient();
  const people = useQuery({
    queryKey: [...keys.protocol(protocolKey), 'people'],
    queryFn: () => request<PersonOnProtocol[]>('GET', `/api/library/protocols/${protocolKey}/people`),
  });
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const move = useMutation({
    mutationFn: () => request('POST', `/api/library/protocols/${protocolKey}/move`, { episodes: chosen }),
    onSuccess: async () => {
      setChosen([]);
      await client.invalidateQueries({ queryKey: keys.protocols });
    },
  });
  const list = people.data ?? [];
  if (list.length === 0) return null;
  return (
    <section aria-label={say('Treated by it')} className="mt-6 max-w-4xl border-t border-line pt-4">
      <h2 className="text-lg">{say('Treated by it')}</h2>
      <Treated list={list} mayMove={mayMove} chosen={chosen} setChosen={setChosen} />
      {mayMove && list.some((p) => !p.current && p.stays === null) && (
        <button
          type="button"
          className="action-quiet mt-3"
          disabled={chosen.length === 0 || move.isPending}
          onClick={() => move.mutate()}
        >
          {chosen.length === 0
            ? say('Choose whom to move')
            : say('Move {{n}} to what is used now', { n: chosen.length })}
        </button>
      )}
      <p className="mt-1 text-sm text-ink-2">
        {say('Plans that were given stay as they are; the next one is made by the version someone is on.')}
      </p>
      {move.error instanceof ApiError && (
        <p role="alert" className="text-sm text-ease-deep">
          {[move.error.message, ...(move.error.problem.errors ?? []).map((e) => e.detail)].join('. ')}
        </p>
      )}
    </section>
  );
}

/** Each person, the stage, the version, and what moving would change. */
function Treated({
  list,
  mayMove,
  chosen,
  setChosen,
}: {
  list: PersonOnProtocol[];
  mayMove: boolean;
  chosen: readonly string[];
  setChosen: (next: readonly string[]) => void;
}) {
  return (
    <ul>
      {list.map((p) => (
        <li
          key={p.episodeId}
          className="grid min-h-11 grid-cols-[2rem_12rem_11rem_7rem_minmax(0,1fr)] items-baseline gap-3 border-b border-line-2 py-1.5 text-sm"
        >
          <span>
            {mayMove && !p.current && p.stays === null && (
              <input
                type="checkbox"
                className="size-5 accent-heather"
                aria-label={say('Move {{name}}', { name: p.name })}
                checked={chosen.includes(p.episodeId)}
                onChange={() =>
                  setChosen(
                    chosen.includes(p.episodeId)
                      ? chosen.filter((x) => x !== p.episodeId)
                      : [...chosen, p.episodeId],
                  )
                }
              />
            )}
          </span>
          <Link to={`/episodes/${p.episodeId}/plan`} className="text-action text-base">
            {p.name}
          </Link>
          <span>{p.stageName ?? say('no stage yet')}</span>
          <span className="text-ink-2">{p.version}</span>
          <span className="text-ink-2">
            {p.current
              ? say('on what is used now')
              : (p.stays ?? (p.stageName === null ? say('No plan is given yet.') : changeWords(p)))}
          </span>
        </li>
      ))}
    </ul>
  );
}
