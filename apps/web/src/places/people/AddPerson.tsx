import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { PersonBody, type PersonRow } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { stored, keep } from '../../api/useEntries.js';

const DRAFT = 'heathstep.person.draft';

interface Typed {
  id: string;
  name: string;
  birthDate: string;
  occupation: string;
  sex: '' | 'female' | 'male';
}

const EMPTY: Typed = { id: '', name: '', birthDate: '', occupation: '', sex: '' };

/** What was left empty goes as not known. */
const asSent = (t: Typed) => ({
  ...t,
  birthDate: t.birthDate === '' ? null : t.birthDate,
  sex: t.sex === '' ? null : t.sex,
});

const resolver = classValidatorResolver(PersonBody);

/** The same rules as the server's, checked before it is sent; a draft survives leaving the page. */
export function AddPerson({ close }: { close: () => void }) {
  const navigate = useNavigate();
  const [failure, setFailure] = useState<string | null>(null);
  const { register, handleSubmit, formState, setError, getValues } = useForm<Typed>({
    defaultValues: {
      ...EMPTY,
      ...stored<Typed>(DRAFT, { ...EMPTY, id: crypto.randomUUID() }),
    },
    resolver: async (values, context, options) => {
      const checked = await resolver(asSent(values), context, options as never);
      return checked as never;
    },
  });
  const remember = () => keep(DRAFT, getValues(), false);
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
          error.passing ? 'The server cannot be reached. What you typed is kept; try again.' : error.message,
        );
    }
  });
  const field = (name: 'name' | 'birthDate' | 'occupation', label: string, type = 'text', hint = '') => (
    <div>
      <label className="block">
        <span className="text-sm text-ink-2">{label}</span>
        <input
          className="field"
          type={type}
          {...register(name, { onChange: remember })}
          aria-invalid={formState.errors[name] !== undefined}
          aria-describedby={`${name}-note`}
          autoFocus={name === 'name'}
        />
      </label>
      <span
        id={`${name}-note`}
        role={formState.errors[name] === undefined ? undefined : 'alert'}
        className={`block min-h-5 text-sm ${formState.errors[name] === undefined ? 'text-ink-3' : 'text-ease-deep'}`}
      >
        {formState.errors[name]?.message ?? hint}
      </span>
    </div>
  );
  return (
    <form
      className="mt-6 border-y border-line bg-paper px-6 py-5"
      onSubmit={(e) => void submit(e)}
      noValidate
      aria-label="Add a person"
    >
      <div className="grid grid-cols-[2fr_1fr_1fr_2fr] gap-6">
        {field('name', 'Name')}
        {field('birthDate', 'Date of birth', 'date', 'needed before a plan')}
        <label className="block">
          <span className="text-sm text-ink-2">Sex</span>
          <select className="field" {...register('sex', { onChange: remember })}>
            <option value="">not said</option>
            <option value="female">female</option>
            <option value="male">male</option>
          </select>
          <span className="block min-h-5 text-sm text-ink-3">for published norms</span>
        </label>
        {field('occupation', 'Work or main activity')}
      </div>
      <div className="mt-2 flex items-center gap-4">
        <button type="submit" className="action" disabled={formState.isSubmitting}>
          Add
        </button>
        <button type="button" className="text-action min-h-11" onClick={close}>
          Not now
        </button>
        <span role="alert" className="text-ease-deep">
          {failure}
        </span>
      </div>
    </form>
  );
}
