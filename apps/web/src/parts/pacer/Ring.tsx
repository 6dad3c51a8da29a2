import type { ReactNode } from 'react';

const R = 92;
const AROUND = 2 * Math.PI * R;

/** How far a beat has come, as a closing circle. */
export function Ring({ share, rest, children }: { share: number; rest: boolean; children: ReactNode }) {
  return (
    <div className="relative size-48">
      <svg viewBox="0 0 220 220" className="size-full -rotate-90" aria-hidden>
        <circle cx="110" cy="110" r={R} fill="none" stroke="var(--color-line)" strokeWidth="15" />
        <circle
          cx="110"
          cy="110"
          r={R}
          fill="none"
          stroke={rest ? 'var(--color-ink-3)' : 'var(--color-heather)'}
          strokeWidth="15"
          strokeLinecap="round"
          strokeDasharray={`${Math.max(0.001, Math.min(1, share)) * AROUND} ${AROUND}`}
        />
      </svg>
      <div className="absolute inset-0 flex flex-col items-center justify-center">{children}</div>
    </div>
  );
}
