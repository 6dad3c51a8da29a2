import type { Tag } from '../exercise/definition.js';
import type { BodyPart, FindingDefinition, Ratio } from './definition.js';
import type { Known } from './known.js';
import { countingRatio, type RankedCondition, type Weighing } from './rank.js';
import type { Column } from './sign.js';

/** What an answer would do to one condition. */
export interface WouldDo {
  readonly condition: string;
  readonly factor: number;
}

export interface NextBest {
  readonly finding: string;
  readonly side: Column;
  /** Bits of uncertainty over the leading conditions it is expected to take away. */
  readonly bits: number;
  readonly minutes: number;
  readonly bitsPerMinute: number;
  readonly ifPresent: readonly WouldDo[];
  readonly ifAbsent: readonly WouldDo[];
  /** What asking it is for, in words. */
  readonly why: string;
}

const LEADING_SET = 4;
/** A push of at least this ratio says more than that it began gradually. */
const SPECIFIC = 2.9;
/** What must not be missed starts from at least these odds beside what leads, however rare. [convention] */
const STAKES = 0.05;
const LEAST_BITS = 0.002;

/** Bits of not knowing whether something with this probability is there. */
const entropy = (p: number): number =>
  p <= 0 || p >= 1 ? 0 : -p * Math.log2(p) - (1 - p) * Math.log2(1 - p);

const share = (odds: number): number => odds / (1 + odds);

interface Effect {
  readonly present: number;
  readonly absent: number;
}

const NO_EFFECT: Effect = { present: 1, absent: 1 };

/** What an answer changes for a condition, its group's strongest so far taken into account. */
function effect(ratio: Ratio, held: number): Effect {
  const factor = (state: 'present' | 'absent') => {
    const value = countingRatio(ratio, { state, weak: false });
    return Math.abs(Math.log(value)) > Math.abs(Math.log(held)) ? value / held : 1;
  };
  return { present: factor('present'), absent: factor('absent') };
}

interface Leading {
  readonly condition: RankedCondition;
  readonly odds: number;
  readonly held: ReadonlyMap<string, number>;
}

const RATE_LIMITS = { least: 0.02, most: 0.98 } as const;
const within = (rate: number): number => Math.min(RATE_LIMITS.most, Math.max(RATE_LIMITS.least, rate));

/** How often the finding is present, from how likely the condition is and what either answer would do to it. */
function rateOf(p: number, effect: Effect): number {
  const spread = effect.present - effect.absent;
  if (Math.abs(spread) < 1e-9) return 0.5;
  const without = within((1 - effect.absent) / spread);
  return p * within(without * effect.present) + (1 - p) * without;
}

/** Bits that asking is expected to take away from one condition. */
function bitsOf(odds: number, effect: Effect): number {
  const p = share(odds);
  const present = rateOf(p, effect);
  const after =
    present * entropy(share(odds * effect.present)) + (1 - present) * entropy(share(odds * effect.absent));
  return Math.max(0, entropy(p) - after);
}

type Judged = Omit<NextBest, 'finding' | 'side' | 'why'>;

/** Which conditions an answer would move, in words. */
function purposeOf(judged: Judged, w: Weighing): string {
  const names = [...judged.ifPresent, ...judged.ifAbsent].map(
    (d) => w.conditions.find((c) => c.key === d.condition)?.name ?? d.condition,
  );
  return `tells more about ${[...new Set(names)].join(', ')}`;
}

function judge(finding: FindingDefinition, leading: readonly Leading[]): Judged {
  const effects = leading.map((l): Effect => {
    const ratio = finding.ratios[l.condition.key];
    return ratio === undefined ? NO_EFFECT : effect(ratio, l.held.get(finding.group) ?? 1);
  });
  const bits = effects.reduce(
    (sum, e, i) => sum + (e === NO_EFFECT ? 0 : bitsOf(leading[i]?.odds ?? 0, e)),
    0,
  );
  const would = (state: 'present' | 'absent') =>
    leading.flatMap((l, i): WouldDo[] => {
      const factor = effects[i]?.[state] ?? 1;
      return factor === 1 ? [] : [{ condition: l.condition.key, factor }];
    });
  return {
    bits,
    minutes: finding.minutes,
    bitsPerMinute: bits / finding.minutes,
    ifPresent: would('present'),
    ifAbsent: would('absent'),
  };
}

