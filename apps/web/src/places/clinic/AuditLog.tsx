import { say, shown } from '@heathstep/core';
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import {
  AUDIT_KIND_WORDS,
  type AuditKind,
  type AuditLine,
  type AuditSealsView,
  type AuditView,
  type MemberView,
  type PersonRow,
} from '@heathstep/contracts';
import { request } from '../../api/client.js';
import { momentText } from '../../parts/dates.js';
import { type Options, SelectField, TextField } from '../../parts/fields.js';
import { Failed, Loading } from '../../parts/Waiting.js';
import { actionWords, subjectWords, whoWords } from './auditWords.js';

const KINDS: Options = [
  ['', say('anything')],
  ...(Object.keys(AUDIT_KIND_WORDS) as AuditKind[]).map((k) => [k, say(AUDIT_KIND_WORDS[k])] as const),
];

/** Who saw, changed, printed and exported what, the newest first; by who did it, whose record it is, and what it was. */
export function AuditLog() {
  const [user, setUser] = useState('');
  const [kind, setKind] = useState('');
  const [person, setPerson] = useState<{ id: string; name: string } | null>(null);
  const asked = new URLSearchParams({
    ...(user === '' ? {} : { user }),
    ...(kind === '' ? {} : { kind }),
    ...(person === null ? {} : { person: person.id }),
  });
  const staff = useQuery({
    queryKey: ['staff'],
    queryFn: () => request<readonly MemberView[]>('GET', '/api/clinic/staff'),
  });
  return (
    <section aria-label={say('Who saw and changed what')} className="mt-5">
      <Seals />
      <div className="no-print mt-4 grid items-end gap-x-6 gap-y-3 sm:grid-cols-[1fr_1fr_1.4fr_auto]">
        <SelectField
          label={say('Who')}
          value={user}
          onChange={setUser}
          options={[['', say('anyone')], ...(staff.data ?? []).map((m) => [m.id, m.name] as const)]}
        />
        <SelectField label={say('What')} value={kind} onChange={setKind} options={KINDS} />
        <WhoseRecord chosen={person} choose={setPerson} />
        <a
          className="text-action inline-flex min-h-11 items-center"
          href={`/api/audit/audit.csv?${asked.toString()}`}
          download
        >
          {say('As a table (CSV)')}
        </a>
      </div>
      <Lines asked={asked.toString()} />
    </section>
  );
}

/** Whose record it is about: a part of the name finds them. */
function WhoseRecord({
  chosen,
  choose,
}: {
  chosen: { id: string; name: string } | null;
  choose: (person: { id: string; name: string } | null) => void;
}) {
  const [text, setText] = useState('');
  const found = useQuery({
    queryKey: ['people', 'audit', text],
    queryFn: () => request<readonly PersonRow[]>('GET', `/api/people?q=${encodeURIComponent(text)}`),
    enabled: text.trim().length > 1,
  });
  if (chosen !== null)
    return (
      <p className="flex min-h-11 items-center gap-4">
        <span>{say('Record of {{name}}', { name: chosen.name })}</span>
        <button type="button" className="text-action min-h-11" onClick={() => choose(null)}>
          {say('Anyone’s')}
        </button>
      </p>
    );
  return (
    <div className="relative">
      <TextField
        label={say('Whose record')}
        hint=""
        value={text}
        onChange={setText}
        placeholder={say('anyone’s')}
      />
      {text.trim().length > 1 && (
        <ul className="absolute inset-x-0 top-full z-20 max-h-72 overflow-y-auto rounded-lg border border-line bg-paper shadow-lg">
          {(found.data ?? []).slice(0, 8).map((p) => (
            <li key={p.id}>
              <button
                type="button"
                className="min-h-11 w-full px-3 text-left hover:bg-heather-wash"
                onClick={() => {
                  setText('');
                  choose({ id: p.id, name: p.name });
                }}
              >
                {p.name} <span className="text-ink-2">{p.birthDate ?? ''}</span>
              </button>
            </li>
          ))}
          {found.data?.length === 0 && (
            <li className="px-3 py-2 text-ink-2">{say('No one of that name.')}</li>
          )}
        </ul>
      )}
    </div>
  );
}

