import { say } from '@heathstep/core';
import { useMutation } from '@tanstack/react-query';
import { type SyntheticEvent, useState } from 'react';
import { ApiError, request } from '../api/client.js';
import { TextField } from '../parts/fields.js';
import { PasswordField } from '../parts/PasswordField.js';

/** One's own password, by the one that stands. */
export function OwnPassword() {
  const [current, setCurrent] = useState('');
  const [password, setPassword] = useState('');
  const change = useMutation({
    mutationFn: () => request('POST', '/api/session/password', { current, password }),
    onSuccess: () => {
      setCurrent('');
      setPassword('');
    },
  });
  const wrong = change.error instanceof ApiError ? change.error : null;
  const submit = (event: SyntheticEvent): void => {
    event.preventDefault();
    if (!change.isPending) change.mutate();
  };
  return (
    <details className="mt-4 border-t border-line pt-2">
      <summary className="min-h-11 cursor-pointer content-center font-semibold">
        {say('Another password')}
      </summary>
      <form className="grid gap-x-6 gap-y-3 sm:grid-cols-2" onSubmit={submit} noValidate>
        <PasswordField
          label={say('The one you have')}
          value={current}
          onChange={setCurrent}
          error={wrong?.at('/current') ?? null}
        />
        <TextField
          label={say('The new one')}
          hint={say('10 characters or more')}
          type="password"
          autoComplete="new-password"
          maxLength={200}
          value={password}
          onChange={setPassword}
          error={wrong?.at('/password') ?? null}
        />
        <div className="col-span-full flex items-center gap-5">
          <button type="submit" className="action-quiet" disabled={change.isPending || current === ''}>
            {say('Change it')}
          </button>
          <span role="status" className="text-sm text-ink-2">
            {change.isSuccess ? say('Changed. Other devices are signed out.') : ''}
          </span>
          <span role="alert" className="text-sm text-ease-deep">
            {wrong !== null && (wrong.problem.errors ?? []).length === 0 ? wrong.message : ''}
          </span>
        </div>
      </form>
    </details>
  );
}
