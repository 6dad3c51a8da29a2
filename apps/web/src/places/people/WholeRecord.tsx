import { RETENTION, say } from '@heathstep/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type SyntheticEvent, useState } from 'react';
import { useNavigate } from 'react-router';
import type { ErasureView, KeptUntilView, KeptView, PersonRow } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { useSession } from '../../api/queries.js';
import { fullDay, momentText } from '../../parts/dates.js';
import { FieldNote, SendOrLeave, TextField } from '../../parts/fields.js';
import { Merge } from './Merge.js';

/** What a resource of another system is about, where it says so in words. */
function titleOf(resource: Readonly<Record<string, unknown>>): string {
  interface Concept {
    readonly text?: unknown;
    readonly coding?: unknown;
  }
  const said = ['code', 'medicationCodeableConcept', 'vaccineCode', 'type'].flatMap((field): unknown[] => {
    const concept = resource[field] as Concept | null | undefined;
    const codings: readonly unknown[] = Array.isArray(concept?.coding) ? concept.coding : [];
    return [concept?.text, (codings[0] as { display?: unknown } | null | undefined)?.display];
  });
  return said.find((t): t is string => typeof t === 'string' && t.trim() !== '')?.slice(0, 120) ?? '';
}

/** What came with someone from elsewhere, as it came. */
export function FromElsewhere({ personId }: { personId: string }) {
  const kept = useQuery({
    queryKey: ['kept', personId],
    queryFn: () => request<readonly KeptView[]>('GET', `/api/people/${personId}/kept`),
  });
  if (kept.error !== null)
    return (
      <p role="alert" className="mt-3 text-ease-deep">
        {say('What came from elsewhere cannot be read now.')}
      </p>
    );
  if (kept.data === undefined || kept.data.length === 0) return null;
  return (
    <section aria-label={say('From elsewhere')} className="mt-5">
      <h2>{say('From elsewhere')}</h2>
      <p className="max-w-2xl text-sm text-ink-2">
        {say(
          'Kept as it came, and read by no rule here: look through it yourself, allergies and medicines first.',
        )}
      </p>
      <ul className="mt-1 border-t border-line">
        {kept.data.map((k) => (
          <li key={k.id} className="border-b border-line">
            <details>
              <summary className="min-h-11 cursor-pointer content-center">
                <span data-said-by-others="">
                  {k.type}
                  {titleOf(k.resource) === '' ? '' : `: ${titleOf(k.resource)}`}
                </span>{' '}
                <span className="text-sm text-ink-2">
                  {say('taken {{at}} by {{by}}', { at: momentText(k.at), by: k.by })}
                </span>
              </summary>
              <pre
                tabIndex={0}
                aria-label={k.type}
                data-said-by-others=""
                className="mb-2 max-h-64 overflow-auto bg-paper p-2 font-mono text-xs"
              >
                {JSON.stringify(k.resource, null, 2)}
              </pre>
            </details>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Until when it is kept by the usual term; before that it takes a decision. */
function Term({
  of,
  early,
  setEarly,
  wrong,
}: {
  of: KeptUntilView;
  early: boolean;
  setEarly: (early: boolean) => void;
  wrong: string | null;
}) {
  return (
    <>
      <p className="mt-2 max-w-2xl">
        {say(
          'Last recorded {{last}}. By the usual term, {{years}} years and of a child until {{age}}, it is kept until {{until}}; your local rules come first.',
          {
            last: fullDay(of.lastContact),
            until: fullDay(of.until),
            years: RETENTION.years,
            age: RETENTION.childUntilAge,
          },
        )}
      </p>
      {!of.over && (
        <label className="mt-2 flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            className="size-5"
            checked={early}
            onChange={(e) => setEarly(e.target.checked)}
          />
          {say('It was decided, by who may decide it here, to erase before that day')}
        </label>
      )}
      <FieldNote text={wrong} />
    </>
  );
}

/** Erasing, for leads: the term, the reason, the name typed again. */
function Erase({ person, leave }: { person: PersonRow; leave: () => void }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [name, setName] = useState('');
  const [reason, setReason] = useState('');
  const [early, setEarly] = useState(false);
  const term = useQuery({
    queryKey: ['kept-until', person.id],
    queryFn: () => request<KeptUntilView>('GET', `/api/people/${person.id}/erasure`),
  });
  const erase = useMutation({
    mutationFn: () =>
      request<ErasureView>('POST', `/api/people/${person.id}/erase`, {
        name,
        reason,
        ...(early ? { early } : {}),
      }),
    onSuccess: async () => {
      client.removeQueries();
      await navigate('/clinic/programs');
    },
  });
  const wrong = erase.error instanceof ApiError ? erase.error : null;
  const submit = (event: SyntheticEvent): void => {
    event.preventDefault();
    if (!erase.isPending) erase.mutate();
  };
  return (
    <form
      aria-label={say('Erase the record')}
      className="mt-3 border-l-2 border-ease bg-ease-wash px-4 py-3"
      onSubmit={submit}
      noValidate
    >
      <p className="max-w-2xl">
        {say(
          'Everything of {{name}} is taken away for good: visits, plans, logs, pictures. It cannot be taken back; backups still have it until they are thrown away. The log keeps who looked and changed, without what was there. Save the record as a file first if it may be asked for.',
          { name: person.name },
        )}
      </p>
      {term.data !== undefined && (
        <Term of={term.data} early={early} setEarly={setEarly} wrong={wrong?.at('/early') ?? null} />
      )}
      <div className="mt-2 grid gap-3 sm:grid-cols-2">
        <TextField
          label={say('Why, and who decided it')}
          value={reason}
          onChange={setReason}
          maxLength={500}
          error={wrong?.at('/reason') ?? null}
        />
        <TextField
          label={say('The name as it stands, typed again')}
          value={name}
          onChange={setName}
          maxLength={120}
          autoComplete="off"
          error={wrong?.at('/name') ?? null}
        />
      </div>
      <SendOrLeave
        send={say('Erase for good')}
        leave={say('Not now')}
        disabled={erase.isPending || term.data === undefined}
        onLeave={leave}
      />
      <p role="alert" className="min-h-6 text-ease-deep">
        {wrong !== null && (wrong.problem.errors ?? []).length === 0 ? wrong.message : ''}
      </p>
    </form>
  );
}

/** The record as a whole: out as a file, and its end. */
export function WholeRecord({ person }: { person: PersonRow }) {
  const session = useSession();
  const [erasing, setErasing] = useState(false);
  const role = session.data?.user.role ?? 'assistant';
  if (role === 'assistant') return null;
  return (
    <details className="no-print mt-4">
      <summary className="min-h-11 cursor-pointer content-center text-ink-2">
        {role === 'lead'
          ? say('The whole record: save it as a file, bring two together, erase it')
          : say('The whole record: save it as a file')}
      </summary>
      <div className="mt-1 flex flex-wrap gap-x-6">
        <a className="text-action min-h-11 content-center" href={`/api/people/${person.id}/fhir`} download>
          {say('Save as a file (FHIR R4)')}
        </a>
        {role === 'lead' && !erasing && (
          <button type="button" className="text-action min-h-11" onClick={() => setErasing(true)}>
            {say('Erase')}
          </button>
        )}
      </div>
      <p className="max-w-2xl text-sm text-ink-2">
        {say(
          'For someone who moves to another clinic, or who asks for what is recorded of them. Whoever has the file has the record: hand it over by a way the two trust. The link of the phone does not go along.',
        )}
      </p>
      {role === 'lead' && <Merge person={person} />}
      {erasing && <Erase person={person} leave={() => setErasing(false)} />}
    </details>
  );
}
