import { say } from '@heathstep/core';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Pathway } from '@heathstep/content';
import type { PersonRow } from '@heathstep/contracts';
import { ApiError } from '../../api/client.js';
import { complaintName } from '../../parts/complaints.js';
import { fullDay } from '../../parts/dates.js';
import { End, Reopen, useEpisodeChange } from '../../parts/EndOrReopen.js';
import { endedWords } from '../../parts/Ended.js';

/** Every complaint of the person: what is under way, and what was closed and how. */
export function Complaints({ person, pathways }: { person: PersonRow; pathways: readonly Pathway[] }) {
  const [ending, setEnding] = useState<string | null>(null);
  const change = useEpisodeChange(person.id, () => setEnding(null));
  const error = change.error instanceof ApiError ? change.error : null;
  return (
    <section className="mt-6">
      <h2>{say('Complaints')}</h2>
      <ul className="mt-2 border-t border-line">
        {person.episodes.map((e) => {
          const name = complaintName(e, pathways);
          const closed = e.status === 'closed';
          return (
            <li key={e.id} className="border-b border-line px-2 py-2">
              <div className="flex min-h-11 flex-wrap items-center gap-x-6">
                <Link
                  to={`/episodes/${e.id}/${e.stage === null ? 'visit' : 'course'}`}
                  className="text-action flex min-h-11 items-center font-semibold max-sm:w-full sm:min-w-60 sm:flex-1"
                >
                  {name}
                </Link>
                <span className="text-sm text-ink-2">
                  {closed ? endedWords(e.ended) : (e.stageName ?? say('not started'))}
                  {say(', since {{startedAt}}', { startedAt: fullDay(e.startedAt) })}
                </span>
                {closed && e.stage !== null && (
                  <Link
                    className="text-action flex min-h-11 items-center text-sm"
                    to={`/episodes/${e.id}/letter`}
                  >
                    {say('Letter')}
                  </Link>
                )}
                <button
                  type="button"
                  className="text-action min-h-11 text-sm"
                  aria-label={`${closed ? say('Open again') : say('Close')}: ${name}`}
                  aria-expanded={ending === e.id}
                  disabled={change.isPending}
                  onClick={() => {
                    change.reset();
                    setEnding(ending === e.id ? null : e.id);
                  }}
                >
                  {closed ? say('Open again') : say('Close')}
                </button>
              </div>
              {ending === e.id && closed && (
                <Reopen
                  name={name}
                  again={e.again}
                  error={error}
                  busy={change.isPending}
                  leave={() => setEnding(null)}
                  open={(why) => change.mutate({ of: e, status: 'open', ...why })}
                />
              )}
              {ending === e.id && !closed && (
                <End
                  name={name}
                  error={error}
                  busy={change.isPending}
                  leave={() => setEnding(null)}
                  close={(end) => change.mutate({ of: e, status: 'closed', ...end })}
                />
              )}
            </li>
          );
        })}
      </ul>
      {ending === null && error !== null && (
        <p role="alert" className="mt-2 text-ease-deep">
          {error.message}
        </p>
      )}
    </section>
  );
}
