import { say } from '@heathstep/core';
import { NavLink, Navigate, useParams } from 'react-router';
import { useSession } from '../../api/queries.js';
import { AuditLog } from './AuditLog.js';
import { ClinicFacts } from './ClinicFacts.js';
import { ClinicRules } from './ClinicRules.js';
import { LetterTemplates } from './LetterTemplates.js';
import { Programs } from './Programs.js';
import { Staff } from './Staff.js';

const PARTS: readonly (readonly [part: string, name: string])[] = [
  ['staff', say('Who works here')],
  ['facts', say('The clinic itself')],
  ['rules', say('What holds for all')],
  ['letters', say('What letters begin with')],
  ['audit', say('Who saw and changed what')],
  ['programs', say('Programs and erased records')],
];

/** What only the leads of a clinic do: who works here, what it says of itself, the log. */
export function Clinic() {
  const { part } = useParams();
  const session = useSession();
  if (session.data === undefined) return null;
  const { user, clinic } = session.data;
  // Also of what is no part.
  if (PARTS.every(([key]) => key !== part)) return <Navigate to="/clinic/staff" replace />;
  return (
    <main className="mx-auto w-full max-w-6xl px-4 py-6 sm:px-8 sm:py-8">
      <h1>{clinic.name}</h1>
      {user.role !== 'lead' ? (
        <p className="mt-4 text-ink-2">{say('This is for the leads of the clinic.')}</p>
      ) : (
        <>
          <nav
            aria-label={say('Parts of the clinic')}
            className="no-print mt-3 flex flex-wrap gap-x-6 border-b border-line"
          >
            {PARTS.map(([key, name]) => (
              <NavLink
                key={key}
                to={`/clinic/${key}`}
                className={({ isActive }) =>
                  `flex min-h-11 items-center border-b-2 ${isActive ? 'border-heather font-semibold' : 'border-transparent text-ink-2 hover:text-ink'}`
                }
              >
                {name}
              </NavLink>
            ))}
          </nav>
          {part === 'facts' ? (
            <ClinicFacts clinic={clinic} />
          ) : part === 'audit' ? (
            <AuditLog />
          ) : part === 'rules' ? (
            <ClinicRules clinic={clinic} />
          ) : part === 'letters' ? (
            <LetterTemplates />
          ) : part === 'programs' ? (
            <Programs />
          ) : (
            <Staff me={user.id} />
          )}
        </>
      )}
    </main>
  );
}
