import { say } from '@heathstep/core';
import type { ProtocolDefinition } from '@heathstep/core';
import type { LookPanel } from '@heathstep/content';
import { type Entries, POSES } from '@heathstep/contracts';

export const STEPS = ['story', 'safety', 'look', 'measure', 'load', 'feel', 'conclude'] as const;
export type Step = (typeof STEPS)[number];

export const STEP_NAMES: Record<Step, string> = {
  story: say('Story'),
  safety: say('Safety'),
  look: say('Look'),
  measure: say('Measure'),
  load: say('Load'),
  feel: say('Feel'),
  conclude: say('Conclude'),
};

export interface Progress {
  readonly done: boolean;
  readonly text: string;
  /** How much of it is there, 0 to 1. */
  readonly share: number;
}

/** How far a step is, in words; a skipped step is done, and says so. */
export function stepText(done: number, of: number, skipped: string | null): Progress {
  if (skipped !== null) return { done: true, text: say('skipped'), share: 1 };
  if (of === 0) return { done: true, text: say('nothing wanted'), share: 1 };
  return {
    done: done === of,
    text: done === of ? say('all {{of}}', { of }) : say('{{done}} of {{of}}', { done, of }),
    share: done / of,
  };
}

/** How far what is asked and felt by choice is: nothing is wanted of it, and its sole is empty until something was. */
export const askedText = (answered: number): Progress =>
  answered === 0
    ? { done: true, text: say('as needed'), share: 0 }
    : { done: true, text: say('{{answered}} answered', { answered }), share: 1 };

/** Whether anything of a drawing has been marked, both sides counting as one. */
export function panelDone(panel: LookPanel, entries: Entries): boolean {
  if (panel === 'pain') return (entries.get('story.regions') ?? []).length > 0;
  if (panel === 'points')
    return POSES.some(
      ([pose]) => entries.has(`look.points.${pose}.left`) && entries.has(`look.points.${pose}.right`),
    );
  return entries.has(`look.${panel}.left`) || entries.has(`look.${panel}.right`);
}

/** A stage is chosen where the condition has a protocol. */
export const needsStage = (protocol: ProtocolDefinition): boolean => protocol.stages.length > 0;
