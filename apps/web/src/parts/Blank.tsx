import { say } from '@heathstep/core';
import { Popover } from 'radix-ui';
import { Pane } from './Pane.js';
import { useId, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';

/** A gap in a sentence that opens to be filled; reads as plain text once it is. */
function Gap({
  label,
  prompt,
  text,
  ends,
  children,
  open,
  setOpen,
}: {
  label: string;
  prompt?: string;
  text: string | null;
  ends?: string | undefined;
  children: ReactNode;
  open: boolean;
  setOpen: (open: boolean) => void;
}) {
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        aria-label={`${label}: ${text ?? say('not answered')}`}
        className={`inline rounded-[1px] text-left underline decoration-2 underline-offset-[5px] hover:bg-heather-wash hover:shadow-[0_0_0_3px_var(--color-heather-wash)] ${text === null ? 'text-ink-3 decoration-ink-3 decoration-dotted' : 'font-semibold decoration-heather decoration-dotted'}`}
      >
        {text ?? prompt ?? label}
        {ends !== undefined && (
          <span aria-hidden className="inline-block font-normal text-ink no-underline">
            {ends}
          </span>
        )}
      </Popover.Trigger>
      <Pane aria-label={label} className="p-3">
        {children}
      </Pane>
    </Popover.Root>
  );
}

export interface Option<T extends string> {
  readonly value: T;
  readonly label: string;
}

const optionClass = (chosen: boolean): string =>
  `flex min-h-11 w-full items-center gap-2 rounded px-3 text-left hover:bg-heather-wash focus-visible:bg-heather-wash ${chosen ? 'bg-heather-wash font-semibold text-heather-deep' : ''}`;

/** Up and down move between the options of an open gap. */
function roam(event: KeyboardEvent<HTMLDivElement>): void {
  const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
  if (step === 0) return;
  event.preventDefault();
  const buttons = [...event.currentTarget.querySelectorAll<HTMLElement>('button')];
  const at = buttons.indexOf(document.activeElement as HTMLElement);
  buttons[(at + step + buttons.length) % buttons.length]?.focus();
}

export function ChoiceBlank<T extends string>({
  label,
  prompt,
  value,
  options,
  onChange,
}: {
  label: string;
  prompt?: string;
  value: T | null;
  options: readonly Option<T>[];
  onChange: (value: T | null) => void;
}) {
  const [open, setOpen] = useState(false);
  const text = options.find((o) => o.value === value)?.label ?? null;
  return (
    <Gap
      label={label}
      {...(prompt === undefined ? {} : { prompt })}
      text={text}
      open={open}
      setOpen={setOpen}
    >
      <div className="min-w-52" onKeyDown={roam}>
        {options.map((o) => (
          <button
            key={o.value}
            type="button"
            aria-pressed={o.value === value}
            className={optionClass(o.value === value)}
            onClick={() => {
              onChange(o.value === value ? null : o.value);
              setOpen(false);
            }}
          >
            {o.label}
          </button>
        ))}
      </div>
    </Gap>
  );
}

export function ListBlank<T extends string>({
  label,
  value,
  options,
  none,
  ends,
  onChange,
}: {
  label: string;
  value: readonly string[] | null;
  options: readonly Option<T>[];
  none: string;
  /** What ends the sentence after it, kept on the last line of a long list. */
  ends?: string;
  onChange: (value: string[] | null) => void;
}) {
  const [open, setOpen] = useState(false);
  const chosen = value ?? [];
  const names = options.filter((o) => chosen.includes(o.value)).map((o) => o.label);
  const text =
    value === null
      ? null
      : names.length === 0
        ? none
        : names.length < 2
          ? names.join('')
          : say('{{list}} and {{names}}', {
              list: names.slice(0, -1).join(', '),
              names: names[names.length - 1] ?? '',
            });
  const toggle = (item: string) =>
    onChange(
      chosen.includes(item)
        ? chosen.filter((c) => c !== item)
        : [...chosen.filter((c) => c !== 'none'), item],
    );
  return (
    <Gap label={label} text={text} ends={ends} open={open} setOpen={setOpen}>
      <div className="min-w-56" onKeyDown={roam}>
        {options.map((o) => (
          <button
            key={o.value}
            type="button"
            aria-pressed={chosen.includes(o.value)}
            className={optionClass(chosen.includes(o.value))}
            onClick={() => toggle(o.value)}
          >
            <span
              aria-hidden
              className={`size-4 rounded-sm border-2 ${chosen.includes(o.value) ? 'border-heather bg-heather' : 'border-ink-3'}`}
            />
            {o.label}
          </button>
        ))}
        <button
          type="button"
          aria-pressed={value?.includes('none') === true}
          className={optionClass(value?.includes('none') === true)}
          onClick={() => {
            onChange(['none']);
            setOpen(false);
          }}
        >
          {none}
        </button>
      </div>
    </Gap>
  );
}

