import { say } from '@heathstep/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { AccountLinkView, MemberView } from '@heathstep/contracts';
import { TableLink } from '../../parts/TableLink.js';
import { request } from '../../api/client.js';
import { Failed, Loading } from '../../parts/Waiting.js';
import { AddMember } from './AddMember.js';
import { LinkTold } from './LinkTold.js';
import { Member } from './Member.js';

const staffKey = ['staff'] as const;

/** Who works here: they come by a link, have a role, are signed out or leave. */
export function Staff({ me }: { me: string }) {
  const client = useQueryClient();
  const [adding, setAdding] = useState(false);
  const [told, setTold] = useState<{ name: string; link: AccountLinkView } | null>(null);
  const staff = useQuery({
    queryKey: staffKey,
    queryFn: () => request<readonly MemberView[]>('GET', '/api/clinic/staff'),
  });
  const again = (): Promise<void> => client.invalidateQueries({ queryKey: staffKey });
  if (staff.data === undefined)
    return staff.error === null ? (
      <Loading what={say('who works here')} />
    ) : (
      <Failed error={staff.error} again={() => void staff.refetch()} />
    );
  const here = staff.data.filter((m) => m.state !== 'left');
  const left = staff.data.filter((m) => m.state === 'left');
  return (
    <section aria-label={say('Who works here')} className="mt-5">
      {adding ? (
        <AddMember
          close={() => setAdding(false)}
          added={(member, link) => {
            setAdding(false);
            setTold({ name: member.name, link });
            void again();
          }}
        />
      ) : (
        <button type="button" className="action mr-6" onClick={() => setAdding(true)}>
          {say('Add someone')}
        </button>
      )}
      <TableLink href="/api/clinic/staff/staff.csv">{say('As a table')}</TableLink>
      {told !== null && <LinkTold {...told} close={() => setTold(null)} />}
      <ul className="mt-4">
        {here.map((m) => (
          <Member
            key={m.id}
            of={m}
            isMe={m.id === me}
            changed={again}
            told={(link) => setTold({ name: m.name, link })}
          />
        ))}
      </ul>
      {left.length > 0 && (
        <details className="mt-6">
          <summary className="min-h-11 cursor-pointer content-center">
            {say('Left: {{count}}', { count: left.length })}
          </summary>
          <ul>
            {left.map((m) => (
              <Member
                key={m.id}
                of={m}
                isMe={false}
                changed={again}
                told={(link) => setTold({ name: m.name, link })}
              />
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}
