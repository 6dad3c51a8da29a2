import { say } from '@heathstep/core';
import { complaintName } from '../../parts/complaints.js';
import { useQueryClient } from '@tanstack/react-query';
import { lazy, Suspense, useDeferredValue } from 'react';
import { Link, useSearchParams } from 'react-router';
import { PEOPLE_AT_ONCE, type PersonRow } from '@heathstep/contracts';
import { fullDay } from '../../parts/dates.js';
import { useFirstThenAll } from '../../parts/useFirstThenAll.js';
import { SearchField } from '../../parts/fields.js';
import { useContent, usePeople, useSession } from '../../api/queries.js';
import { Failed, Loading } from '../../parts/Waiting.js';

const FromFile = lazy(async () => ({ default: (await import('./FromFile.js')).FromFile }));
const TakenTables = lazy(async () => ({ default: (await import('./FromTable.js')).TakenTables }));
const AddPerson = lazy(async () => ({ default: (await import('./AddPerson.js')).AddPerson }));

/** Find or add someone. */
export function People() {
  const [parameters, setParameters] = useSearchParams();
  const client = useQueryClient();
  const session = useSession();
  const q = parameters.get('q') ?? '';
  const adding = parameters.get('add') === '1';
  const people = usePeople(useDeferredValue(q));
  const set = (changes: Record<string, string | null>) => {
    const next = new URLSearchParams(parameters);
    for (const [key, value] of Object.entries(changes)) {
      if (value === null || value === '') next.delete(key);
      else next.set(key, value);
    }
    setParameters(next, { replace: true });
  };
  return (
    <main className="mx-auto w-full max-w-5xl px-4 py-6 sm:px-8 sm:py-8">
      <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
        <h1>{say('People')}</h1>
        <SearchField
          className="min-w-48 max-w-sm flex-1"
          label={say('Find by name')}
          placeholder={say('name or date of birth')}
          value={q}
          onChange={(next) => set({ q: next })}
          autoFocus={!adding}
        />
        <button type="button" className="action" onClick={() => set({ add: '1' })}>
          {say('Add a person')}
        </button>
        {session.data?.user.role !== 'assistant' && (
          <button type="button" className="text-action min-h-11" onClick={() => set({ file: '1' })}>
            {say('From a file')}
          </button>
        )}
      </div>
      {parameters.get('file') === '1' && (
        <Suspense fallback={<Loading what={say('the form')} />}>
          <FromFile close={() => set({ file: null })} />
          <TakenTables />
        </Suspense>
      )}
      {adding && (
        <Suspense fallback={<Loading what={say('the form')} />}>
          <AddPerson
            close={() => {
              void client.invalidateQueries({ queryKey: ['people'] });
              set({ add: null });
            }}
          />
        </Suspense>
      )}
      {people.data === undefined ? (
        people.error === null ? (
          <Loading what={say('people')} />
        ) : (
          <Failed error={people.error} again={() => void people.refetch()} />
        )
      ) : (
        <>
          <Rows people={people.data.pages.flat()} q={q} />
          {people.hasNextPage && (
            <button
              type="button"
              className="text-action mt-3 min-h-11"
              disabled={people.isFetchingNextPage}
              onClick={() => void people.fetchNextPage()}
            >
              {say('Show the next {{more}}', { more: PEOPLE_AT_ONCE })}
            </button>
          )}
        </>
      )}
    </main>
  );
}

const open = (p: PersonRow) => p.episodes.filter((e) => e.status === 'open');

/** Straight to the course where there is one complaint under way; else to the person. */
function placeOf(p: PersonRow): string {
  const [only, ...more] = open(p);
  return only === undefined || more.length > 0 || only.stage === null
    ? `/people/${p.id}`
    : `/episodes/${only.id}/course`;
}

function Rows({ people, q }: { people: readonly PersonRow[]; q: string }) {
  const content = useContent();
  const shown = useFirstThenAll(people);
  if (people.length === 0) {
    return (
      <p className="mt-8 text-ink-2">
        {q === ''
          ? say('Nobody is here yet.')
          : say('Nobody has "{{q}}" in the name or as date of birth. Check the spelling, or add them.', {
              q: q.slice(0, 40),
            })}
      </p>
    );
  }
  return (
    <>
      <ul className="mt-6 border-t border-line">
        {shown.map((p) => (
          <li key={p.id} className="seen-when-near border-b border-line">
            <Link
              to={placeOf(p)}
              className="grid items-baseline gap-x-4 gap-y-1 px-2 py-3 hover:bg-paper sm:grid-cols-[16rem_1fr] lg:grid-cols-[16rem_1fr_12rem]"
            >
              <span>
                <span className="font-head text-lg font-semibold">{p.name}</span>
                <span className="ml-2 text-sm text-ink-2">{p.occupation}</span>
                {p.birthDate !== null && (
                  <span className="block text-sm text-ink-3">
                    {say('born {{birthDate}}', { birthDate: fullDay(p.birthDate) })}
                  </span>
                )}
              </span>
              <span className="text-ink-2">
                {open(p).length === 0
                  ? say('Nothing open')
                  : open(p)
                      .map((e) => complaintName(e, content.data?.pathways ?? []))
                      .join('; ')}
              </span>
              <span className="font-semibold sm:col-start-2 lg:col-start-auto lg:text-right">
                {open(p)
                  .map((e) => e.stageName ?? say('not started'))
                  .join('; ')}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </>
  );
}
