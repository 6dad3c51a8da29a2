import { say } from '@heathstep/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type SyntheticEvent, useState } from 'react';
import type { RecoveryCodesView, SecondStepView } from '@heathstep/contracts';
import { ApiError, request } from '../api/client.js';
import { keys } from '../api/queries.js';
import { TextField } from '../parts/fields.js';
import { PasswordField } from '../parts/PasswordField.js';

const errorOf = (error: unknown): ApiError | null => (error instanceof ApiError ? error : null);

/** A code beside the password at every sign-in: begun by the password, on from the first code, ended by the password. */
export function SecondStep({
  on,
  first = false,
}: {
  on: boolean;
  /** Nothing else is open before it is on: one goes on when the codes are kept. */
  first?: boolean;
}) {
  const client = useQueryClient();
  const [current, setCurrent] = useState('');
  const [setup, setSetup] = useState<SecondStepView | null>(null);
  const [codes, setCodes] = useState<readonly string[] | null>(null);
  const send = useMutation({
    mutationFn: () =>
      on
        ? request<undefined>('POST', '/api/session/second-step/end', { current })
        : request<SecondStepView>('POST', '/api/session/second-step', { current }),
    onSuccess: (begun) => {
      setCurrent('');
      setCodes(null);
      setSetup(begun ?? null);
      if (begun === undefined) void client.invalidateQueries({ queryKey: keys.session });
    },
  });
  const wrong = errorOf(send.error);
  const submit = (event: SyntheticEvent): void => {
    event.preventDefault();
    if (!send.isPending) send.mutate();
  };
  return (
    <details className="mt-2 border-t border-line pt-2" open={first || undefined}>
      <summary className="min-h-11 cursor-pointer content-center font-semibold">
        {on ? say('Second step of signing in: on') : say('Second step of signing in: off')}
      </summary>
      {codes !== null && <Codes codes={codes} />}
      {codes !== null && first && (
        <button
          type="button"
          className="action mt-4"
          onClick={() => void client.invalidateQueries({ queryKey: keys.session })}
        >
          {say('I have kept the codes, go on')}
        </button>
      )}
      {first && codes !== null ? null : setup !== null && !on ? (
        <FirstCode
          of={setup}
          done={(told) => {
            setSetup(null);
            setCodes(told);
            if (!first) void client.invalidateQueries({ queryKey: keys.session });
          }}
        />
      ) : (
        <form onSubmit={submit} noValidate>
          <p className="text-sm text-ink-2">
            {on
              ? say('Signing in asks for a code of your authenticator. To end that, type your password.')
              : say(
                  'An authenticator on your phone shows a new code every half minute. To set it up, type your password.',
                )}
          </p>
          <div className="flex flex-wrap items-end gap-4">
            <PasswordField
              value={current}
              onChange={setCurrent}
              error={wrong?.at('/current') ?? (wrong === null ? null : wrong.message)}
            />
            <button type="submit" className="action-quiet" disabled={send.isPending || current === ''}>
              {on ? say('End it') : say('Set it up')}
            </button>
          </div>
        </form>
      )}
    </details>
  );
}

/** The secret as a picture and as letters, and the first code as the proof that it was taken. */
function FirstCode({ of, done }: { of: SecondStepView; done: (codes: readonly string[]) => void }) {
  const [code, setCode] = useState('');
  const picture = useQuery({
    queryKey: ['second-step', of.uri],
    queryFn: async () => {
      const { toString } = await import('qrcode');
      return `data:image/svg+xml;utf8,${encodeURIComponent(await toString(of.uri, { type: 'svg', margin: 2 }))}`;
    },
    staleTime: Infinity,
    gcTime: 0,
  });
  const send = useMutation({
    mutationFn: () => request<RecoveryCodesView>('POST', '/api/session/second-step/first', { code }),
    onSuccess: ({ codes }) => done(codes),
  });
  const wrong = errorOf(send.error);
  const submit = (event: SyntheticEvent): void => {
    event.preventDefault();
    if (!send.isPending) send.mutate();
  };
  return (
    <form className="flex flex-wrap gap-5" onSubmit={submit} noValidate>
      {picture.data !== undefined && (
        <img
          src={picture.data}
          alt={say('Picture for the authenticator')}
          className="size-44 rounded bg-white"
        />
      )}
      <div className="min-w-56 flex-1">
        <p className="text-sm">
          {say('Let the authenticator read the picture, or type these letters into it:')}
          <code className="mt-1 block break-all">{of.secret.match(/.{1,4}/g)?.join(' ')}</code>
        </p>
        <TextField
          label={say('The code it shows')}
          inputMode="numeric"
          autoComplete="one-time-code"
          maxLength={10}
          value={code}
          onChange={setCode}
          error={wrong?.at('/code') ?? (wrong === null ? null : wrong.message)}
          autoFocus
        />
        <button type="submit" className="action-quiet mt-2" disabled={send.isPending}>
          {say('Switch it on')}
        </button>
      </div>
    </form>
  );
}

function Codes({ codes }: { codes: readonly string[] }) {
  return (
    <section
      aria-label={say('Codes for when the authenticator is lost')}
      className="bg-heather-wash px-4 py-3"
    >
      <p>
        {say(
          'It is on. Keep these on paper, each is good for one sign-in when the authenticator is lost. They are not shown again.',
        )}
      </p>
      <ul className="mt-2 grid grid-cols-2 gap-x-6 font-mono text-sm">
        {codes.map((c) => (
          <li key={c}>{c}</li>
        ))}
      </ul>
    </section>
  );
}
