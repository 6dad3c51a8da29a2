import { say } from '@heathstep/core';
import { useState } from 'react';
import type { AmendmentView } from '@heathstep/contracts';
import { useSession, type ClinicContent } from '../../api/queries.js';
import { longDay } from '../../parts/dates.js';
import { entryName, told } from './entryName.js';

/** At the head of a signed visit: read it, or amend it with a reason. Both values stay. */
export function Amend({ reason, begin }: { reason: string | null; begin: (reason: string) => void }) {
  const session = useSession();
  const [asking, setAsking] = useState(false);
  const [text, setText] = useState('');
  if (reason !== null)
    return (
      <p className="rounded bg-hold-wash px-3 py-2 text-sm text-hold-deep" role="status">
        {say('Amending a signed visit: {{reason}}. Each change is kept beside what stood before.', {
          reason,
        })}
      </p>
    );
  return (
    <div className="flex flex-wrap items-end gap-4 rounded bg-line-2 px-3 py-2 text-sm" role="status">
      <span className="py-2">{say('This visit is signed; it is read, not written.')}</span>
      <button type="button" className="text-action min-h-11" onClick={() => window.print()}>
        {say('Print it')}
      </button>
      {!asking && session.data?.user.role !== 'assistant' && (
        <button type="button" className="text-action min-h-11" onClick={() => setAsking(true)}>
          {say('Amend it')}
        </button>
      )}
      {asking && (
        <form
          className="flex flex-1 items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            if (text.trim().length >= 3) begin(text.trim());
          }}
        >
          <label className="flex-1">
            <span className="text-ink-2">{say('Why the signed visit is changed')}</span>
            <input
              className="field"
              value={text}
              maxLength={500}
              onChange={(e) => setText(e.target.value)}
              autoFocus
            />
          </label>
          <button type="submit" className="action-quiet" disabled={text.trim().length < 3}>
            {say('Begin')}
          </button>
        </form>
      )}
    </div>
  );
}

/** Everything amended after signing, oldest first. */
export function Amendments({ list, content }: { list: readonly AmendmentView[]; content: ClinicContent }) {
  if (list.length === 0) return null;
  return (
    <section aria-label={say('Amendments')} className="mt-2 border-l-4 border-hold pl-3 text-sm">
      <h3>{say('Amended since')}</h3>
      <ul>
        {list.map((a, i) => (
          <li key={i} className="py-0.5">
            <b>{entryName(a.key, content)}</b>
            {say(': was {{told}}, now {{told2}}.', {
              told: told(a.before ?? null),
              told2: told(a.value ?? null),
            })}{' '}
            <span className="text-ink-2">{`${a.reason}. ${a.author}, ${longDay(a.at)}`}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
