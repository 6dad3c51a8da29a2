import { say } from '@heathstep/core';
import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { PersonBody, type PersonRow } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { type Options, SelectField, SendOrLeave, TextField } from '../../parts/fields.js';
import { useLanguages } from '../../parts/ReadsIn.js';
import { Alike } from './Alike.js';
import { stored, keep } from '../../api/kept.js';

const DRAFT = 'heathstep.person.draft';

interface Typed {
  id: string;
  name: string;
  birthDate: string;
  occupation: string;
  sex: '' | 'female' | 'male';
  language: string;
}

const EMPTY: Typed = { id: '', name: '', birthDate: '', occupation: '', sex: '', language: '' };

/** What was left empty goes as not known. */
const asSent = (t: Typed) => ({
  ...t,
  birthDate: t.birthDate === '' ? null : t.birthDate,
  sex: t.sex === '' ? null : t.sex,
  language: t.language === '' ? null : t.language,
});

export const SEXES: Options = [
  ['', say('not said')],
  ['female', say('female')],
  ['male', say('male')],
];

/** No one's names, for practice; each says so on every list and every paper. */
const MADE_UP = [
  ['Fenna Holtwick', '1971-09-14', 'female'],
  ['Corwin Ashbell', '1988-02-03', 'male'],
  ['Ysolde Marrack', '1959-06-21', 'female'],
  ['Teodor Quillan', '2001-11-30', 'male'],
] as const;

const resolver = classValidatorResolver(PersonBody);

/** The same rules as the server's, checked before it is sent; a draft survives leaving the page. */
function useNewPerson(close: () => void) {
  const navigate = useNavigate();
  const [failure, setFailure] = useState<string | null>(null);
  const { watch, setValue, handleSubmit, formState, setError, getValues } = useForm<Typed>({
    defaultValues: {
      ...EMPTY,
      ...stored<Typed>(DRAFT, { ...EMPTY, id: crypto.randomUUID() }),
    },
    resolver: async (values, context, options) => {
      const checked = await resolver(asSent(values), context, options as never);
      return checked as never;
    },
  });
  const submit = handleSubmit(async () => {
    const values = getValues();
    setFailure(null);
    try {
      const person = await request<PersonRow>('POST', '/api/people', asSent(values));
      keep(DRAFT, null, true);
      close();
      await navigate(`/people/${person.id}`);
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      for (const field of ['name', 'birthDate', 'occupation'] as const) {
        const detail = error.at(`/${field}`);
        if (detail !== null) setError(field, { message: detail });
      }
      if ((error.problem.errors ?? []).length === 0)
        setFailure(
          error.passing
            ? say('The server cannot be reached. What you typed is kept; try again.')
            : error.message,
        );
    }
  });
  const put = (name: keyof Typed) => (value: string) => {
    setValue(name, value as never, { shouldValidate: formState.isSubmitted });
    keep(DRAFT, { ...getValues(), [name]: value }, false);
  };
  return { values: watch(), formState, submit, put, failure };
}

export function AddPerson({ close }: { close: () => void }) {
  const { values, formState, submit, put, failure } = useNewPerson(close);
  const languages = useLanguages();
  const practise = () => {
    const [name, birthDate, sex] = MADE_UP[Math.floor(Math.random() * MADE_UP.length)] ?? MADE_UP[0];
    put('name')(say('{{name}} (made up)', { name }));
    put('birthDate')(birthDate);
    put('occupation')(say('made up, to practise on'));
    put('sex')(sex);
  };
  return (
    <form
      className="mt-6 border-y border-line bg-paper px-6 py-5"
      onSubmit={(e) => void submit(e)}
      noValidate
      aria-label={say('Add a person')}
    >
      <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2 lg:grid-cols-[2fr_1fr_1fr_2fr_1fr]">
        <TextField
          label={say('Name')}
          value={values.name}
          onChange={put('name')}
          error={formState.errors.name?.message}
          autoFocus
        />
        <TextField
          label={say('Date of birth')}
          type="date"
          hint={say('needed before a plan')}
          value={values.birthDate}
          onChange={put('birthDate')}
          error={formState.errors.birthDate?.message}
        />
        <SelectField
          label={say('Sex')}
          hint={say('for published norms')}
          options={SEXES}
          value={values.sex}
          onChange={put('sex')}
        />
        <TextField
          label={say('Work or main activity')}
          value={values.occupation}
          onChange={put('occupation')}
          error={formState.errors.occupation?.message}
        />
        <SelectField
          label={say('Reads')}
          options={languages}
          value={values.language}
          onChange={put('language')}
        />
      </div>
      <div className="mt-1 flex items-end gap-6">
        <SendOrLeave
          send={say('Add')}
          leave={say('Not now')}
          disabled={formState.isSubmitting}
          onLeave={close}
        />
        {values.name === '' && values.birthDate === '' && values.occupation === '' && (
          <button type="button" className="text-action min-h-11" onClick={practise}>
            {say('Fill in a made-up one, to practise on')}
          </button>
        )}
        <span role="alert" className="min-h-11 content-center text-ease-deep">
          {failure}
        </span>
      </div>
      <Alike name={values.name} birthDate={values.birthDate} />
    </form>
  );
}
