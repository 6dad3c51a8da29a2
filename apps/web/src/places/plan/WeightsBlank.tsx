import { Popover } from 'radix-ui';
import { Pane } from '../../parts/Pane.js';
import { useState } from 'react';
import { shown, say } from '@heathstep/core';
import { useContent } from '../../api/queries.js';
import { weightsOf } from './weights.js';

/** The weights a person has at home, as a gap in the sentence: dose steps up in these and no others. */
export function WeightsBlank({
  value,
  onChange,
}: {
  value: readonly number[];
  onChange: (weights: readonly number[]) => void;
}) {
  const content = useContent();
  const [open, setOpen] = useState(false);
  const [text, setText] = useState('');
  const read = weightsOf(text);
  const keep = () => {
    if (read.problem !== null) return;
    onChange(read.weights);
    setOpen(false);
  };
  const words =
    value.length === 0 ? say('none') : say('{{list}} kg', { list: value.map((v) => shown(v, 2)).join(', ') });
  return (
    <Popover.Root
      open={open}
      onOpenChange={(next) => {
        if (next) setText(value.map((v) => shown(v, 2)).join(', '));
        setOpen(next);
      }}
    >
      <Popover.Trigger
        aria-label={say('weights at home: {{words}}', { words })}
        className="inline rounded-[1px] text-left font-semibold underline decoration-heather decoration-dotted decoration-2 underline-offset-[5px] hover:bg-heather-wash"
      >
        {words}
      </Popover.Trigger>
      <Pane aria-label={say('weights at home')} className="w-80 p-3">
        <form
          onSubmit={(e) => {
            e.preventDefault();
            keep();
          }}
        >
          <label className="block">
            <span className="text-sm text-ink-2">{say('Kilograms, with commas between')}</span>
            <input
              className="field"
              inputMode="decimal"
              placeholder="1, 2, 4"
              value={text}
              maxLength={80}
              aria-invalid={read.problem !== null}
              onChange={(e) => setText(e.target.value)}
              autoFocus
            />
          </label>
          <p role="alert" className="min-h-6 text-sm text-ease-deep">
            {read.problem ?? ''}
          </p>
          <p className="text-sm text-ink-2">
            {say('Stand-ins, about: {{list}}.', {
              list: (content.data?.standIns ?? [])
                .flatMap((s) =>
                  s.kg === null
                    ? []
                    : [say('{{name}} {{value}} kg', { name: s.name.toLowerCase(), value: shown(s.kg[0]) })],
                )
                .slice(0, 3)
                .join('; '),
            })}
          </p>
          <button type="submit" className="action mt-2 min-h-11" disabled={read.problem !== null}>
            {say('Keep')}
          </button>
        </form>
      </Pane>
    </Popover.Root>
  );
}
