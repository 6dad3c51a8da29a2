import { say } from '@heathstep/core';
import { type ReactNode, useId, useState } from 'react';

interface FindAndChooseProps<T> {
  readonly label: string;
  readonly placeholder: string;
  readonly asked: string;
  readonly onAsked: (asked: string) => void;
  /** What answers to what was asked, in the order shown. */
  readonly found: readonly T[];
  readonly keyOf: (item: T) => string;
  readonly row: (item: T, before: T | undefined) => ReactNode;
  readonly onChoose: (item: T) => void;
  /** Shown with its reason and read out, but not to be had. */
  readonly isOff?: (item: T) => boolean;
  /** Said where nothing was found. */
  readonly nothing: ReactNode;
  readonly fieldClass?: string;
  readonly listClass?: string;
  readonly rowClass?: string;
}

/**
 * One of many, found by typing and taken: arrows walk what was found, Enter takes the one marked (the first, if none was
 * walked to), a press takes any. The field keeps the focus all the while.
 */
export function FindAndChoose<T>(props: FindAndChooseProps<T>) {
  const { label, asked, found, keyOf, onChoose } = props;
  const [picked, setPicked] = useState(0);
  const listId = useId();
  const isOff = props.isOff ?? (() => false);
  const at = Math.min(picked, found.length - 1);
  const idOf = (i: number) => `${listId}-${i}`;
  const walk = (to: number) => {
    const next = Math.max(0, Math.min(found.length - 1, to));
    setPicked(next);
    document.getElementById(idOf(next))?.scrollIntoView({ block: 'nearest' });
  };
  const take = (item: T | undefined) => {
    if (item !== undefined && !isOff(item)) onChoose(item);
  };
  return (
    <>
      <input
        className={props.fieldClass ?? 'field'}
        role="combobox"
        aria-label={label}
        aria-expanded={found.length > 0}
        aria-controls={listId}
        aria-autocomplete="list"
        aria-activedescendant={found.length > 0 ? idOf(at) : undefined}
        placeholder={props.placeholder}
        value={asked}
        maxLength={80}
        autoFocus
        autoComplete="off"
        spellCheck={false}
        onChange={(event) => {
          props.onAsked(event.target.value);
          setPicked(0);
        }}
        onKeyDown={(event) => {
          if (event.key === 'ArrowDown') walk(at + 1);
          else if (event.key === 'ArrowUp') walk(at - 1);
          else if (event.key === 'Enter') take(found[at]);
          else return;
          event.preventDefault();
        }}
      />
      <ul
        id={listId}
        role="listbox"
        aria-label={say('Found')}
        className={`overflow-y-auto ${props.listClass ?? 'mt-2 max-h-72'}`}
        tabIndex={-1}
      >
        {found.map((item, i) => (
          <li
            key={keyOf(item)}
            id={idOf(i)}
            role="option"
            aria-selected={i === at}
            aria-disabled={isOff(item) || undefined}
            className={`min-h-11 rounded ${isOff(item) ? 'cursor-not-allowed' : 'cursor-pointer hover:bg-heather-wash'} ${i === at ? 'bg-heather-wash' : ''} ${props.rowClass ?? 'flex items-baseline gap-3 px-3 py-2'}`}
            onPointerDown={(event) => event.preventDefault()}
            onClick={() => take(item)}
          >
            {props.row(item, found[i - 1])}
          </li>
        ))}
      </ul>
      {found.length === 0 && (
        <div className="p-2 text-ink-2" role="status">
          {props.nothing}
        </div>
      )}
    </>
  );
}
