import { say } from '@heathstep/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Dialog } from 'radix-ui';
import { type SyntheticEvent, useId, useState } from 'react';
import type { DeviceView, LanguageView, SessionView } from '@heathstep/contracts';
import { ApiError, request } from '../api/client.js';
import { keys, useContent } from '../api/queries.js';
import { momentText } from '../parts/dates.js';
import { SelectField } from '../parts/fields.js';
import { pageLanguage, speakFromNowOn } from '../parts/language.js';
import { deviceWords } from './deviceWords.js';
import { OwnPassword } from './OwnPassword.js';
import { Passkeys } from './Passkeys.js';
import { SecondStep } from './SecondStep.js';

const devicesKey = ['devices'] as const;

/** One's own account: the register one is in, and where it is signed in. */
export function Account({ user, close }: { user: SessionView['user']; close: () => void }) {
  return (
    <Dialog.Root open onOpenChange={(open) => !open && close()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-scrim" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-[10vh] z-50 max-h-[80vh] w-[34rem] max-w-[94vw] -translate-x-1/2 overflow-y-auto rounded-xl bg-paper p-6 shadow-2xl"
        >
          <Dialog.Title asChild>
            <h2>{user.name}</h2>
          </Dialog.Title>
          <Registration user={user} />
          <Language />
          <OwnPassword />
          <SecondStep on={user.secondStep} />
          <Passkeys />
          <Devices />
          <Dialog.Close className="action-quiet mt-6">{say('Close')}</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Registration({ user }: { user: SessionView['user'] }) {
  const client = useQueryClient();
  const [text, setText] = useState(user.registration ?? '');
  const errorId = useId();
  const save = useMutation({
    mutationFn: () => request<SessionView>('PATCH', '/api/session', { registration: text }),
    onSuccess: (session) => client.setQueryData(keys.session, session),
  });
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    if (!save.isPending) save.mutate();
  };
  return (
    <form className="mt-4" onSubmit={submit} noValidate>
      <label className="block">
        <span className="text-sm text-ink-2">
          {say('Number in the register you are in; it stands under letters and signed visits')}
        </span>
        <span className="mt-1 flex gap-3">
          <input
            className="field"
            value={text}
            maxLength={60}
            aria-invalid={save.error !== null}
            aria-describedby={errorId}
            onChange={(e) => setText(e.target.value)}
          />
          <button
            type="submit"
            className="text-action min-h-11 disabled:opacity-50"
            disabled={save.isPending || text.trim() === (user.registration ?? '')}
          >
            {say('Keep')}
          </button>
        </span>
      </label>
      <p id={errorId} role="status" className="min-h-6 text-sm text-ink-2">
        {save.error instanceof ApiError
          ? (save.error.at('/registration') ?? save.error.message)
          : save.isSuccess
            ? say('Kept.')
            : ''}
      </p>
    </form>
  );
}

/** In which language the pages are, on this device; only where there is one beside English that has them. */
function Language() {
  const content = useContent();
  const languages = (content.data?.languages ?? []).filter((l) => l.clinicians === true);
  const choose = useMutation({
    mutationFn: (code: string) =>
      code === '' ? Promise.resolve(null) : request<LanguageView>('GET', `/api/languages/${code}`),
    onSuccess: speakFromNowOn,
  });
  if (languages.length === 0) return null;
  return (
    <div className="mt-4">
      <SelectField
        label={say('Language of these pages, on this device')}
        options={[['', 'English'], ...languages.map((l) => [l.code, l.name] as const)]}
        value={choose.variables ?? pageLanguage?.code ?? ''}
        onChange={(code) => choose.mutate(code)}
        error={choose.error instanceof ApiError ? choose.error.message : null}
      />
    </div>
  );
}

function Devices() {
  const client = useQueryClient();
  const devices = useQuery({
    queryKey: devicesKey,
    queryFn: () => request<readonly DeviceView[]>('GET', '/api/session/devices'),
  });
  const end = useMutation({
    mutationFn: (id: string | null) =>
      request('DELETE', id === null ? '/api/session/devices' : `/api/session/devices/${id}`),
    onSettled: () => client.invalidateQueries({ queryKey: devicesKey }),
  });
  const list = devices.data ?? [];
  return (
    <section className="mt-4 border-t border-line pt-4" aria-label={say('Signed in')}>
      <h3>{say('Signed in')}</h3>
      {devices.error !== null && (
        <p role="alert">{say('Where this account is signed in cannot be told just now.')}</p>
      )}
      <ul>
        {list.map((d) => (
          <li key={d.id} className="flex items-center gap-4 border-b border-line-2 py-2">
            <span className="flex-1">
              <b>{deviceWords(d.agent)}</b>
              {d.here && say(', this one')}
              <span className="block text-sm text-ink-2">
                {say('since {{moment}}, ends by itself {{moment2}}', {
                  moment: momentText(d.since),
                  moment2: momentText(d.until),
                })}
              </span>
            </span>
            {!d.here && (
              <button
                type="button"
                className="text-action min-h-11"
                disabled={end.isPending}
                aria-label={say('Sign out {{device}}, since {{moment}}', {
                  device: deviceWords(d.agent),
                  moment: momentText(d.since),
                })}
                onClick={() => end.mutate(d.id)}
              >
                {say('Sign out')}
              </button>
            )}
          </li>
        ))}
      </ul>
      {list.length > 1 && (
        <button
          type="button"
          className="text-action mt-2 min-h-11"
          disabled={end.isPending}
          onClick={() => end.mutate(null)}
        >
          {say('Sign out everywhere else')}
        </button>
      )}
    </section>
  );
}
