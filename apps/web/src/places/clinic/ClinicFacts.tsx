import { say } from '@heathstep/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { type SyntheticEvent, useState } from 'react';
import type { SessionView } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { keys } from '../../api/queries.js';
import { TextField } from '../../parts/fields.js';

type Facts = Omit<SessionView['clinic'], 'id' | 'defaults'>;

const ZONES = Intl.supportedValuesOf('timeZone');
/** Others can be typed. */
const LOCALES = ['en-GB', 'en-IE', 'en-AU', 'de-DE', 'de-AT', 'de-CH', 'fr-FR', 'nl-NL', 'nb-NO', 'sv-SE'];

/** What the clinic says of itself, on every paper and phone. */
export function ClinicFacts({ clinic }: { clinic: SessionView['clinic'] }) {
  const client = useQueryClient();
  const [facts, setFacts] = useState<Facts>({
    name: clinic.name,
    phone: clinic.phone,
    emergencyNumber: clinic.emergencyNumber,
    locale: clinic.locale,
    timeZone: clinic.timeZone,
  });
  const save = useMutation({
    mutationFn: () => request('PUT', '/api/clinic', facts),
    onSuccess: () => client.invalidateQueries({ queryKey: keys.session }),
  });
  const wrong = save.error instanceof ApiError ? save.error : null;
  const field = (name: keyof Facts) => ({
    value: facts[name],
    error: wrong?.at(`/${name}`) ?? null,
    onChange: (value: string) => {
      save.reset();
      setFacts({ ...facts, [name]: value });
    },
  });
  const submit = (event: SyntheticEvent): void => {
    event.preventDefault();
    if (!save.isPending) save.mutate();
  };
  return (
    <form className="mt-5 grid max-w-3xl gap-x-8 gap-y-4 sm:grid-cols-2" onSubmit={submit} noValidate>
      <TextField label={say('Name of the clinic')} wide maxLength={120} {...field('name')} />
      <TextField
        label={say('Telephone')}
        hint={say('on every handout and phone, for questions')}
        type="tel"
        maxLength={30}
        {...field('phone')}
      />
      <TextField
        label={say('Emergency number')}
        hint={say('what is called when a sign of danger is reported at home')}
        inputMode="numeric"
        maxLength={12}
        {...field('emergencyNumber')}
      />
      <TextField
        label={say('Days and numbers are written as in')}
        hint={say('a language tag such as en-GB')}
        list="locales"
        maxLength={35}
        {...field('locale')}
      />
      <TextField
        label={say('Time zone')}
        hint={say('days of visits and stages are days there, those of the past too')}
        list="time-zones"
        maxLength={60}
        {...field('timeZone')}
      />
      <datalist id="locales">
        {LOCALES.map((l) => (
          <option key={l} value={l} />
        ))}
      </datalist>
      <datalist id="time-zones">
        {ZONES.map((z) => (
          <option key={z} value={z} />
        ))}
      </datalist>
      <div className="col-span-full flex items-center gap-5">
        <button type="submit" className="action" disabled={save.isPending}>
          {say('Keep')}
        </button>
        <span role="status" className="text-ink-2">
          {save.isSuccess ? say('Kept.') : ''}
        </span>
        <span role="alert" className="text-ease-deep">
          {wrong !== null && (wrong.problem.errors ?? []).length === 0 ? wrong.message : ''}
        </span>
      </div>
    </form>
  );
}
