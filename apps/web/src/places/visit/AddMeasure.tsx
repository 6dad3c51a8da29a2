import { SearchField } from '../../parts/fields.js';
import { useMemo, useState } from 'react';
import { Popover } from 'radix-ui';
import { measuresOf } from '../../parts/measureFinder.js';
import { Pane } from '../../parts/Pane.js';
import { BODY_MASS, type MeasureStep } from '@heathstep/core';
import type { LiveVisit } from './live.js';

/** Any measure of the library or the clinic's own, found by its name and added to this visit. */
export function AddMeasure({ live, step }: { live: LiveVisit; step: MeasureStep }) {
  const [open, setOpen] = useState(false);
  const [query, setQuery] = useState('');
  const here = new Set(live.measures.map((m) => m.key));
  const find = useMemo(() => measuresOf(live.content.measures), [live.content.measures]);
  const found = find(query)
    .filter((m) => m.computed === null && !here.has(m.key) && m.key !== BODY_MASS)
    .filter((m) => query.trim() !== '' || m.step === step);
  const add = (key: string) => {
    live.set('visit.measures', [...(live.get('visit.measures') ?? []), key]);
    setQuery('');
    setOpen(false);
  };
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="text-action mt-3 min-h-11">Add a measure</Popover.Trigger>
      <Pane aria-label="Add a measure" className="w-96 p-3">
        <SearchField
          label="Find a measure"
          placeholder="name, region or short name"
          value={query}
          onChange={setQuery}
          onKeyDown={(e) => {
            const [first] = found;
            if (e.key === 'Enter' && first !== undefined) add(first.key);
          }}
          autoFocus
        />
        <ul className="mt-2 max-h-72 overflow-y-auto">
          {found.map((m) => (
            <li key={m.key}>
              <button
                type="button"
                className="flex min-h-11 w-full items-baseline justify-between gap-3 rounded px-2 text-left hover:bg-heather-wash"
                onClick={() => add(m.key)}
              >
                <span>{m.label}</span>
                <span className="text-sm text-ink-2">{m.brief}</span>
              </button>
            </li>
          ))}
          {found.length === 0 && <li className="p-2 text-ink-2">No other measure of that name.</li>}
        </ul>
      </Pane>
    </Popover.Root>
  );
}
