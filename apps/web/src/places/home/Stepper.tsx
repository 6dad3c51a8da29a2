import { useReader } from './tongue.js';

/** A number with large keys to either side. */
export function Stepper({
  label,
  value,
  step,
}: {
  label: string;
  value: number | null;
  step: (by: number) => void;
}) {
  const t = useReader();
  return (
    <div className="flex items-center justify-between py-1" role="group" aria-label={label}>
      <span className="text-base">{label}</span>
      <span className="flex items-center gap-3">
        <button
          type="button"
          className="size-11 rounded-lg border-2 border-line text-2xl leading-none"
          aria-label={t.say('{{label}}: one less', { label })}
          onClick={() => step(-1)}
        >
          −
        </button>
        <span className="min-w-8 text-center text-xl font-bold" aria-live="polite">
          {value ?? '–'}
        </span>
        <button
          type="button"
          className="size-11 rounded-lg border-2 border-line text-2xl leading-none"
          aria-label={t.say('{{label}}: one more', { label })}
          onClick={() => step(1)}
        >
          +
        </button>
      </span>
    </div>
  );
}
