import type { Aim } from '../exercise/definition.js';
import type { Adjunct, ProtocolDefinition, Slot, Stage } from './definition.js';

type WrittenSlot = Omit<Slot, 'aim' | 'priority' | 'sideRule'> &
  Partial<Pick<Slot, 'aim' | 'priority' | 'sideRule'>>;

type WrittenAdjunct = Omit<Adjunct, 'dose' | 'weaning'> & Partial<Pick<Adjunct, 'dose' | 'weaning'>>;

const STAGE = {
  entry: null,
  adjuncts: [],
  loadRisePercent: 20,
  impactRisePercent: 20,
  contactsPerWeek: null,
  runMinutesPerWeek: null,
  skills: [],
  reviewEveryDays: 14,
} as const satisfies Partial<Stage>;

export type WrittenStage = Omit<Stage, keyof typeof STAGE | 'slots'> &
  Partial<Omit<Pick<Stage, keyof typeof STAGE>, 'adjuncts'>> & {
    readonly slots: readonly WrittenSlot[];
    readonly adjuncts?: readonly WrittenAdjunct[];
  };

const PROTOCOL = {
  toAge: null,
  confirm: [],
  excludes: [],
  endsOn: [],
  lookAgain: '',
  refer: [],
  bothSides: '',
  cannotTest: '',
  relapse: '',
  // The lower one where nothing is said.
  relapseTo: 'first',
  schools: [],
  unableAt: null,
  home: [],
} as const satisfies Partial<ProtocolDefinition>;

type Left = keyof typeof PROTOCOL | 'conditions' | 'stages';

/** A protocol as it is written, or as it was kept by an earlier version: what follows from the rules may be left out. */
export type WrittenProtocol = Omit<ProtocolDefinition, Left> &
  Partial<Pick<ProtocolDefinition, keyof typeof PROTOCOL | 'conditions'>> & {
    readonly stages: readonly WrittenStage[];
    /** As protocols were kept that were for one condition only. */
    readonly condition?: string;
  };

const completeSlot = (slot: WrittenSlot, at: number, aimOf: (exercise: string) => Aim): Slot => ({
  aim: aimOf(slot.start),
  priority: at + 1,
  sideRule: 'treated',
  ...slot,
});

/** The stage that is meant. */
export const completeStage = (stage: WrittenStage, aimOf: (exercise: string) => Aim): Stage => ({
  ...STAGE,
  ...stage,
  slots: stage.slots.map((slot, i) => completeSlot(slot, i, aimOf)),
  adjuncts: (stage.adjuncts ?? []).map((a) => ({ dose: null, weaning: null, ...a })),
});

/**
 * The protocol that is meant: slots in the order of their importance, on the treated side, with the aim of the exercise
 * they start from; a week's load may rise by a fifth; reviewed every two weeks.
 */
export function completeProtocol(
  written: WrittenProtocol,
  aimOf: (exercise: string) => Aim,
): ProtocolDefinition {
  const { condition, ...rest } = written;
  return {
    ...PROTOCOL,
    ...rest,
    conditions: written.conditions ?? (condition === undefined ? [] : [condition]),
    stages: written.stages.map((stage) => completeStage(stage, aimOf)),
  };
}
