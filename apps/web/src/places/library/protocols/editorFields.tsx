import { say } from '@heathstep/core';
import { type ReactNode, useState } from 'react';
import { TextField } from '../../../parts/fields.js';

/** A whole number that is taken as soon as it is one within its bounds; anything else stays to be put right. */
export function NumberField({
  label,
  value,
  max,
  min = 0,
  step = 1,
  onChange,
}: {
  label: string;
  value: number;
  max: number;
  min?: number;
  step?: number;
  onChange: (value: number) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const read = (text: string): number | null => {
    const number = Number(text.replace(',', '.'));
    const fits = text.trim() !== '' && Number.isFinite(number) && number >= min && number <= max;
    return fits && (step < 1 || Number.isInteger(number)) ? number : null;
  };
  const wrong = typed !== null && read(typed) === null;
  return (
    <TextField
      label={label}
      field="field w-20 text-right"
      inputMode="decimal"
      maxLength={6}
      value={typed ?? String(value)}
      error={wrong ? say('From {{min}} to {{max}}', { min, max }) : null}
      onBlur={() => {
        if (!wrong) setTyped(null);
      }}
      onChange={(text) => {
        setTyped(text);
        const number = read(text);
        if (number !== null && number !== value) onChange(number);
      }}
    />
  );
}

/** A sign to press, with its words for a screen reader. */
export function IconButton({
  label,
  disabled,
  press,
  children,
}: {
  label: string;
  disabled: boolean;
  press: () => void;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      disabled={disabled}
      className="inline-flex size-11 items-center justify-center text-ink-2 hover:text-heather-deep disabled:opacity-40"
      onClick={press}
    >
      {children}
    </button>
  );
}
