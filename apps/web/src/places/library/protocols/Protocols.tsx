import { say } from '@heathstep/core';
import { SearchField } from '../../../parts/fields.js';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import type { Pathway } from '@heathstep/content';
import { type Find, finderOf } from '../../../parts/finder.js';
import { Link } from 'react-router';
import type { ProtocolRow } from '@heathstep/contracts';
import { request } from '../../../api/client.js';
import { keys, useContent } from '../../../api/queries.js';
import { Failed, Loading } from '../../../parts/Waiting.js';

/** Protocols by name, stage, and the names of what is treated by them, plain and clinical. */
const protocolsOf = (rows: readonly ProtocolRow[], pathways: readonly Pathway[]): Find<ProtocolRow> =>
  finderOf(rows, (row) =>
    [
      say(row.name),
      ...pathways.filter((p) => p.protocol === row.key).flatMap((p) => [p.name, p.gloss, ...p.also]),
      ...row.stages.map((s) => say(s)),
    ].join(' '),
  );

/** Every protocol of the library: its stages, whose it is, and how many people are treated by it. */
export function Protocols() {
  const rows = useQuery({
    queryKey: keys.protocols,
    queryFn: () => request<ProtocolRow[]>('GET', '/api/library/protocols'),
  });
  const content = useContent();
  const [query, setQuery] = useState('');
  const find = useMemo(
    () => protocolsOf(rows.data ?? [], content.data?.pathways ?? []),
    [rows.data, content.data?.pathways],
  );
  if (rows.data === undefined)
    return rows.error === null ? (
      <Loading what={say('the protocols')} />
    ) : (
      <Failed error={rows.error} again={() => void rows.refetch()} />
    );
  const found = find(query);
  return (
    <main className="max-w-5xl px-6 py-5">
      <Link to="/library" className="text-action inline-flex min-h-11 items-center">
        {say('All exercises')}
      </Link>
      <div className="flex flex-wrap items-end gap-6">
        <h1 className="flex-1">{say('Protocols')}</h1>
        <SearchField
          className="max-w-xs"
          label={say('Find a protocol')}
          placeholder={say('plain or clinical name')}
          value={query}
          onChange={setQuery}
        />
      </div>
      {found.length === 0 && <p className="py-8 text-ink-2">{say('No protocol has these words.')}</p>}
      <ul className="mt-4 border-t border-line">
        {found.map((row) => (
          <li key={row.key}>
            <Link
              to={`/library/protocols/${row.key}`}
              className="grid min-h-14 grid-cols-[minmax(0,17rem)_minmax(0,1fr)_9rem_6rem] items-baseline gap-5 border-b border-line-2 px-2 py-2.5 hover:bg-line-2"
            >
              <span className="font-head text-lg font-semibold">{say(row.name)}</span>
              <span className="text-sm text-ink-2">{row.stages.map((s) => say(s)).join(' · ')}</span>
              <span className="text-sm">
                {row.own === null ? (
                  say('as shipped')
                ) : (
                  <b className="text-heather-deep">{say('our version {{own}}', { own: row.own })}</b>
                )}
                {row.draft && <span className="block text-hold-deep">{say('a draft waits')}</span>}
              </span>
              <span className="text-right text-sm text-ink-2">
                {row.people === 0 ? '' : `${row.people} ${row.people === 1 ? say('person') : say('people')}`}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </main>
  );
}
