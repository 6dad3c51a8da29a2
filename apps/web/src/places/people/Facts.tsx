import { say } from '@heathstep/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { PersonRow } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { fullDay } from '../../parts/dates.js';
import { Refusal, SelectField, SendOrLeave, TextField } from '../../parts/fields.js';
import { SEXES } from './AddPerson.js';

/** Who someone is, and the way to correct it. */
export function Facts({ person, changed }: { person: PersonRow; changed: () => Promise<unknown> }) {
  const [correcting, setCorrecting] = useState(false);
  const about = [
    person.occupation,
    person.birthDate === null
      ? say('date of birth not known')
      : say('born {{birthDate}}', { birthDate: fullDay(person.birthDate) }),
    person.sex ?? '',
  ].filter((t) => t !== '');
  return (
    <>
      <h1 className="mt-2">{person.name}</h1>
      {correcting ? (
        <Correct person={person} changed={changed} leave={() => setCorrecting(false)} />
      ) : (
        <p className="mt-1 flex flex-wrap items-center gap-x-4 text-ink-2">
          {about.join(', ')}
          <button type="button" className="text-action min-h-11 text-sm" onClick={() => setCorrecting(true)}>
            {say('Correct')}
          </button>
        </p>
      )}
    </>
  );
}

interface CorrectProps {
  readonly person: PersonRow;
  readonly changed: () => Promise<unknown>;
  readonly leave: () => void;
}

/** What was typed, the sending of it, and what someone else made of the person meanwhile. */
function useCorrection({ person, changed, leave }: CorrectProps) {
  const client = useQueryClient();
  const [typed, setTyped] = useState({
    name: person.name,
    birthDate: person.birthDate ?? '',
    occupation: person.occupation,
    sex: person.sex ?? '',
  });
  const [other, setOther] = useState<PersonRow | null>(null);
  const save = useMutation({
    mutationFn: () =>
      request<PersonRow>('PATCH', `/api/people/${person.id}`, {
        version: (other ?? person).version,
        name: typed.name.trim(),
        occupation: typed.occupation,
        sex: typed.sex === '' ? null : typed.sex,
        ...(typed.birthDate === '' ? {} : { birthDate: typed.birthDate }),
      }),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ['people'] });
      await client.invalidateQueries({ queryKey: ['course'] });
      await changed();
      leave();
    },
    onError: async (error) => {
      // What stands now is shown beside what was typed; saving once more puts what was typed over it.
      if (error instanceof ApiError && error.status === 409)
        setOther(await request<PersonRow>('GET', `/api/people/${person.id}`));
    },
  });
  return { typed, setTyped, other, save };
}

function Correct(props: CorrectProps) {
  const { typed, setTyped, other, save } = useCorrection(props);
  const error = save.error instanceof ApiError ? save.error : null;
  const put = (field: keyof typeof typed) => (value: string) =>
    setTyped((now) => ({ ...now, [field]: value }));
  return (
    <form
      aria-label={say('Correct the person')}
      className="mt-2 max-w-xl space-y-3"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <TextField
        label={say('Name')}
        autoFocus
        value={typed.name}
        onChange={put('name')}
        error={error?.at('/name')}
      />
      <div className="flex flex-wrap gap-x-6 gap-y-3">
        <TextField
          label={say('Date of birth')}
          type="date"
          value={typed.birthDate}
          onChange={put('birthDate')}
          error={error?.at('/birthDate')}
        />
        <SelectField
          label={say('Sex')}
          hint={say('for published norms')}
          options={SEXES}
          value={typed.sex}
          onChange={put('sex')}
        />
      </div>
      <TextField
        label={say('Work or main activity')}
        value={typed.occupation}
        onChange={put('occupation')}
        error={error?.at('/occupation')}
      />
      {other !== null ? (
        <p role="alert" className="text-hold-deep">
          {say(
            'Someone else changed this meanwhile to {{list}}. What you typed is kept; save once more to put it in its place.',
            {
              list: [
                other.name,
                other.birthDate === null
                  ? ''
                  : say('born {{birthDate}}', { birthDate: fullDay(other.birthDate) }),
                other.occupation,
              ]
                .filter((t) => t !== '')
                .join(', '),
            },
          )}
        </p>
      ) : (
        <Refusal error={error} />
      )}
      <SendOrLeave
        send={say('Save')}
        leave={say('Leave it as it was')}
        disabled={save.isPending}
        onLeave={props.leave}
      />
    </form>
  );
}
