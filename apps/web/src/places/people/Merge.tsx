import { say } from '@heathstep/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import type { MergeView, PersonRow } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { fullDay, momentText } from '../../parts/dates.js';
import { FieldNote, Refusal } from '../../parts/fields.js';
import { WhoField } from '../../parts/WhoField.js';

const born = (p: { readonly birthDate: string | null }): string =>
  p.birthDate === null ? say('date of birth not known') : say('born {{day}}', { day: fullDay(p.birthDate) });

/** Two records of one person, for leads: looked at side by side, brought together, and apart again. */
export function Merge({ person }: { person: PersonRow }) {
  const client = useQueryClient();
  const key = ['merges', person.id] as const;
  const [choosing, setChoosing] = useState(false);
  const merges = useQuery({
    queryKey: key,
    queryFn: () => request<readonly MergeView[]>('GET', `/api/people/${person.id}/merges`),
  });
  const undo = useMutation({
    mutationFn: (id: string) => request<readonly MergeView[]>('POST', `/api/merges/${id}/undo`, {}),
    onSuccess: async (now) => {
      client.setQueryData(key, now);
      await client.invalidateQueries();
    },
  });
  const list = merges.data ?? [];
  return (
    <div className="mt-2">
      {list.map((m) => (
        <p key={m.id} className="flex flex-wrap items-baseline gap-x-4">
          <span>
            {say('{{name}} came into this record {{at}}, by {{by}}.', {
              name: m.goneName,
              at: momentText(m.at),
              by: m.by,
            })}
          </span>
          {m.undoneAt === null ? (
            <button
              type="button"
              className="text-action min-h-11"
              disabled={undo.isPending}
              onClick={() => undo.mutate(m.id)}
            >
              {say('Take {{name}} apart again', { name: m.goneName })}
            </button>
          ) : (
            <span className="text-sm text-ink-2">
              {say('taken apart again {{at}}', { at: momentText(m.undoneAt) })}
            </span>
          )}
        </p>
      ))}
      <Refusal error={undo.error instanceof ApiError ? undo.error : null} />
      {choosing ? (
        <Choose
          person={person}
          leave={() => setChoosing(false)}
          done={async (now) => {
            client.setQueryData(key, now);
            setChoosing(false);
            await client.invalidateQueries();
          }}
        />
      ) : (
        <button type="button" className="text-action min-h-11" onClick={() => setChoosing(true)}>
          {say('There is another record of this person')}
        </button>
      )}
    </div>
  );
}

function Choose({
  person,
  leave,
  done,
}: {
  person: PersonRow;
  leave: () => void;
  done: (now: readonly MergeView[]) => Promise<void>;
}) {
  const id = useRef(crypto.randomUUID());
  const [gone, setGone] = useState<PersonRow | null>(null);
  const [differs, setDiffers] = useState(false);
  const merge = useMutation({
    mutationFn: (other: PersonRow) =>
      request<readonly MergeView[]>('POST', `/api/people/${person.id}/merge`, {
        id: id.current,
        gone: other.id,
        ...(differs ? { differs } : {}),
      }),
    onSuccess: done,
  });
  const wrong = merge.error instanceof ApiError ? merge.error : null;
  const apart =
    gone !== null &&
    gone.birthDate !== null &&
    person.birthDate !== null &&
    gone.birthDate !== person.birthDate;
  if (gone === null)
    return (
      <div className="mt-2 max-w-md">
        <p className="text-sm text-ink-2">{say('Which record is it that comes into this one?')}</p>
        <WhoField asked={person.name} choose={(p) => p.id !== person.id && setGone(p)} />
        <button type="button" className="text-action min-h-11" onClick={leave}>
          {say('Not now')}
        </button>
      </div>
    );
  return (
    <section
      aria-label={say('Bring two records together')}
      className="mt-2 border-l-2 border-hold bg-hold-wash px-4 py-3"
    >
      <dl className="grid gap-x-8 sm:grid-cols-2">
        {[[say('Kept'), person] as const, [say('Comes into it'), gone] as const].map(([what, p]) => (
          <div key={what}>
            <dt className="text-sm text-ink-2">{what}</dt>
            <dd>
              <b>{p.name}</b>, {born(p)}
              {p.occupation === '' ? '' : `, ${p.occupation}`}
              <span className="block text-sm">{say('Complaints: {{n}}', { n: p.episodes.length })}</span>
            </dd>
          </div>
        ))}
      </dl>
      <p className="mt-2 max-w-2xl">
        {say(
          'Everything of the second comes to the first: complaints, plans, logs, visits. Stops of one hold for the other from then on. It can be taken apart again; what is recorded until then stays with the first.',
        )}
      </p>
      {apart && (
        <label className="mt-1 flex min-h-11 items-center gap-2 font-semibold">
          <input
            type="checkbox"
            className="size-5"
            checked={differs}
            onChange={(e) => setDiffers(e.target.checked)}
          />
          {say('The dates of birth differ: it is one person all the same')}
        </label>
      )}
      <FieldNote text={wrong?.at('/differs') ?? wrong?.at('/gone')} />
      <Refusal error={wrong} />
      <div className="mt-2 flex gap-3">
        <button
          type="button"
          className="action"
          disabled={merge.isPending}
          onClick={() => merge.mutate(gone)}
        >
          {say('Bring them together')}
        </button>
        <button type="button" className="action-quiet" onClick={leave}>
          {say('Not now')}
        </button>
      </div>
    </section>
  );
}
