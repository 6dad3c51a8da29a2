import { say } from '@heathstep/core';
import { type InputHTMLAttributes, type ReactNode, type TextareaHTMLAttributes, useId } from 'react';
import type { ApiError } from '../api/client.js';

/** What is wrong with a field, told as soon as it is known; nothing where nothing is. */
export function FieldNote({ text, id }: { text: string | null | undefined; id?: string }) {
  return text == null ? null : (
    <span id={id} role="alert" className="block text-sm text-ease-deep">
      {text}
    </span>
  );
}

interface Framed {
  readonly label: string;
  readonly error?: string | null | undefined;
  /** What helps to fill it in; gives way to what is wrong. */
  readonly hint?: string;
  /** Over all columns of a grid. */
  readonly wide?: boolean;
  readonly className?: string;
}

/** A label, the field it names, and what is wrong with it; the field takes the id and the note it is given. */
function Frame({
  label,
  error = null,
  hint = '',
  wide = false,
  className = '',
  children,
}: Framed & {
  children: (ids: { id: string; 'aria-describedby'?: string; 'aria-invalid': boolean }) => ReactNode;
}) {
  const id = useId();
  const wrong = error !== null;
  return (
    <div className={`${wide ? 'col-span-full' : ''} ${className}`}>
      <label htmlFor={id} className="block text-sm text-ink-2">
        {label}
      </label>
      {children({
        id,
        'aria-invalid': wrong,
        ...(wrong || hint !== '' ? { 'aria-describedby': `${id}-note` } : {}),
      })}
      {wrong || hint === '' ? (
        <FieldNote text={error} id={`${id}-note`} />
      ) : (
        <span id={`${id}-note`} className="block text-sm text-ink-3">
          {hint}
        </span>
      )}
    </div>
  );
}

/** One line to type. */
export function TextField({
  value,
  onChange,
  field = 'field',
  label,
  error,
  hint = '',
  wide = false,
  className = '',
  ...input
}: Framed & { value: string; onChange: (value: string) => void; field?: string } & Omit<
    InputHTMLAttributes<HTMLInputElement>,
    'value' | 'onChange' | 'className'
  >) {
  return (
    <Frame label={label} error={error} hint={hint} wide={wide} className={className}>
      {(ids) => (
        <input
          className={field}
          maxLength={400}
          {...input}
          {...ids}
          value={value}
          onChange={(e) => onChange(e.target.value)}
        />
      )}
    </Frame>
  );
}

/** Several lines to type. */
export function TextArea({
  value,
  onChange,
  field = 'field w-full',
  label,
  error,
  hint = '',
  wide = false,
  className = '',
  ...area
}: Framed & { value: string; onChange: (value: string) => void; field?: string } & Omit<
    TextareaHTMLAttributes<HTMLTextAreaElement>,
    'value' | 'onChange' | 'className'
  >) {
  return (
    <Frame label={label} error={error} hint={hint} wide={wide} className={className}>
      {(ids) => (
        <textarea
          className={field}
          maxLength={2000}
          {...area}
          {...ids}
          value={value}
          onChange={(e) => onChange(e.target.value)}
        />
      )}
    </Frame>
  );
}

export type Options = readonly (readonly [value: string, name: string])[];

/** One of some words. */
export function SelectField({
  value,
  onChange,
  options,
  label,
  error,
  hint = '',
  wide = false,
  className = '',
}: Framed & { value: string; onChange: (value: string) => void; options: Options }) {
  return (
    <Frame label={label} error={error} hint={hint} wide={wide} className={className}>
      {(ids) => (
        <select className="field" {...ids} value={value} onChange={(e) => onChange(e.target.value)}>
          {options.map(([v, name]) => (
            <option key={v} value={v}>
              {name}
            </option>
          ))}
        </select>
      )}
    </Frame>
  );
}

/** Words of which any number hold. */
export function Several({
  label,
  options,
  value,
  onChange,
  error = null,
  listClass = 'flex flex-wrap gap-x-3',
}: {
  label: string;
  options: Options;
  value: readonly string[];
  onChange: (value: string[]) => void;
  error?: string | null;
  listClass?: string;
}) {
  return (
    <fieldset className="col-span-full">
      <legend className="text-sm text-ink-2">{label}</legend>
      <div className={listClass}>
        {options.map(([v, name]) => (
          <label key={v} className="inline-flex min-h-9 items-center gap-1.5">
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
      <FieldNote text={error} />
    </fieldset>
  );
}

/** A refusal that belongs to no field; of a lost server, that nothing typed is lost. */
export function Refusal({ error }: { error: ApiError | null }) {
  if (error === null || (error.problem.errors ?? []).length > 0) return null;
  return (
    <p role="alert" className="text-sm text-ease-deep">
      {error.passing
        ? say('The server cannot be reached. What you typed is kept; try again.')
        : error.message}
    </p>
  );
}

/** The end of a form: sent, or left as it was. */
export function SendOrLeave({
  send,
  leave,
  disabled,
  onLeave,
}: {
  send: string;
  leave: string;
  disabled: boolean;
  onLeave: () => void;
}) {
  return (
    <div className="mt-3 flex gap-3">
      <button type="submit" className="action" disabled={disabled}>
        {send}
      </button>
      <button type="button" className="action-quiet" onClick={onLeave}>
        {leave}
      </button>
    </div>
  );
}

/** What is typed to find one of a list, at once and without a key to send it. */
export function SearchField({
  label,
  value,
  onChange,
  className = '',
  ...rest
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
} & Pick<InputHTMLAttributes<HTMLInputElement>, 'className' | 'placeholder' | 'autoFocus' | 'onKeyDown'>) {
  return (
    <input
      className={`field ${className}`}
      type="search"
      aria-label={label}
      value={value}
      maxLength={60}
      onChange={(e) => onChange(e.target.value)}
      {...rest}
    />
  );
}