/** Whether the log is as it was written, as far as it is sealed. */
function Seals() {
  const seals = useQuery({
    queryKey: ['audit', 'seals'],
    queryFn: () => request<AuditSealsView>('GET', '/api/audit/seals'),
  });
  const told = seals.data;
  if (told === undefined)
    return (
      <p className="text-ink-2">
        {seals.error === null
          ? say('Reading the log against its seals')
          : say('The seals cannot be told just now.')}
      </p>
    );
  if (told.brokenAt !== null)
    return (
      <p role="alert" className="font-semibold text-ease-deep">
        {say(
          'The log was changed outside the application: seal {{number}} of {{seals}} does not fit what it closes. Tell who runs this installation, and keep its backups.',
          { number: told.brokenAt, seals: told.seals },
        )}
      </p>
    );
  return (
    <p className="text-ink-2">
      {told.at === null
        ? say('Nothing is sealed yet; that is done every minute.')
        : say(
            '{{lines}} lines up to {{at}} are as they were written. What is younger is sealed within a minute.',
            {
              lines: shown(told.lines, 0),
              at: momentText(told.at),
            },
          )}
    </p>
  );
}

function Lines({ asked }: { asked: string }) {
  const log = useInfiniteQuery({
    queryKey: ['audit', 'lines', asked],
    queryFn: ({ pageParam }) =>
      request<AuditView>('GET', `/api/audit?${asked}${pageParam === '' ? '' : `&before=${pageParam}`}`),
    initialPageParam: '',
    getNextPageParam: (last) => last.before,
  });
  if (log.data === undefined)
    return log.error === null ? (
      <Loading what={say('the log')} />
    ) : (
      <Failed error={log.error} again={() => void log.refetch()} />
    );
  const lines = log.data.pages.flatMap((p) => p.lines);
  if (lines.length === 0) return <p className="mt-6 text-ink-2">{say('Nothing like that in the log.')}</p>;
  return (
    <>
      <div className="mt-4 overflow-x-auto" tabIndex={0} role="region" aria-label={say('The log')}>
        <table className="w-full">
          <thead>
            <tr className="border-b border-line text-left text-sm text-ink-2">
              <th className="py-2 pr-4 font-normal">{say('When')}</th>
              <th className="pr-4 font-normal">{say('Who')}</th>
              <th className="pr-4 font-normal">{say('What')}</th>
              <th className="font-normal">{say('Whose record')}</th>
            </tr>
          </thead>
          <tbody>
            {lines.map((l) => (
              <Line key={l.seq} of={l} />
            ))}
          </tbody>
        </table>
      </div>
      {log.hasNextPage && (
        <button
          type="button"
          className="action-quiet no-print mt-4"
          disabled={log.isFetchingNextPage}
          onClick={() => void log.fetchNextPage()}
        >
          {say('Earlier ones')}
        </button>
      )}
    </>
  );
}

function Line({ of: l }: { of: AuditLine }) {
  return (
    <tr className="border-b border-line-2">
      <td className="whitespace-nowrap py-2 pr-4 tabular-nums">{momentText(l.at)}</td>
      <td className="pr-4">{whoWords(l)}</td>
      <td className="pr-4">
        {actionWords(l.action)} {subjectWords(l.subject)}
      </td>
      <td>
        {l.person?.name === '' ? (
          say('someone whose record was erased')
        ) : l.person !== null ? (
          <Link className="text-action inline-flex min-h-7 items-center" to={`/people/${l.person.id}`}>
            {l.person.name}
          </Link>
        ) : l.shown !== null ? (
          say('{{n}} people', { n: l.shown })
        ) : (
          ''
        )}
      </td>
    </tr>
  );
}
