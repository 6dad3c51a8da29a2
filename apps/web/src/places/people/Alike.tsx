import { say } from '@heathstep/core';
import { useDeferredValue } from 'react';
import { Link } from 'react-router';
import type { PersonRow } from '@heathstep/contracts';
import { useContent, usePeople } from '../../api/queries.js';
import { complaintName } from '../../parts/complaints.js';
import { fullDay } from '../../parts/dates.js';

/** So few, so that the form stays where it is. */
const SHOWN = 3;

const WHOLE_DAY = /^\d{4}-\d{2}-\d{2}$/;

/** Two words at least: one alone is had by too many. */
const isFullName = (name: string): boolean => name.trim().split(/\s+/).length > 1;

/** Everyone with a text in the name or as date of birth, once it is enough to go by. */
function useAlike(asked: string, enough: boolean): readonly PersonRow[] {
  const found = usePeople(useDeferredValue(asked), enough);
  return enough ? (found.data?.pages.flat() ?? []) : [];
}

/** Who is here already by that name, in any order of its words, or born on that day: perhaps the one about to be added. */
export function Alike({ name, birthDate }: { name: string; birthDate: string }) {
  const pathways = useContent().data?.pathways ?? [];
  const sameName = useAlike(name, isFullName(name));
  const sameDay = useAlike(birthDate, WHOLE_DAY.test(birthDate));
  const both = sameName.filter((p) => p.birthDate !== null && p.birthDate === birthDate);
  const alike = [...new Map([...both, ...sameName, ...sameDay].map((p) => [p.id, p])).values()];
  return (
    <div role="status" className={alike.length === 0 ? '' : 'mt-4 rounded bg-hold-wash px-4 py-2'}>
      {alike.length > 0 && (
        <>
          <p className="font-semibold text-hold-deep">
            {both.length > 0 ? say('Here already, by name and date of birth') : say('Perhaps here already')}
          </p>
          <ul>
            {alike.slice(0, SHOWN).map((p) => (
              <li key={p.id} className="flex flex-wrap items-center gap-x-4">
                <Link to={`/people/${p.id}`} className="inline-flex min-h-11 items-center text-action">
                  {p.name}
                </Link>
                <span className="text-ink-2">
                  {[
                    p.birthDate === null
                      ? say('date of birth not known')
                      : say('born {{birthDate}}', { birthDate: fullDay(p.birthDate) }),
                    p.occupation,
                    ...p.episodes.map((e) => complaintName(e, pathways)),
                  ]
                    .filter((part) => part !== '')
                    .join(' · ')}
                </span>
              </li>
            ))}
          </ul>
          {alike.length > SHOWN && (
            <p className="text-ink-2">{say('and {{n}} more', { n: alike.length - SHOWN })}</p>
          )}
        </>
      )}
    </div>
  );
}
