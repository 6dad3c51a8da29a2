import { say } from '@heathstep/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type SyntheticEvent, useRef, useState } from 'react';
import type { ErasureView, ProgramMade, ProgramView } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { momentText } from '../../parts/dates.js';
import { TextField } from '../../parts/fields.js';
import { Failed, Loading } from '../../parts/Waiting.js';

const programsKey = ['programs'] as const;

const stands = (p: ProgramView): boolean => p.revokedAt === null && p.until > new Date().toISOString();

/** A key as it is told, once. */
function Told({ made, close }: { made: ProgramMade; close: () => void }) {
  return (
    <section
      aria-label={say('Key for {{name}}', { name: made.program.name })}
      className="mt-4 border-l-2 border-heather bg-heather-wash px-4 py-3"
    >
      <p className="max-w-2xl">
        {say(
          'Give this to who runs {{name}}. With it the program reads every record of this clinic at {{address}}, and changes none. It is not shown again.',
          { name: made.program.name, address: `${window.location.origin}/fhir` },
        )}
      </p>
      <input
        className="field mt-2 w-full font-mono text-sm"
        readOnly
        value={made.token}
        aria-label={say('Key for {{name}}', { name: made.program.name })}
        onFocus={(e) => e.target.select()}
      />
      <button type="button" className="text-action min-h-11" onClick={close}>
        {say('Put away')}
      </button>
    </section>
  );
}

function Key({ of: p, busy, revoke }: { of: ProgramView; busy: boolean; revoke: () => void }) {
  const open = stands(p);
  return (
    <li className="flex flex-wrap items-center gap-x-6 border-b border-line py-1">
      <span className={`min-w-48 font-semibold ${open ? '' : 'text-ink-3'}`}>{p.name}</span>
      <span className="text-sm text-ink-2">
        {say('made {{at}} by {{by}}', { at: momentText(p.createdAt), by: p.by })},{' '}
        {p.usedAt === null ? say('never used') : say('last used {{at}}', { at: momentText(p.usedAt) })}
      </span>
      {open ? (
        <button type="button" className="text-action ml-auto min-h-11" disabled={busy} onClick={revoke}>
          {say('Take the key of {{name}} back', { name: p.name })}
        </button>
      ) : (
        <span className="ml-auto min-h-11 content-center text-sm text-ink-2">{say('opens nothing')}</span>
      )}
    </li>
  );
}

function Keys() {
  const client = useQueryClient();
  const [name, setName] = useState('');
  const [told, setTold] = useState<ProgramMade | null>(null);
  const sending = useRef(false);
  const programs = useQuery({
    queryKey: programsKey,
    queryFn: () => request<readonly ProgramView[]>('GET', '/api/clinic/programs'),
  });
  const make = useMutation({
    mutationFn: () => request<ProgramMade>('POST', '/api/clinic/programs', { name }),
    onSuccess: async (made) => {
      setTold(made);
      setName('');
      await client.invalidateQueries({ queryKey: programsKey });
    },
    onSettled: () => {
      sending.current = false;
    },
  });
  const revoke = useMutation({
    mutationFn: (id: string) => request<ProgramView[]>('DELETE', `/api/clinic/programs/${id}`),
    onSuccess: (list) => client.setQueryData(programsKey, list),
  });
  const wrong = make.error instanceof ApiError ? make.error : null;
  const submit = (event: SyntheticEvent): void => {
    event.preventDefault();
    if (sending.current) return;
    sending.current = true;
    make.mutate();
  };
  if (programs.data === undefined)
    return programs.error === null ? (
      <Loading what={say('the keys')} />
    ) : (
      <Failed error={programs.error} again={() => void programs.refetch()} />
    );
  return (
    <>
      <p className="mt-1 max-w-2xl text-ink-2">
        {say(
          'A program with a key reads the records of this clinic as FHIR R4 and changes nothing. Each look of it stands in the log.',
        )}
      </p>
      <form onSubmit={submit} noValidate className="mt-3 flex flex-wrap items-end gap-3">
        <TextField
          label={say('What the key is for')}
          value={name}
          onChange={setName}
          maxLength={80}
          error={wrong?.at('/name') ?? null}
        />
        <button type="submit" className="action" disabled={make.isPending}>
          {say('Make a key')}
        </button>
      </form>
      <p role="alert" className="min-h-6 text-ease-deep">
        {wrong !== null && (wrong.problem.errors ?? []).length === 0
          ? wrong.message
          : (revoke.error?.message ?? '')}
      </p>
      {told !== null && <Told made={told} close={() => setTold(null)} />}
      {programs.data.length === 0 ? (
        <p className="text-ink-2">{say('No program has a key.')}</p>
      ) : (
        <ul className="border-t border-line">
          {programs.data.map((p) => (
            <Key key={p.id} of={p} busy={revoke.isPending} revoke={() => revoke.mutate(p.id)} />
          ))}
        </ul>
      )}
    </>
  );
}

function Erased() {
  const erased = useQuery({
    queryKey: ['erasures'],
    queryFn: () => request<readonly ErasureView[]>('GET', '/api/clinic/erasures'),
  });
  if (erased.data === undefined)
    return erased.error === null ? (
      <Loading what={say('what was erased')} />
    ) : (
      <Failed error={erased.error} again={() => void erased.refetch()} />
    );
  if (erased.data.length === 0) return <p className="mt-1 text-ink-2">{say('No record was erased.')}</p>;
  return (
    <ul className="mt-2 border-t border-line">
      {erased.data.map((e) => (
        <li key={e.id} className="border-b border-line py-2">
          <p>
            {say('{{at}}, by {{by}}: {{rows}} rows, everything of one person.', {
              at: momentText(e.at),
              by: e.by,
              rows: e.rows,
            })}
          </p>
          <p className="text-ink-2">{e.reason}</p>
          <p className="flex flex-wrap items-baseline gap-x-5">
            <a
              className="text-action min-h-9 content-center"
              href={`/api/clinic/erasures/${e.id}/certificate.pdf`}
              target="_blank"
              rel="noreferrer"
            >
              {say('A paper that says so')}
            </a>
            <span className="font-mono text-xs text-ink-3" data-said-by-others="">
              {e.id}
            </span>
          </p>
        </li>
      ))}
    </ul>
  );
}

/** What goes out of the clinic for good or to other programs: their keys, and the records that were erased. */
export function Programs() {
  return (
    <>
      <section aria-label={say('Keys of programs')} className="mt-5">
        <h2>{say('Programs that read the records')}</h2>
        <Keys />
      </section>
      <section aria-label={say('Erased records')} className="mt-8">
        <h2>{say('Erased records')}</h2>
        <Erased />
      </section>
    </>
  );
}
