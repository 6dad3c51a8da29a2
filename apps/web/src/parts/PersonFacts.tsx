import { say } from '@heathstep/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState, type SyntheticEvent } from 'react';
import type { EpisodeView, PersonRow } from '@heathstep/contracts';
import { ApiError, request } from '../api/client.js';
import { keys } from '../api/queries.js';

/** Date of birth and sex of someone they are not known of; norms and protocols go by them. */
export function PersonFacts({ episode }: { episode: EpisodeView }) {
  const { person } = episode;
  const client = useQueryClient();
  const [birthDate, setBirthDate] = useState(person.birthDate ?? '');
  const [sex, setSex] = useState<string>(person.sex ?? '');
  const save = useMutation({
    mutationFn: () =>
      request<PersonRow>('PATCH', `/api/people/${person.id}`, {
        version: person.version,
        ...(birthDate === '' ? {} : { birthDate }),
        ...(sex === '' ? {} : { sex }),
      }),
    onSuccess: () => client.invalidateQueries({ queryKey: keys.course(episode.id) }),
  });
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    save.mutate();
  };
  const error = save.error instanceof ApiError ? save.error : null;
  return (
    <form
      className="mt-4 flex flex-wrap items-end gap-4"
      onSubmit={submit}
      noValidate
      aria-label={say('The person')}
    >
      <label>
        <span className="block text-sm text-ink-2">{say('Date of birth')}</span>
        <input
          className="field"
          type="date"
          max={episode.today}
          value={birthDate}
          onChange={(e) => setBirthDate(e.target.value)}
        />
      </label>
      <label>
        <span className="block text-sm text-ink-2">{say('Sex, for published norms')}</span>
        <select className="field" value={sex} onChange={(e) => setSex(e.target.value)}>
          <option value="">{say('not said')}</option>
          <option value="female">{say('female')}</option>
          <option value="male">{say('male')}</option>
        </select>
      </label>
      <button type="submit" className="action" disabled={save.isPending || birthDate === ''}>
        {say('Save')}
      </button>
      {error !== null && (
        <span role="alert" className="text-ease-deep">
          {error.at('/birthDate') ?? error.message}
        </span>
      )}
    </form>
  );
}
