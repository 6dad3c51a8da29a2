import { say } from '@heathstep/core';
import { X } from 'lucide-react';
import { useSyncExternalStore } from 'react';

/** The few things that are told once, and never again after they were used. */
const HINTS = {
  line: say(
    'A measure can be typed in the line above, left and right at once: lunge l 34 35 33 r 38. The key / goes there.',
  ),
  dose: say('Every number of a dose can be dragged, stepped with the arrow keys, or typed over.'),
  why: say('Dotted underlined words open up: what went in, the rule, the sum and its source.'),
} as const;
export type HintKey = keyof typeof HINTS;

const STORED = 'heathstep.hints.used';
const listeners = new Set<() => void>();
/** Where the device keeps nothing they are told once a page. */
let used: readonly string[] | null = null;

function usedHints(): readonly string[] {
  if (used !== null) return used;
  try {
    used = (localStorage.getItem(STORED) ?? '').split(' ').filter((k) => k !== '');
  } catch {
    used = [];
  }
  return used;
}

/** What a hint tells of was done, or the hint put away: it is never shown again on this device. */
export function hintUsed(key: HintKey): void {
  if (usedHints().includes(key)) return;
  used = [...usedHints(), key];
  try {
    localStorage.setItem(STORED, used.join(' '));
  } catch {
    // It stays away for as long as the page is open.
  }
  for (const listener of listeners) listener();
}

/** One quiet line for someone new, until it is used or put away. */
export function Hint({ of }: { of: HintKey }) {
  const shown = useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => !usedHints().includes(of),
  );
  if (!shown) return null;
  return (
    <p className="no-print my-2 flex items-center gap-3 border-l-2 border-heather bg-heather-wash py-1 pl-3 text-sm">
      <span className="flex-1">{HINTS[of]}</span>
      <button
        type="button"
        className="inline-flex size-11 shrink-0 items-center justify-center text-ink-2 hover:text-ink"
        aria-label={say('Put this hint away')}
        onClick={() => hintUsed(of)}
      >
        <X className="size-4" aria-hidden />
      </button>
    </p>
  );
}
