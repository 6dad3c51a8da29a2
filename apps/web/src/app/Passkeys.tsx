import { say } from '@heathstep/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type SyntheticEvent, useState } from 'react';
import type { PasskeyView } from '@heathstep/contracts';
import { ApiError, request } from '../api/client.js';
import { momentText } from '../parts/dates.js';
import { TextField } from '../parts/fields.js';
import { PasswordField } from '../parts/PasswordField.js';
import { addPasskey, passkeysHere } from './passkeys.js';

const key = ['passkeys'] as const;

/** Devices of one's own that sign in without a password. */
export function Passkeys() {
  const client = useQueryClient();
  const [current, setCurrent] = useState('');
  const [name, setName] = useState('');
  const passkeys = useQuery({
    queryKey: key,
    queryFn: () => request<readonly PasskeyView[]>('GET', '/api/session/passkeys'),
  });
  const stands = (list: readonly PasskeyView[]): void => void client.setQueryData(key, list);
  const add = useMutation({
    mutationFn: () => addPasskey(current, name),
    onSuccess: (list) => {
      stands(list);
      setCurrent('');
      setName('');
    },
  });
  const remove = useMutation({
    mutationFn: (id: string) => request<readonly PasskeyView[]>('DELETE', `/api/session/passkeys/${id}`),
    onSuccess: stands,
  });
  const wrong = add.error instanceof ApiError ? add.error : null;
  const list = passkeys.data ?? [];
  if (!passkeysHere(window.location.hostname, window) && list.length === 0) return null;
  const submit = (event: SyntheticEvent): void => {
    event.preventDefault();
    if (!add.isPending) add.mutate();
  };
  return (
    <details className="mt-2 border-t border-line pt-2">
      <summary className="min-h-11 cursor-pointer content-center font-semibold">
        {list.length === 0 ? say('Passkeys: none') : say('Passkeys: {{n}}', { n: list.length })}
      </summary>
      <p className="text-sm text-ink-2">
        {say(
          'A device that knows you, by fingerprint, face or its own code, signs you in without password and code. Its secret never leaves it.',
        )}
      </p>
      <Keys list={list} busy={remove.isPending} remove={(id) => remove.mutate(id)} />
      <form className="mt-2 flex flex-wrap items-end gap-4" onSubmit={submit} noValidate>
        <TextField
          label={say('Name of the device')}
          maxLength={60}
          value={name}
          onChange={setName}
          error={wrong?.at('/name') ?? null}
        />
        <PasswordField value={current} onChange={setCurrent} error={wrong?.at('/current') ?? null} />
        <button
          type="submit"
          className="action-quiet"
          disabled={add.isPending || current === '' || name.trim() === ''}
        >
          {say('Add this device')}
        </button>
      </form>
      <p role="alert" className="min-h-6 text-sm text-ease-deep">
        {add.error === null || (wrong?.problem.errors ?? []).some((e) => e.pointer !== '/response')
          ? ''
          : wrong === null
            ? say('The device did not answer. Nothing was added.')
            : (wrong.at('/response') ?? wrong.message)}
      </p>
    </details>
  );
}

function Keys({
  list,
  busy,
  remove,
}: {
  list: readonly PasskeyView[];
  busy: boolean;
  remove: (id: string) => void;
}) {
  return (
    <ul>
      {list.map((k) => (
        <li key={k.id} className="flex flex-wrap items-baseline gap-x-4 border-t border-line-2">
          <span className="font-semibold" data-said-by-others="">
            {k.name}
          </span>
          <span className="text-sm text-ink-2">
            {k.usedAt === null
              ? say('added {{at}}, never used', { at: momentText(k.createdAt) })
              : say('last used {{at}}', { at: momentText(k.usedAt) })}
          </span>
          <button
            type="button"
            className="text-action ml-auto min-h-11"
            disabled={busy}
            onClick={() => remove(k.id)}
          >
            {say('Take {{name}} back', { name: k.name })}
          </button>
        </li>
      ))}
    </ul>
  );
}
