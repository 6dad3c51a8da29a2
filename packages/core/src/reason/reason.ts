import type { Tag } from '../exercise/definition.js';
import { treatedSides, type Affected } from '../quantity/side.js';
import type { ReasonContent } from './definition.js';
import { type Driver, findDrivers } from './drivers.js';
import { type HeldTags, heldTags, type Verdict } from './held.js';
import { type FindingState, Known } from './known.js';
import { type NextBest, nextBest, type OpenSign } from './next.js';
import { rankAll, type RankedCondition, speakingOf, type Speaking, weighing } from './rank.js';
import { type ReferralReason, referralReasons } from './referral.js';
import type { Column, SignSource } from './sign.js';

export interface ReasonInput {
  /** Answers by hand, by `key.side`. */
  readonly answers: ReadonlyMap<string, FindingState>;
  readonly record: Omit<SignSource, 'finding'>;
  /** The sides with a complaint; null to take the sides that have a present finding. */
  readonly affected: Affected | null;
  readonly daysSinceOnset: number | null;
  /** What safety forbids on a side. */
  readonly tagsOff: (side: Column) => readonly Tag[];
  /** Open emergencies and urgents. */
  readonly stops?: readonly OpenSign[];
  /** What a clinician said of ideas. */
  readonly verdicts?: readonly Verdict[];
}

export interface Reasoning {
  readonly sides: readonly Column[];
  /** Every condition on every side, heaviest first. */
  readonly ranked: readonly RankedCondition[];
  /** True when nothing leads on any side. */
  readonly cannotTell: boolean;
  readonly drivers: readonly Driver[];
  readonly next: readonly NextBest[];
  readonly referral: readonly ReferralReason[];
  /** Tags that the ideas in view switch off. */
  readonly held: readonly HeldTags[];
  readonly known: Known;
}

const kept = new WeakMap<ReasonContent, ReadonlyMap<string, readonly Speaking[]>>();

function speaking(content: ReasonContent): ReadonlyMap<string, readonly Speaking[]> {
  const found = kept.get(content) ?? speakingOf(content.findings);
  kept.set(content, found);
  return found;
}

/** A record that says nothing; with it only the answers count. */
export function emptyRecord(ageYears: number | null): ReasonInput['record'] {
  return {
    measured: () => null,
    measure: () => undefined,
    told: () => null,
    marked: () => null,
    safety: () => null,
    seen: () => null,
    point: () => null,
    ageYears,
  };
}

function setUp(content: ReasonContent, input: ReasonInput) {
  const known = new Known(content.findings, input.answers, input.record);
  const sides: readonly Column[] =
    input.affected === null || input.affected === 'none' ? known.sidesTold() : treatedSides(input.affected);
  const w = weighing({
    conditions: content.conditions,
    speaking: speaking(content),
    ageYears: input.record.ageYears,
    daysSinceOnset: input.daysSinceOnset,
  });
  return { known, sides, w, ranked: rankAll(sides, known, w) };
}

/** What safety forbids on a side, and what the ideas in view hold back there. */
const offOn =
  (tagsOff: ReasonInput['tagsOff'], held: readonly HeldTags[]): ReasonInput['tagsOff'] =>
  (side) => [
    ...tagsOff(side),
    ...held.filter((h) => side === 'none' || h.side === side || h.side === 'none').flatMap((h) => h.tags),
  ];

/** The ranking alone, for a what-if. */
export const rankOnly = (content: ReasonContent, input: ReasonInput): readonly RankedCondition[] =>
  setUp(content, input).ranked;

/**
 * What it is, what keeps it going, and what to test next, from everything known.
 * Log-odds add up over groups of findings; unknown stays unknown; conditions may stand beside each other, each side its own.
 */
export function reasonAbout(content: ReasonContent, input: ReasonInput): Reasoning {
  const { known, sides, w, ranked } = setUp(content, input);
  const { held, drivers, tagsOff } = worked(content, input, { known, sides, ranked });
  return {
    sides,
    ranked,
    cannotTell: !ranked.some((r) => r.rank === 'leading'),
    drivers,
    next: nextBest(ranked, { known, w }, { tagsOff, stops: input.stops }),
    referral: referralReasons(content.conditions, ranked, known),
    held,
    known,
  };
}

/** What prescribing goes by of it: what keeps it going, and what is held back by what it may be. */
export type Worked = Pick<Reasoning, 'drivers' | 'held'>;

/** The same without what to test next, which takes most of the time. */
export function workedOn(content: ReasonContent, input: ReasonInput): Worked {
  const { held, drivers } = worked(content, input, setUp(content, input));
  return { held, drivers };
}

function worked(
  content: ReasonContent,
  input: ReasonInput,
  { known, sides, ranked }: Pick<ReturnType<typeof setUp>, 'known' | 'sides' | 'ranked'>,
) {
  const held = heldTags(content.conditions, ranked, input.verdicts);
  const tagsOff = offOn(input.tagsOff, held);
  return { held, tagsOff, drivers: findDrivers(content.drivers, known, sides, tagsOff) };
}
