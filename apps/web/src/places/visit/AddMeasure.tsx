import { useMemo, useState } from 'react';
import { Popover } from 'radix-ui';
import { FindAndChoose } from '../../parts/FindAndChoose.js';
import { measuresOf } from '../../parts/measureFinder.js';
import { Pane } from '../../parts/Pane.js';
import { BODY_MASS, measuresIn, type MeasureStep, say } from '@heathstep/core';
import type { LiveVisit } from './live.js';

/** What is measured to leave each stage of the protocol, as far as it is not in this visit yet: one press takes all of it. */
function batteriesOf({ protocol, content, measures: here }: LiveVisit) {
  return protocol.stages.flatMap((stage) => {
    const keys = [...new Set(measuresIn(stage.criteria))];
    const measures = keys
      .filter((key) => here.every((m) => m.key !== key))
      .flatMap((key) => content.measures.find((m) => m.key === key && m.computed === null) ?? []);
    return measures.length < 2 ? [] : [{ stage, measures }];
  });
}

/** Any measure of the library or the clinic's own, found by its name and added to this visit. */
export function AddMeasure({ live, step }: { live: LiveVisit; step: MeasureStep }) {
  const [open, setOpen] = useState(false);
  const [query, setQuery] = useState('');
  const here = new Set(live.measures.map((m) => m.key));
  const find = useMemo(() => measuresOf(live.content.measures), [live.content.measures]);
  const found = find(query)
    .filter((m) => m.computed === null && !here.has(m.key) && m.key !== BODY_MASS)
    .filter((m) => query.trim() !== '' || m.step === step);
  const add = (...keys: readonly string[]) => {
    live.set('visit.measures', [...(live.get('visit.measures') ?? []), ...keys]);
    setQuery('');
    setOpen(false);
  };
  const batteries = batteriesOf(live);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="text-action mt-3 min-h-11">{say('Add a measure')}</Popover.Trigger>
      <Pane aria-label={say('Add a measure')} className="w-96 p-3">
        {batteries.length > 0 && (
          <section
            aria-label={say('The tests of a stage, together')}
            className="mb-2 border-b border-line pb-2"
          >
            {batteries.map(({ stage, measures }) => (
              <button
                key={stage.key}
                type="button"
                className="block min-h-11 w-full rounded px-2 py-1 text-left hover:bg-line-2"
                onClick={() => add(...measures.map((m) => m.key))}
              >
                <b>{say('All to leave {{stage}}', { stage: stage.name })}</b>{' '}
                <span className="text-sm text-ink-2">
                  {measures.map((m) => m.label.toLowerCase()).join(', ')}
                </span>
              </button>
            ))}
          </section>
        )}
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
