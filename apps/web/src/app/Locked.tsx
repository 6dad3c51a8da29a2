import { say } from '@heathstep/core';
import { useQueryClient } from '@tanstack/react-query';
import { Dialog } from 'radix-ui';
import { type SyntheticEvent, useState } from 'react';
import { useNavigate } from 'react-router';
import type { SessionView } from '@heathstep/contracts';
import { ApiError, request } from '../api/client.js';
import { TextField } from '../parts/fields.js';
import { PasswordField } from '../parts/PasswordField.js';

/** What is typed, and signing in again by it. */
function useUnlocking(user: SessionView['user'], open: () => void) {
  const [password, setPassword] = useState('');
  const [code, setCode] = useState('');
  const [error, setError] = useState<ApiError | null>(null);
  const [busy, setBusy] = useState(false);
  const submit = async (event: SyntheticEvent) => {
    event.preventDefault();
    if (busy) return;
    setBusy(true);
    setError(null);
    try {
      await request<SessionView>('POST', '/api/session', {
        email: user.email,
        password,
        ...(user.secondStep ? { code } : {}),
      });
      open();
    } catch (failure) {
      setError(failure instanceof ApiError ? failure : null);
      setBusy(false);
    }
  };
  return { password, setPassword, code, setCode, error, busy, submit };
}

/** Stands over everything while the pages are locked; the same person signs in again and finds them as they left them. */
export function Locked({ user, open }: { user: SessionView['user']; open: () => void }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const { password, setPassword, code, setCode, error, busy, submit } = useUnlocking(user, open);
  return (
    // A window that was open stays open beneath: the lock is one above it, or nothing could be typed.
    <Dialog.Root open>
      <Dialog.Portal>
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-0 z-[80] grid place-items-center overflow-y-auto bg-ground px-6"
          onEscapeKeyDown={(event) => event.preventDefault()}
          onPointerDownOutside={(event) => event.preventDefault()}
          onInteractOutside={(event) => event.preventDefault()}
        >
          <form className="w-full max-w-sm space-y-4" onSubmit={(e) => void submit(e)} noValidate>
            <Dialog.Title asChild>
              <h1>{say('Locked')}</h1>
            </Dialog.Title>
            <p className="text-ink-2">
              {say(
                'Nobody was here for a while. {{name}} signs in again, and everything stands as it was left.',
                {
                  name: user.name,
                },
              )}
            </p>
            <PasswordField
              value={password}
              onChange={setPassword}
              autoFocus
              error={error?.at('/password') ?? null}
            />
            {user.secondStep && (
              <TextField
                label={say('Code of your authenticator, or one you kept for when it is lost')}
                autoComplete="one-time-code"
                value={code}
                onChange={setCode}
                maxLength={40}
                error={error?.at('/code') ?? null}
              />
            )}
            <p role="alert" className="min-h-6 text-ease-deep">
              {error !== null && (error.problem.errors ?? []).length === 0
                ? [error.message, error.problem.detail ?? ''].join('. ')
                : ''}
            </p>
            <div className="flex flex-wrap gap-5">
              <button type="submit" className="action" disabled={busy}>
                {say('Go on')}
              </button>
              <button
                type="button"
                className="text-action min-h-11"
                onClick={() => {
                  client.clear();
                  void navigate('/sign-in');
                }}
              >
                {say('Someone else signs in')}
              </button>
            </div>
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
