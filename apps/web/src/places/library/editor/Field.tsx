import type { ReactNode } from 'react';
import type { ApiError } from '../../../api/client.js';

/** A named field with what is wrong with it. */
export function Field({
  label,
  error,
  children,
  wide = false,
}: {
  label: string;
  error: string | null;
  children: ReactNode;
  wide?: boolean;
}) {
  return (
    <div className={wide ? 'col-span-full' : ''}>
      <label className="block">
        <span className="block text-sm text-ink-2">{label}</span>
        {children}
      </label>
      {error !== null && (
        <span role="alert" className="block text-sm text-ease-deep">
          {error}
        </span>
      )}
    </div>
  );
}

/** Words of which any number hold. */
export function Several({
  label,
  options,
  value,
  onChange,
  error,
}: {
  label: string;
  options: readonly (readonly [value: string, label: string])[];
  value: readonly string[];
  onChange: (value: string[]) => void;
  error: string | null;
}) {
  return (
    <fieldset className="col-span-full">
      <legend className="text-sm text-ink-2">{label}</legend>
      <div className="flex flex-wrap gap-x-3">
        {options.map(([v, name]) => (
          <label key={v} className="inline-flex min-h-8 items-center gap-1.5">
            <input
              type="checkbox"
              className="size-4 accent-heather"
              checked={value.includes(v)}
              onChange={() => onChange(value.includes(v) ? value.filter((x) => x !== v) : [...value, v])}
            />
            {name}
          </label>
        ))}
      </div>
      {error !== null && (
        <span role="alert" className="text-sm text-ease-deep">
          {error}
        </span>
      )}
    </fieldset>
  );
}

/** What an answer says of a field and of what lies in it. */
export const errorsAt = (error: ApiError | null, pointer: string): string | null =>
  error?.problem.errors?.find((e) => e.pointer === pointer || e.pointer.startsWith(`${pointer}/`))?.detail ??
  null;
