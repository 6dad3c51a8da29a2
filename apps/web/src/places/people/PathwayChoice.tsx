import { say } from '@heathstep/core';
import { SearchField } from '../../parts/fields.js';
import { RadioGroup } from 'radix-ui';
import { useMemo, useState } from 'react';
import type { Pathway } from '@heathstep/content';
import { useArrowChoice } from '../../parts/RadioRow.js';
import { pathwaysOf } from './pathways.js';

/** What brings someone: found by plain words and by the clinician's own; nothing is chosen beforehand. */
export function PathwayChoice({
  pathways,
  value,
  onChange,
}: {
  pathways: readonly Pathway[];
  value: string;
  onChange: (key: string) => void;
}) {
  const [asked, setAsked] = useState('');
  const arrows = useArrowChoice();
  const find = useMemo(() => pathwaysOf(pathways), [pathways]);
  const found = find(asked);
  return (
    <>
      <SearchField
        className="mt-2 max-w-md"
        label={say('Find a complaint')}
        placeholder={say('Find by any name: heel, PTTD, metatarsalgia')}
        value={asked}
        onChange={setAsked}
      />
      {found.length === 0 && (
        <p className="mt-3 text-ink-2" role="status">
          {say(
            'None of that name. Begin with “foot or ankle complaint”: the visit looks at everything common.',
          )}
        </p>
      )}
      <RadioGroup.Root
        aria-label={say('What brings them')}
        className="mt-2"
        value={value}
        onValueChange={onChange}
        onKeyDownCapture={arrows.onKeyDownCapture}
      >
        {found.map((c) => (
          <RadioGroup.Item
            key={c.key}
            value={c.key}
            onFocus={() => arrows.focused(() => onChange(c.key))}
            className={`flex min-h-11 w-full items-baseline gap-3 border-b border-line-2 px-2 py-2 text-left ${c.key === value ? 'bg-heather-wash' : 'hover:bg-heather-wash'}`}
          >
            <span
              aria-hidden
              className="flex size-4 shrink-0 translate-y-0.5 items-center justify-center rounded-full border-2 border-ink-2"
            >
              <RadioGroup.Indicator className="size-2 rounded-full bg-heather" />
            </span>
            <span className="w-56 font-semibold">{c.name}</span>
            <span className="flex-1 text-sm">
              <span className="text-ink-2">{c.gloss}</span>
              {c.protocol !== null && <span className="block text-ink-3">{c.also.join(', ')}</span>}
            </span>
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
    </>
  );
}
