import { useMemo, useState } from 'react';
import { Popover } from 'radix-ui';
import { FindAndChoose } from '../../parts/FindAndChoose.js';
import { measuresOf } from '../../parts/measureFinder.js';
import { Pane } from '../../parts/Pane.js';
import { BODY_MASS, type MeasureStep, say } from '@heathstep/core';
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
      <Popover.Trigger className="text-action mt-3 min-h-11">{say('Add a measure')}</Popover.Trigger>
      <Pane aria-label={say('Add a measure')} className="w-96 p-3">
        <FindAndChoose
          label={say('Find a measure')}
          placeholder={say('name, region or short name')}
          asked={query}
          onAsked={setQuery}
          found={found}
          keyOf={(m) => m.key}
          onChoose={(m) => add(m.key)}
          rowClass="flex items-baseline justify-between gap-3 px-2 py-2"
          row={(m) => (
            <>
              <span>{m.label}</span>
              <span className="text-sm text-ink-2">{m.brief}</span>
            </>
          )}
          nothing={say('No other measure of that name.')}
        />
      </Pane>
    </Popover.Root>
  );
}
