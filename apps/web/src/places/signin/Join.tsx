import { say } from '@heathstep/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { type SyntheticEvent, useState } from 'react';
import { Link } from 'react-router';
import type { AccountLinkFor } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { TextField } from '../../parts/fields.js';

/** Choosing a password by a link. What the link is stands behind the #, which goes to no server by itself. */
export function Join() {
  const [token] = useState(() => window.location.hash.slice(1));
  const whose = useQuery({
    queryKey: ['account-link', token],
    queryFn: () => request<AccountLinkFor>('POST', '/api/account-links', { token }),
    enabled: token !== '',
    retry: false,
    staleTime: Infinity,
  });
  const [done, setDone] = useState(false);
  const wrong = whose.error instanceof ApiError ? whose.error : null;
  return (
    <main className="mx-auto flex min-h-dvh w-full max-w-lg flex-col justify-center px-8 py-12">
      <p className="font-head text-2xl font-semibold tracking-tight">{say('heathstep')}</p>
      <h1 className="mt-8">{done ? say('That is your password now') : say('Choose a password')}</h1>
      {done ? (
        <p className="mt-4">
          <Link className="action inline-flex items-center" to="/sign-in">
            {say('Sign in')}
          </Link>
        </p>
      ) : token === '' || wrong !== null ? (
        <p role="alert" className="mt-4">
          {wrong === null || wrong.status === 400
            ? say('This link is not whole. Copy all of it, or ask the lead of your clinic for a new one.')
            : wrong.passing
              ? say('The server cannot be reached. Try again in a moment.')
              : `${wrong.problem.title}. ${wrong.problem.detail ?? ''}.`}
        </p>
      ) : whose.data === undefined ? (
        <p role="status" className="mt-4 text-ink-2">
          {say('Looking up the link')}
        </p>
      ) : (
        <Choose of={whose.data} token={token} done={() => setDone(true)} />
      )}
    </main>
  );
}

function Choose({ of, token, done }: { of: AccountLinkFor; token: string; done: () => void }) {
  const [password, setPassword] = useState('');
  const [seen, setSeen] = useState(false);
  const choose = useMutation({
    mutationFn: () => request('POST', '/api/account-links/password', { token, password }),
    onSuccess: () => {
      window.history.replaceState(null, '', window.location.pathname);
      done();
    },
  });
  const wrong = choose.error instanceof ApiError ? choose.error : null;
  const submit = (event: SyntheticEvent): void => {
    event.preventDefault();
    if (!choose.isPending) choose.mutate();
  };
  return (
    <form className="mt-4 space-y-4" onSubmit={submit} noValidate>
      <p>{say('{{name}}, {{clinic}}. You sign in with {{email}}.', { ...of })}</p>
      <input type="email" autoComplete="username" value={of.email} readOnly hidden />
      <TextField
        label={say('Password')}
        hint={say('10 characters or more; four words that have nothing to do with each other are good')}
        type={seen ? 'text' : 'password'}
        autoComplete="new-password"
        maxLength={200}
        value={password}
        onChange={setPassword}
        error={wrong?.at('/password') ?? (wrong === null ? null : wrong.message)}
        autoFocus
      />
      <label className="flex min-h-11 items-center gap-3">
        <input type="checkbox" checked={seen} onChange={(e) => setSeen(e.target.checked)} />
        {say('Show what I type')}
      </label>
      <button type="submit" className="action" disabled={choose.isPending}>
        {say('Take this password')}
      </button>
    </form>
  );
}
