import { say } from '@heathstep/core';
import { Check, CircleDashed, Minus, RotateCcw } from 'lucide-react';
import type { ComponentType } from 'react';

export type Tone = 'go' | 'hold' | 'ease' | 'unknown';

const CLASSES: Record<Tone, string> = {
  go: 'bg-go-wash text-go-deep',
  hold: 'bg-hold-wash text-hold-deep',
  ease: 'bg-ease-wash text-ease-deep',
  unknown: 'bg-line-2 text-ink-2',
};

const ICONS: Record<Tone, ComponentType<{ className?: string }>> = {
  go: Check,
  hold: Minus,
  ease: RotateCcw,
  unknown: CircleDashed,
};

/** A judgement is never colour alone: a colour, an icon and a word. */
export function Judgement({
  tone,
  children,
  icon: Icon = ICONS[tone],
}: {
  tone: Tone;
  children: string;
  icon?: ComponentType<{ className?: string }>;
}) {
  return (
    <span
      className={`inline-flex items-center gap-1.5 rounded px-2 py-0.5 text-sm font-semibold ${CLASSES[tone]}`}
    >
      <Icon className="size-4 shrink-0" aria-hidden />
      {children}
    </span>
  );
}

export const DECISION_WORDS: Record<string, { readonly text: string; readonly tone: Tone }> = {
  progress: { text: say('Progress'), tone: 'go' },
  'adjust-dose': { text: say('Change the dose'), tone: 'hold' },
  hold: { text: say('Hold'), tone: 'hold' },
  'hold-and-retest': { text: say('Hold and re-test'), tone: 'hold' },
  'look-again': { text: say('Look again'), tone: 'hold' },
  'ease-back': { text: say('Ease back'), tone: 'ease' },
  refer: { text: say('Refer'), tone: 'ease' },
};

/** A word with an upper-case start. */
export const sentence = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** The colour of a change in words: better, worse, or neither. */
export const changeTone = (direction: string): string =>
  direction === 'better' ? 'text-go-deep' : direction === 'worse' ? 'text-ease-deep' : 'text-ink-2';
