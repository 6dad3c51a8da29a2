import { SIDES, type Side, say } from '@heathstep/core';
import { RadioRow } from './RadioRow.js';

const OPTIONS = SIDES.map((side) => ({ value: side, word: say(side) }));

/** Left or right, in the colours of the sides. */
export function SideSwitch({
  side,
  onChange,
  label,
}: {
  side: Side;
  onChange: (side: Side) => void;
  label: string;
}) {
  return (
    <RadioRow
      label={label}
      className="flex gap-1"
      value={side}
      options={OPTIONS}
      onChange={onChange}
      itemClass={(_, on) =>
        `min-h-11 border-b-2 px-4 font-semibold ${on ? 'text-paper' : 'border-line text-ink-2'}`
      }
      itemStyle={(s, on) =>
        on ? { background: `var(--color-${s})`, borderColor: `var(--color-${s})` } : undefined
      }
    />
  );
}
