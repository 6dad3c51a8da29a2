import { say } from '@heathstep/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import {
  type AccountLinkView,
  type MemberPatch,
  type MemberView,
  ROLE_MEANS,
  ROLE_WORDS,
  ROLES,
  type StaffRole,
} from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { dayHere, fullDay, momentText } from '../../parts/dates.js';

function stateText(m: MemberView): string {
  if (m.state === 'left') return say('left on {{day}}', { day: fullDay(dayHere(m.leftAt ?? '')) });
  if (m.state === 'invited')
    return m.linkUntil === null
      ? say('has no password and no link that works')
      : say('has not chosen a password yet; the link works until {{day}}', { day: momentText(m.linkUntil) });
  const last =
    m.lastSignIn === null
      ? say('never signed in')
      : say('signed in {{at}}', { at: momentText(m.lastSignIn) });
  return m.devices === 0
    ? last
    : m.devices === 1
      ? say('{{last}}; on one device now', { last })
      : say('{{last}}; on {{n}} devices now', { last, n: m.devices });
}

interface MemberProps {
  readonly of: MemberView;
  readonly isMe: boolean;
  readonly changed: () => Promise<void>;
  readonly told: (link: AccountLinkView) => void;
}

/** What can be done about someone: each is sent at once, and the list asked for anew. */
function useMember({ of: m, changed, told }: MemberProps) {
  const path = `/api/clinic/staff/${m.id}`;
  const patch = useMutation({
    mutationFn: (body: MemberPatch) => request<MemberView>('PATCH', path, body),
    onSettled: changed,
  });
  const link = useMutation({
    mutationFn: () => request<AccountLinkView>('POST', `${path}/link`),
    onSuccess: told,
    onSettled: changed,
  });
  const out = useMutation({ mutationFn: () => request('DELETE', `${path}/sessions`), onSettled: changed });
  const step = useMutation({
    mutationFn: () => request('DELETE', `${path}/second-step`),
    onSettled: changed,
  });
  const failed = [patch.error, link.error, out.error, step.error].find((e) => e instanceof ApiError) ?? null;
  return { patch, link, out, step, failed, busy: [patch, link, out, step].some((m) => m.isPending) };
}

/** One who works here or did, and what can be done about them. */
export function Member(props: MemberProps) {
  const { of: m, isMe } = props;
  const does = useMember(props);
  return (
    <li className="grid gap-x-6 gap-y-1 border-b border-line-2 py-3 md:grid-cols-[1.2fr_1fr_1.4fr] md:items-center">
      <div>
        <b>{m.name}</b>
        {isMe && <span className="text-ink-2">{say(', this is you')}</span>}
        <span className="block text-sm text-ink-2">{m.email}</span>
        <span className="block text-sm text-ink-2">{stateText(m)}</span>
        {m.passkeys > 0 && (
          <span className="block text-sm text-ink-2">
            {say('passkeys: {{n}}; signing out everywhere takes them back', { n: m.passkeys })}
          </span>
        )}
        {m.secondStep && (
          <span className="block text-sm text-ink-2">{say('signs in by a code beside the password')}</span>
        )}
      </div>
      {m.state === 'left' ? (
        <span />
      ) : (
        <span>
          <select
            className="field"
            aria-label={say('Role of {{name}}', { name: m.name })}
            value={m.role}
            disabled={does.busy}
            onChange={(e) => does.patch.mutate({ role: e.target.value as StaffRole })}
          >
            {ROLES.map((r) => (
              <option key={r} value={r}>
                {say(ROLE_WORDS[r])}
              </option>
            ))}
          </select>
          <span className="block text-sm text-ink-3">{say(ROLE_MEANS[m.role])}</span>
        </span>
      )}
      <div className="flex flex-wrap items-center gap-x-5">
        {m.state === 'left' ? (
          <button
            type="button"
            className="text-action min-h-11"
            disabled={does.busy}
            onClick={() => does.patch.mutate({ left: false })}
          >
            {say('Take {{name}} back', { name: m.name })}
          </button>
        ) : (
          <Actions of={m} isMe={isMe} does={does} />
        )}
      </div>
      {does.failed !== null && (
        <p role="alert" className="col-span-full text-sm text-ease-deep">
          {does.failed.message}
        </p>
      )}
    </li>
  );
}

function Actions({
  of: m,
  isMe,
  does,
}: Pick<MemberProps, 'of' | 'isMe'> & { does: ReturnType<typeof useMember> }) {
  const [sure, setSure] = useState(false);
  const leave = (): void => {
    setSure(false);
    does.patch.mutate({ left: true });
  };
  if (sure)
    return (
      <>
        <button type="button" className="action-quiet" onClick={leave} autoFocus>
          {say('Yes, {{name}} leaves', { name: m.name })}
        </button>
        <button type="button" className="text-action min-h-11" onClick={() => setSure(false)}>
          {say('No')}
        </button>
      </>
    );
  return (
    <>
      <button
        type="button"
        className="text-action min-h-11"
        disabled={does.busy}
        aria-label={
          m.state === 'invited'
            ? say('New link for {{name}}', { name: m.name })
            : say('Link for a new password, {{name}}', { name: m.name })
        }
        onClick={() => does.link.mutate()}
      >
        {m.state === 'invited' ? say('New link') : say('Link for a new password')}
      </button>
      {m.devices + m.passkeys > 0 && !isMe && (
        <button
          type="button"
          className="text-action min-h-11"
          disabled={does.busy}
          aria-label={say('Sign {{name}} out everywhere', { name: m.name })}
          onClick={() => does.out.mutate()}
        >
          {say('Sign out everywhere')}
        </button>
      )}
      {m.secondStep && !isMe && (
        <button
          type="button"
          className="text-action min-h-11"
          disabled={does.busy}
          aria-label={say('Authenticator lost, {{name}}: without a code', { name: m.name })}
          onClick={() => does.step.mutate()}
        >
          {say('Authenticator lost')}
        </button>
      )}
      <button
        type="button"
        className="text-action min-h-11"
        disabled={does.busy}
        aria-label={say('{{name}} leaves', { name: m.name })}
        onClick={() => setSure(true)}
      >
        {say('Leaves')}
      </button>
    </>
  );
}
