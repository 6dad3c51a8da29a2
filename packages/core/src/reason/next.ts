import type { Tag } from '../exercise/definition.js';
import type { BodyPart, FindingDefinition, Ratio } from './definition.js';
import type { Known } from './known.js';
import { countingRatio, type RankedCondition, strongestOfGroups, type Weighing } from './rank.js';
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
}

const LEADING_SET = 4;
/** A push of at least this ratio says more than that it began gradually. */
const SPECIFIC = 2.9;
/** What must not be missed counts at least this much beside what leads, however rare. [convention] */
const STAKES = 0.05;
const LEAST_BITS = 0.002;

const entropy = (weights: readonly number[]): number => {
  const total = weights.reduce((a, b) => a + b, 0);
  return weights.reduce((bits, w) => (w <= 0 ? bits : bits - (w / total) * Math.log2(w / total)), 0);
};

const share = (odds: number): number => odds / (1 + odds);

/** How often a finding is present with and without a condition, from its two ratios; half of the people when it says nothing. */
function rates(ratio: Ratio): { withIt: number; without: number } {
  const spread = ratio.present - ratio.absent;
  if (Math.abs(spread) < 1e-9) return { withIt: 0.5, without: 0.5 };
  const without = Math.min(0.98, Math.max(0.02, (1 - ratio.absent) / spread));
  return { withIt: Math.min(0.98, Math.max(0.02, without * ratio.present)), without };
}

interface Effect {
  readonly present: number;
  readonly absent: number;
}

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

function judge(finding: FindingDefinition, leading: readonly Leading[]): Omit<NextBest, 'finding' | 'side'> {
  const odds = leading.map((l) => share(l.odds));
  const total = odds.reduce((a, b) => a + b, 0);
  const effects = leading.map((l) => {
    const ratio = finding.ratios[l.condition.key];
    return ratio === undefined ? null : { ratio, ...effect(ratio, l.held.get(finding.group) ?? 1) };
  });
  const known = effects.flatMap((e) => (e === null ? [] : [rates(e.ratio)]));
  const usual = known.reduce((sum, r) => sum + r.without, 0) / Math.max(1, known.length);
  const present = effects.reduce(
    (sum, e, i) => sum + ((odds[i] ?? 0) / total) * (e === null ? usual : rates(e.ratio).withIt),
    0,
  );
  const after = (state: 'present' | 'absent') =>
    leading.map((l, i) => share(l.odds * (effects[i]?.[state] ?? 1)));
  const expected = present * entropy(after('present')) + (1 - present) * entropy(after('absent'));
  const bits = Math.max(0, entropy(odds) - expected);
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
  const specific = here.filter((r) => r.keptBy !== null || r.for.some((p) => p.ratio >= SPECIFIC && !p.weak));
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
    const groups = strongestOfGroups(w.speaking.get(condition.key) ?? [], known, condition.side);
    const odds = dangerous(condition.key, w) ? Math.max(STAKES, condition.weight) : condition.weight;
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
    return [{ finding: finding.key, side: finding.sides === 'person' ? 'none' : side, ...judged }];
  });
}
