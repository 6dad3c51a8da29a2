import type { ReactNode } from 'react';

/** A ring that fills, with a figure in it. */
export function Ring({ share, colour, children }: { share: number; colour: string; children: ReactNode }) {
  const around = 2 * Math.PI * 30;
  return (
    <div className="relative grid size-20 shrink-0 place-items-center">
      <svg viewBox="0 0 68 68" className="absolute inset-0 -rotate-90" aria-hidden>
        <circle cx="34" cy="34" r="30" fill="none" stroke="var(--color-line)" strokeWidth="5" />
        <circle
          cx="34"
          cy="34"
          r="30"
          fill="none"
          stroke={colour}
          strokeWidth="5"
          strokeDasharray={around}
          strokeDashoffset={around * (1 - Math.min(1, Math.max(0, share)))}
        />
      </svg>
      <span className="relative text-2xl font-bold">{children}</span>
    </div>
  );
}

export const sideColour = (side: 'left' | 'right' | 'none'): string =>
  side === 'none' ? 'var(--color-ink)' : `var(--color-${side})`;