const TEN_WITHIN_MS = 900;

/** Eleven large keys, 0 to 10; digits on the keyboard work too. */
export function ScoreKeys({
  value,
  onChange,
  label,
  low,
  high,
}: {
  value: number | null;
  onChange: (value: number | null) => void;
  label: string;
  low: string;
  high: string;
}) {
  const oneAt = useRef(-TEN_WITHIN_MS);
  return (
    <div role="group" aria-label={label}>
      <div
        className="flex"
        onKeyDown={(event) => {
          if (/^\d$/.test(event.key)) {
            // A nought soon after a one makes ten; later it is a nought.
            const ten = event.key === '0' && value === 1 && event.timeStamp - oneAt.current < TEN_WITHIN_MS;
            if (event.key === '1') oneAt.current = event.timeStamp;
            onChange(ten ? 10 : Number(event.key));
          }
          const step = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
          if (step !== 0) {
            const buttons = [...event.currentTarget.querySelectorAll('button')];
            buttons[
              Math.min(10, Math.max(0, buttons.indexOf(document.activeElement as HTMLButtonElement) + step))
            ]?.focus();
          }
        }}
      >
        {Array.from({ length: 11 }, (_, n) => (
          <button
            key={n}
            type="button"
            aria-pressed={value === n}
            aria-label={`${label} ${n}`}
            className={`min-h-11 w-9 border-b-2 font-semibold pointer-coarse:w-11 first:rounded-l last:rounded-r ${value === n ? 'border-ink bg-ink text-paper' : 'border-line hover:border-heather hover:bg-heather-wash'}`}
            onClick={() => onChange(value === n ? null : n)}
          >
            {n}
          </button>
        ))}
      </div>
      <div className="mt-1 flex justify-between text-xs text-ink-3" aria-hidden>
        <span>{low}</span>
        <span>{high}</span>
      </div>
    </div>
  );
}

export function ScoreBlank({
  label,
  prompt = say('how much'),
  value,
  onChange,
  low = say('none'),
  high = say('worst'),
}: {
  label: string;
  prompt?: string;
  value: number | null;
  onChange: (value: number | null) => void;
  low?: string;
  high?: string;
}) {
  const [open, setOpen] = useState(false);
  return (
    <Gap
      label={label}
      prompt={prompt}
      text={value === null ? null : String(value)}
      open={open}
      setOpen={setOpen}
    >
      <ScoreKeys
        label={label}
        value={value}
        low={low}
        high={high}
        onChange={(v) => {
          onChange(v);
          setOpen(false);
        }}
      />
    </Gap>
  );
}

export function NumberBlank({
  label,
  value,
  unit,
  min,
  max,
  onChange,
}: {
  label: string;
  value: number | null;
  unit: string;
  min: number;
  max: number;
  onChange: (value: number | null) => void;
}) {
  const [open, setOpen] = useState(false);
  const [text, setText] = useState('');
  const [error, setError] = useState<string | null>(null);
  const errorId = useId();
  const finish = () => {
    const trimmed = text.trim().replace(',', '.');
    const number = Number(trimmed);
    if (trimmed === '') onChange(null);
    else if (!/^\d{1,4}(\.\d+)?$/.test(trimmed) || number < min || number > max) {
      setError(say('A number from {{min}} to {{max}}', { min, max }));
      return;
    } else onChange(number);
    setOpen(false);
  };
  return (
    <Gap
      label={label}
      text={value === null ? null : `${value} ${unit}`}
      open={open}
      setOpen={(next) => {
        setText(value === null ? '' : String(value));
        setError(null);
        setOpen(next);
      }}
    >
      <form
        className="flex items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          finish();
        }}
      >
        <label className="block">
          <span className="text-sm text-ink-2">
            {label}, {unit}
          </span>
          <input
            className="field w-28 text-xl font-semibold"
            inputMode="decimal"
            value={text}
            maxLength={8}
            aria-invalid={error !== null}
            aria-describedby={errorId}
            onChange={(e) => setText(e.target.value)}
            autoFocus
          />
          <span id={errorId} role="alert" className="block min-h-5 text-sm text-ease-deep">
            {error}
          </span>
        </label>
        <button type="submit" className="action-quiet mb-5">
          {say('Keep')}
        </button>
      </form>
    </Gap>
  );
}
