import { say } from '@heathstep/core';
import { useDeferredValue, useState } from 'react';
import type { PersonRow } from '@heathstep/contracts';
import { usePeople } from '../api/queries.js';
import { fullDay } from './dates.js';
import { FindAndChoose } from './FindAndChoose.js';

/** So many are offered. */
const MOST = 8;

/** Someone of the clinic, found by name or date of birth. */
export function WhoField({
  asked: first = '',
  choose,
}: {
  asked?: string;
  choose: (person: PersonRow) => void;
}) {
  const [asked, setAsked] = useState(first);
  const people = usePeople(useDeferredValue(asked));
  const found = people.data?.pages.flat().slice(0, MOST) ?? [];
  return (
    <FindAndChoose
      label={say('Who')}
      placeholder={say('name or date of birth')}
      asked={asked}
      onAsked={setAsked}
      found={found}
      keyOf={(p) => p.id}
      row={(p) => (
        <>
          <span className="font-semibold">{p.name}</span>
          <span className="text-sm text-ink-3">{p.birthDate === null ? '' : fullDay(p.birthDate)}</span>
        </>
      )}
      onChoose={choose}
      nothing={people.data === undefined ? say('Looking ...') : say('Nobody of that name is here.')}
      fieldClass="field w-full"
      listClass="mt-1 max-h-56"
    />
  );
}