/**
 * Unasked findings by the uncertainty they are expected to take away over the leading conditions, per minute.
 * Never one that is known, was left out on purpose, repeats a group that has spoken clearly, or that safety forbids on that side.
 */
export function nextBest(
  ranked: readonly RankedCondition[],
  known: Known,
  w: Weighing,
  tagsOff: (side: Column) => readonly Tag[],
): NextBest[] {
  const sides = [...new Set(ranked.map((r) => r.side))].filter((s) => s !== 'none');
  return (sides.length === 0 ? (['none'] as const) : sides)
    .flatMap((side) => nextOnSide(side, ranked, known, w, tagsOff(side)))
    .sort((a, b) => b.bitsPerMinute - a.bitsPerMinute || (a.finding < b.finding ? -1 : 1))
    .filter((n, i, all) => all.findIndex((o) => o.finding === n.finding && o.side === n.side) === i);
}

interface Heads {
  readonly conditions: readonly RankedCondition[];
  /** Parts of the body worth asking about; null while nothing specific is known. */
  readonly places: ReadonlySet<BodyPart> | null;
}

/**
 * The conditions a next question is to tell apart: those with something specific for them, heaviest first, and what
 * the first of them is easily taken for. While nothing specific is known, the heaviest.
 */
function leadingSet(side: Column, ranked: readonly RankedCondition[], known: Known, w: Weighing): Heads {
  const here = ranked.filter((r) => r.shownAs === null && (r.side === side || r.side === 'none'));
  const ownSide = (finding: string) => known.byKey.get(finding)?.sides === 'each';
  const specific = here.filter(
    (r) =>
      r.keptBy !== null ||
      r.for.some((p) => p.ratio >= SPECIFIC && !p.weak && (r.side === 'none' || ownSide(p.finding))),
  );
  if (specific.length === 0) return { conditions: here.slice(0, LEADING_SET * 2), places: null };
  const heads = specific.slice(0, LEADING_SET);
  const definitionOf = (key: string) => w.conditions.find((c) => c.key === key);
  const alike = new Set(definitionOf(heads[0]?.key ?? '')?.likeness ?? []);
  const conditions = [...heads, ...here.filter((r) => alike.has(r.key) && !heads.includes(r))];
  const parts = conditions.flatMap((r) => definitionOf(r.key)?.part ?? []);
  return { conditions, places: new Set([...known.placesOn(side), ...parts]) };
}

const dangerous = (key: string, w: Weighing): boolean => {
  const c = w.conditions.find((x) => x.key === key);
  return c?.care === 'medical' || (c?.keep.length ?? 0) > 0;
};

function nextOnSide(
  side: Column,
  ranked: readonly RankedCondition[],
  known: Known,
  w: Weighing,
  off: readonly Tag[],
): NextBest[] {
  const heads = leadingSet(side, ranked, known, w);
  const leading = heads.conditions.map((condition): Leading => {
    const groups = w.groupsOf(condition.key, condition.side, known);
    const raised = dangerous(condition.key, w) ? Math.max(1, STAKES / condition.startWeight) : 1;
    const odds = condition.weight * raised;
    return { condition, odds, held: new Map([...groups].map(([g, c]) => [g, c.value])) };
  });
  if (leading.length === 0) return [];
  const speaking = heads.conditions.flatMap((c) => (w.speaking.get(c.key) ?? []).map((s) => s.finding));
  const spoken = new Set(
    known.findings.flatMap((f) => {
      const at = known.at(f.key, side);
      return at.state === 'present' && !at.weak ? [f.group] : [];
    }),
  );
  return [...new Set(speaking)].flatMap((finding): NextBest[] => {
    const at = known.at(finding.key, side);
    if (at.state !== 'unknown' || at.notTested || spoken.has(finding.group)) return [];
    if (heads.places?.has(finding.part) === false) return [];
    if (finding.needs.some((t) => off.includes(t))) return [];
    const judged = judge(finding, leading);
    if (judged.bits < LEAST_BITS) return [];
    return [
      {
        finding: finding.key,
        side: finding.sides === 'person' ? 'none' : side,
        ...judged,
        why: purposeOf(judged, w),
      },
    ];
  });
}
