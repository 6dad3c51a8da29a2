import { say } from '@heathstep/core';
import { X } from 'lucide-react';
import type { Adjunct } from '@heathstep/core';
import { TextField } from '../../../parts/fields.js';
import { IconButton, NumberField } from './editorFields.js';

type Weaning = NonNullable<Adjunct['weaning']>;

const EMPTY_WEANING: Weaning = { fromWeek: 4, goneByWeek: 8, text: 'An hour less every third day' };

/** What is worn, done or left off beside the exercises, each with how much and how it ends. */
export function AdjunctsEditor({
  adjuncts,
  change,
}: {
  adjuncts: readonly Adjunct[];
  change: (adjuncts: readonly Adjunct[]) => void;
}) {
  const put = (at: number, part: Partial<Adjunct>) =>
    change(adjuncts.map((a, i) => (i === at ? { ...a, ...part } : a)));
  const add = () => {
    const free = (n: number): string =>
      adjuncts.some((a) => a.key === `beside-${n}`) ? free(n + 1) : `beside-${n}`;
    change([...adjuncts, { key: free(1), text: 'A brace', reason: 'Holds', dose: null, weaning: null }]);
  };
  return (
    <section aria-label={say('Beside the exercises')} className="mt-6">
      <h2 className="text-lg">{say('Beside the exercises')}</h2>
      <ul className="border-t border-line-2">
        {adjuncts.map((a, i) => (
          <li
            key={a.key}
            className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_2.75rem] items-end gap-x-4 gap-y-1 border-b border-line-2 py-2"
          >
            <TextField label={say('What')} value={a.text} onChange={(text) => put(i, { text })} />
            <TextField label={say('Why')} value={a.reason} onChange={(reason) => put(i, { reason })} />
            <IconButton
              label={say('Take out {{text}}', { text: a.text })}
              disabled={false}
              press={() => change(adjuncts.filter((_, n) => n !== i))}
            >
              <X className="size-4" aria-hidden />
            </IconButton>
            <TextField
              label={say('How much, or empty')}
              value={a.dose ?? ''}
              onChange={(dose) => put(i, { dose: dose === '' ? null : dose })}
            />
            <Ends adjunct={a} put={(weaning) => put(i, { weaning })} />
          </li>
        ))}
      </ul>
      <button type="button" className="action-quiet mt-2" onClick={add}>
        {say('Add something beside')}
      </button>
    </section>
  );
}

/** When it grows less and is gone, in weeks from the start of the protocol. */
function Ends({
  adjunct: { text, weaning },
  put,
}: {
  adjunct: Adjunct;
  put: (weaning: Weaning | null) => void;
}) {
  if (weaning === null)
    return (
      <button
        type="button"
        className="text-action min-h-11 text-left text-sm"
        onClick={() => put(EMPTY_WEANING)}
      >
        {say('It stays; let it end')}
      </button>
    );
  const { goneByWeek } = weaning;
  return (
    <div className="col-span-2 flex flex-wrap items-end gap-3">
      <NumberField
        label={say('Less from week')}
        max={104}
        value={weaning.fromWeek}
        onChange={(fromWeek) => put({ ...weaning, fromWeek })}
      />
      <NumberField
        label={say('Gone by week')}
        max={104}
        value={goneByWeek ?? weaning.fromWeek}
        onChange={(week) => put({ ...weaning, goneByWeek: week })}
      />
      <TextField
        className="min-w-56 flex-1"
        label={say('How')}
        value={weaning.text}
        onChange={(how) => put({ ...weaning, text: how })}
      />
      <IconButton label={say('{{text}} stays', { text })} disabled={false} press={() => put(null)}>
        <X className="size-4" aria-hidden />
      </IconButton>
    </div>
  );
}
