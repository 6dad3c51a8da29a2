import { say } from '@heathstep/core';
import { useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { request } from '../api/client.js';
import { SecondStep } from './SecondStep.js';

/** The clinic asks everyone for a second step: nothing else is open until there is one. */
export function StepFirst() {
  const client = useQueryClient();
  const navigate = useNavigate();
  const signOut = async () => {
    await request('DELETE', '/api/session').catch(() => undefined);
    client.clear();
    await navigate('/sign-in');
  };
  return (
    <main className="mx-auto w-full max-w-2xl px-6 py-12">
      <h1>{say('A second step of signing in')}</h1>
      <p className="mt-3 text-ink-2">
        {say(
          'Your clinic asks everyone for a code of an authenticator beside the password. Set it up, and go on.',
        )}
      </p>
      <SecondStep on={false} first />
      <button type="button" className="text-action mt-6 min-h-11" onClick={() => void signOut()}>
        {say('Sign out')}
      </button>
    </main>
  );
}
