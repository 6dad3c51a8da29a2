import { say } from '@heathstep/core';
import { useMutation } from '@tanstack/react-query';
import { type SyntheticEvent, useRef, useState } from 'react';
import {
  type AccountLinkView,
  type MemberView,
  ROLE_MEANS,
  ROLE_WORDS,
  ROLES,
  type StaffRole,
} from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { SelectField, SendOrLeave, TextField } from '../../parts/fields.js';

/** Someone new: a name, what they sign in with, a role. A double press adds them once. */
export function AddMember({
  added,
  close,
}: {
  added: (member: MemberView, link: AccountLinkView) => void;
  close: () => void;
}) {
  const [id] = useState(() => crypto.randomUUID());
  const [name, setName] = useState('');
  const [email, setEmail] = useState('');
  const [role, setRole] = useState<StaffRole>('clinician');
  const sending = useRef(false);
  const add = useMutation({
    mutationFn: async () => {
      const member = await request<MemberView>('POST', '/api/clinic/staff', {
        id,
        name,
        email: email.trim(),
        role,
      });
      return { member, link: await request<AccountLinkView>('POST', `/api/clinic/staff/${id}/link`) };
    },
    onSuccess: ({ member, link }) => added(member, link),
    onSettled: () => {
      sending.current = false;
    },
  });
  const wrong = add.error instanceof ApiError ? add.error : null;
  const submit = (event: SyntheticEvent): void => {
    event.preventDefault();
    // A second press before the page is drawn anew would make a second link, and the first would no longer work.
    if (sending.current) return;
    sending.current = true;
    add.mutate();
  };
  return (
    <form aria-label={say('Add someone')} className="bg-paper px-5 py-4" onSubmit={submit} noValidate>
      <div className="grid gap-x-6 gap-y-3 sm:grid-cols-3">
        <TextField
          label={say('Name')}
          value={name}
          onChange={setName}
          maxLength={80}
          error={wrong?.at('/name') ?? null}
          autoFocus
        />
        <TextField
          label={say('E-mail')}
          type="email"
          hint={say('what they sign in with; nothing is sent')}
          value={email}
          onChange={setEmail}
          maxLength={200}
          error={wrong?.at('/email') ?? null}
        />
        <SelectField
          label={say('Role')}
          hint={say(ROLE_MEANS[role])}
          value={role}
          onChange={(r) => setRole(r as StaffRole)}
          options={ROLES.map((r) => [r, say(ROLE_WORDS[r])] as const)}
        />
      </div>
      <SendOrLeave send={say('Add')} leave={say('Not now')} disabled={add.isPending} onLeave={close} />
      <p role="alert" className="min-h-6 text-ease-deep">
        {wrong !== null && (wrong.problem.errors ?? []).length === 0 ? wrong.message : ''}
      </p>
    </form>
  );
}
