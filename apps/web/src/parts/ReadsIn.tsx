import { say } from '@heathstep/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { PersonRow } from '@heathstep/contracts';
import { ApiError, request } from '../api/client.js';
import { useContent } from '../api/queries.js';
import { type Options, SelectField } from './fields.js';

/** Languages to choose from; English is what nothing else was said of. */
export function useLanguages(): Options {
  const content = useContent();
  return [['', 'English'], ...(content.data?.languages ?? []).map((l) => [l.code, l.name] as const)];
}

/** What someone reads: the home page, the handout, the calendar. Kept at once. */
export function ReadsIn({
  person,
  changed,
}: {
  person: Pick<PersonRow, 'id' | 'language' | 'version'>;
  changed: () => Promise<unknown>;
}) {
  const client = useQueryClient();
  const languages = useLanguages();
  const change = useMutation({
    mutationFn: (code: string) =>
      request<PersonRow>('PATCH', `/api/people/${person.id}`, {
        version: person.version,
        language: code === '' ? null : code,
      }),
    onSettled: async () => {
      await client.invalidateQueries({ queryKey: ['people'] });
      await changed();
    },
  });
  return (
    <SelectField
      label={say('Reads')}
      className="mt-4 w-40"
      options={languages}
      value={change.isPending ? change.variables : (person.language ?? '')}
      onChange={(code) => change.mutate(code)}
      error={
        change.error instanceof ApiError
          ? change.error.status === 409
            ? say('Someone else changed this person; choose once more')
            : change.error.message
          : null
      }
    />
  );
}
