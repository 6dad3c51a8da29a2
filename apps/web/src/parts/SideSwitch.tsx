import type { Side } from '@heathstep/core';

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
    <div className="flex gap-1" role="group" aria-label={label}>
      {(['left', 'right'] as const).map((s) => (
        <button
          key={s}
          type="button"
          aria-pressed={side === s}
          className={`min-h-11 border-b-2 px-4 font-semibold ${side === s ? 'text-paper' : 'border-line text-ink-2'}`}
          style={
            side === s ? { background: `var(--color-${s})`, borderColor: `var(--color-${s})` } : undefined
          }
          onClick={() => onChange(s)}
        >
          {s}
        </button>
      ))}
    </div>
  );
}
