import { say } from '../quantity/tongue.js';
import type { BodyPart, ConditionDefinition, FindingDefinition, Ratio } from './definition.js';
import { type Known, type KnownFinding, NO_ONE_PLACE } from './known.js';
import type { Column } from './sign.js';

export type Rank = 'leading' | 'likely' | 'possible' | 'unlikely';

/** One finding that moved a condition. */
export interface Push {
  readonly finding: string;
  readonly name: string;
  readonly state: 'present' | 'absent';
  readonly because: readonly string[];
  /** The ratio as it counts: within error no more than the weak grade, beside a stronger one of its cluster less. */
  readonly ratio: number;
  readonly weak: boolean;
  readonly source: string;
  /** Part of all that pushed either way, 0 to 1. */
  readonly share: number;
}

export interface RankedCondition {
  readonly key: string;
  readonly side: Column;
  readonly rank: Rank;
  /** Odds after all that is known, within what can be defended. Uncalibrated: most ratios are convention. Not rounded. */
  readonly weight: number;
  /** The same before it was kept within that: starting odds times every ratio; the order goes by it. */
  readonly raw: number;
  /** Why it is at most possible, whatever its weight; null when nothing holds it back. */
  readonly held: string | null;
  readonly startWeight: number;
  readonly for: readonly Push[];
  readonly against: readonly Push[];
  /** Findings that would say much and are not known, most telling first. */
  readonly missing: readonly string[];
  /** Why it stays in view whatever speaks against it; null when nothing keeps it. */
  readonly keptBy: string | null;
  /** Another condition of its family that stands above it and is shown instead. */
  readonly shownAs: string | null;
}

/** Ratios of the graded convention: for present and for absent. */
export const GRADES = {
  strong: { present: 6, absent: 0.3 },
  moderate: { present: 3, absent: 0.5 },
  weak: { present: 1.5, absent: 0.8 },
  /** Where it hurts, for a condition that hurts nowhere else. */
  place: { present: 6, absent: 0.1 },
} as const;

/** Limits of the words, in odds. Convention of ours, set before the cases held aside were looked at. */
export const RANK_LIMITS = { leading: 1, likely: 0.4, possible: 0.06, overNext: 1.5 } as const;
const LEADING_GROUPS = 2;
const MOST_PER_HUNDRED = 60;
const MOST_MISSING = 6;
/** Odds from which what is missing is worked out. */
const LOOKED_INTO = 0.02;
const TELLING = Math.log(2.9);

const bandOf = (bands: ConditionDefinition['byAge'], at: number | null): number =>
  at === null ? 1 : ([...bands].reverse().find((b) => at >= b.from)?.times ?? 1);

/** Odds before any finding, by how common it is, the age and the days since it began. */
function startingOdds(c: ConditionDefinition, ageYears: number | null, days: number | null): number {
  const share =
    Math.min(MOST_PER_HUNDRED, c.per100 * bandOf(c.byAge, ageYears) * bandOf(c.byDays, days)) / 100;
  return share / (1 - share);
}

/** The ratio of a known finding as it counts. */
export function countingRatio(ratio: Ratio, known: Pick<KnownFinding, 'state' | 'weak'>): number {
  if (known.state === 'unknown') return 1;
  const full = ratio[known.state];
  if (!known.weak) return full;
  return full > 1 ? Math.min(full, GRADES.weak.present) : Math.max(full, GRADES.weak.absent);
}

const strength = (ratio: number): number => Math.abs(Math.log(ratio));

export interface Speaking {
  readonly finding: FindingDefinition;
  readonly ratio: Ratio;
}

/** For each condition the findings that speak of it, by key order, so that nothing hangs on the order of answers. */
export function speakingOf(findings: readonly FindingDefinition[]): ReadonlyMap<string, readonly Speaking[]> {
  const map = new Map<string, Speaking[]>();
  for (const finding of [...findings].sort((a, b) => (a.key < b.key ? -1 : 1)))
    for (const [condition, ratio] of Object.entries(finding.ratios)) {
      const list = map.get(condition) ?? [];
      list.push({ finding, ratio });
      map.set(condition, list);
    }
  return map;
}

interface Counted extends Speaking {
  readonly known: KnownFinding;
  readonly value: number;
}

/** Beside the strongest of a cluster the others count by these powers; what tells the same thing again says little new. [convention] */
const CLUSTER_POWERS = [1, 0.8, 0.5] as const;
/** The most a cluster speaks for or against, however much of it is told. [convention] */
const CLUSTER_CAP = 25;

/** Correlated evidence tempered: one spot told twice, swelling by eye and by tape, the signs of one posture. */
function tempered(counted: readonly Counted[]): Counted[] {
  const clusters = new Map<string, Counted[]>();
  for (const c of counted) {
    const key = c.finding.cluster;
    if (key !== null) clusters.set(key, [...(clusters.get(key) ?? []), c]);
  }
  const powers = new Map<Counted, number>();
  for (const members of clusters.values()) {
    const sorted = [...members].sort(
      (a, b) => strength(b.value) - strength(a.value) || (a.finding.key < b.finding.key ? -1 : 1),
    );
    const own = sorted.map((_, i) => CLUSTER_POWERS[i] ?? 0);
    const sum = sorted.reduce((total, c, i) => total + Math.log(c.value) * (own[i] ?? 0), 0);
    const cap = Math.min(1, Math.log(CLUSTER_CAP) / Math.max(Math.abs(sum), 1e-9));
    sorted.forEach((c, i) => powers.set(c, (own[i] ?? 0) * cap));
  }
  return counted.map((c) => ({ ...c, value: c.value ** (powers.get(c) ?? 1) }));
}

/** Odds up to `from` are shown as they come out; beyond they approach `most`, past which nobody can defend them. [convention] */
export const DEFENSIBLE = { from: 4, most: 30 } as const;

/** Odds as they are shown: in order, and never further than a clinician would defend on findings alone. */
function defensible(odds: number): number {
  const x = Math.log(odds);
  const from = Math.log(DEFENSIBLE.from);
  const room = Math.log(DEFENSIBLE.most) - from;
  return x <= from ? odds : Math.exp(from + room * (1 - Math.exp(-(x - from) / (2 * room))));
}

/** Of every group only the strongest known finding. */
function strongestOfGroups(speaking: readonly Speaking[], known: Known, side: Column): Map<string, Counted> {
  const groups = new Map<string, Counted>();
  for (const { finding, ratio } of speaking) {
    const at = known.at(finding.key, side);
    const value = countingRatio(ratio, at);
    if (at.state === 'unknown') continue;
    const held = groups.get(finding.group);
    if (held === undefined || strength(value) > strength(held.value))
      groups.set(finding.group, { finding, ratio, known: at, value });
  }
  return groups;
}

function pushesOf(counted: readonly Counted[]): Push[] {
  const total = counted.reduce((sum, c) => sum + strength(c.value), 0);
  return counted
    .filter((c) => strength(c.value) > 0)
    .map((c) => ({
      finding: c.finding.key,
      name: c.finding.name,
      state: c.known.state as 'present' | 'absent',
      because: c.known.because,
      ratio: c.value,
      weak: c.known.weak,
      source: c.ratio.source,
      share: strength(c.value) / total,
    }))
    .sort((a, b) => b.share - a.share || (a.finding < b.finding ? -1 : 1));
}

/** What is known of a side, and by what it is weighed. */
export interface OnSide {
  readonly side: Column;
  readonly known: Known;
  readonly w: Weighing;
}

function missingOf(
  places: ReadonlySet<BodyPart>,
  speaking: readonly Speaking[],
  { known, side }: OnSide,
  told: ReadonlySet<string>,
): string[] {
  const telling = (r: Ratio) => Math.max(strength(r.present), strength(r.absent));
  const open = speaking
    .filter((s) => telling(s.ratio) >= TELLING && !told.has(s.finding.group))
    .filter((s) => places.has(s.finding.part) && known.at(s.finding.key, side).state === 'unknown')
    .sort((a, b) => telling(b.ratio) - telling(a.ratio) || (a.finding.key < b.finding.key ? -1 : 1));
  const groups = new Set<string>();
  return open
    .filter((s) => !groups.has(s.finding.group) && groups.add(s.finding.group) !== undefined)
    .slice(0, MOST_MISSING)
    .map((s) => s.finding.key);
}

export interface Weighing {
  readonly conditions: readonly ConditionDefinition[];
  readonly speaking: ReadonlyMap<string, readonly Speaking[]>;
  readonly ageYears: number | null;
  readonly daysSinceOnset: number | null;
  /** What counts for a condition on a side, by group; worked out once. */
  readonly groupsOf: (condition: string, side: Column, known: Known) => ReadonlyMap<string, Counted>;
}

/** A weighing that keeps what it has worked out. */
export function weighing(w: Omit<Weighing, 'groupsOf'>): Weighing {
  const kept: Record<Column, Map<string, ReadonlyMap<string, Counted>>> = {
    left: new Map(),
    right: new Map(),
    none: new Map(),
  };
  return {
    ...w,
    groupsOf: (condition, side, known) => {
      const held = kept[side].get(condition);
      if (held !== undefined) return held;
      const strongest = [...strongestOfGroups(w.speaking.get(condition) ?? [], known, side).values()];
      const groups = new Map(tempered(strongest).map((c) => [c.finding.group, c]));
      kept[side].set(condition, groups);
      return groups;
    },
  };
}

/** A push that says more than how it began or how common it is. */
const SPECIFIC = 2.9;
const SITE = 'site-';

/** Why a condition is at most possible although figures speak for it; null when nothing holds it back. */
function heldBack(
  c: ConditionDefinition,
  { side, known, w }: OnSide,
  counted: readonly Counted[],
): string | null {
  if (c.requires !== null && known.readSign(c.requires, side).state !== 'present')
    return say('form or figures alone are no diagnosis: nothing told fits it yet');
  const specific = (g: Counted) =>
    g.known.state === 'present' && !g.known.weak && g.ratio.present >= SPECIFIC;
  const denied = (g: Counted) => g.known.state === 'absent' && g.ratio.absent >= SPECIFIC;
  if (!counted.some((g) => specific(g) || denied(g))) return say('nothing specific speaks for it yet');
  if (NO_ONE_PLACE.includes(c.part)) return null;
  const speaking = (w.speaking.get(c.key) ?? []).filter(({ ratio }) => ratio.present > 1);
  const present = (s: Speaking) => known.at(s.finding.key, side).state === 'present';
  const places = speaking.filter(({ finding }) => finding.key.startsWith(SITE));
  const spots = speaking.filter(({ finding, ratio }) => finding.from === 'feel' && ratio.present >= SPECIFIC);
  const elsewhere =
    places.length > 0 && known.hurtsSomewhere(side) && !places.some(present) && !spots.some(present);
  return elsewhere ? say('it hurts elsewhere') : null;
}

/** The weight of one condition on a side, and what made it. */
function weigh(c: ConditionDefinition, on: OnSide, here: ReadonlySet<BodyPart>): RankedCondition {
  const { side, known, w } = on;
  const speaking = w.speaking.get(c.key) ?? [];
  const groups = w.groupsOf(c.key, side, known);
  const startWeight = startingOdds(c, w.ageYears, w.daysSinceOnset);
  const counted = [...groups.values()];
  const raw = counted.reduce((odds, g) => odds * g.value, startWeight);
  const weight = defensible(raw);
  const pushes = pushesOf(counted);
  const places = here.has(c.part) ? here : new Set([...here, c.part]);
  const keptBy = c.keep.map((k) => known.at(k, side)).find((k) => k.state === 'present');
  return {
    key: c.key,
    side,
    rank: 'unlikely',
    weight,
    startWeight,
    raw,
    held: heldBack(c, on, counted),
    for: pushes.filter((p) => p.ratio > 1),
    against: pushes.filter((p) => p.ratio < 1),
    missing:
      weight < LOOKED_INTO && keptBy === undefined
        ? []
        : missingOf(places, speaking, on, new Set(groups.keys())),
    keptBy: keptBy === undefined ? null : (known.byKey.get(keptBy.key)?.name ?? keptBy.key),
    shownAs: null,
  };
}

/** The word for a place in the order: what leads must be more likely than not, clearly ahead, and rest on two things. */
function wordFor(c: RankedCondition, next: RankedCondition | undefined, first: boolean): Rank {
  const told = c.for.filter((p) => !p.weak).length;
  if (c.held === null && first && c.raw >= RANK_LIMITS.leading && told >= LEADING_GROUPS) {
    const clear = next === undefined || c.raw >= next.raw * RANK_LIMITS.overNext;
    if (clear) return 'leading';
  }
  if (c.held === null && c.weight >= RANK_LIMITS.likely && c.for.length > 0) return 'likely';
  if (c.weight >= RANK_LIMITS.possible || c.keptBy !== null) return 'possible';
  return 'unlikely';
}

/** Ranks every condition on one side; families are shown once, under their strongest. */
function rankSide(conditions: readonly ConditionDefinition[], on: OnSide): RankedCondition[] {
  const { side, known } = on;
  const here = known.placesOn(side);
  const all = conditions
    .map((c) => ({ family: c.family, ranked: weigh(c, on, here) }))
    .sort((a, b) => b.ranked.raw - a.ranked.raw || (a.ranked.key < b.ranked.key ? -1 : 1));
  const heads = new Map<string, string>();
  return all.map(({ family, ranked }) => {
    if (family === null) return ranked;
    const head = heads.get(family);
    if (head !== undefined) return { ...ranked, shownAs: head };
    heads.set(family, ranked.key);
    return ranked;
  });
}

/** Puts the sides in one order and gives the words; at most one leading idea on each side. With no side told, all stand for the person. */
export function rankAll(sides: readonly Column[], known: Known, w: Weighing): RankedCondition[] {
  const ofSide = w.conditions.filter((c) => c.scope === 'side');
  const ofPerson = sides.length === 0 ? w.conditions : w.conditions.filter((c) => c.scope === 'person');
  const bySide = [
    ...sides.map((side) => rankSide(ofSide, { side, known, w })),
    rankSide(ofPerson, { side: 'none', known, w }),
  ];
  const person = bySide.at(-1) ?? [];
  const named = bySide.map((list, i) => {
    const rivals = [...list, ...(i === bySide.length - 1 ? bySide.slice(0, -1).flat() : person)]
      .filter((c) => c.shownAs === null)
      .filter((c) => c.held === null)
      .sort((a, b) => b.raw - a.raw);
    return list.map((c): RankedCondition => {
      const first = rivals[0] === c;
      return { ...c, rank: c.shownAs === null ? wordFor(c, rivals[1], first) : wordFor(c, undefined, false) };
    });
  });
  return named
    .flat()
    .sort((a, b) => b.raw - a.raw || (a.key < b.key ? -1 : a.key > b.key ? 1 : a.side < b.side ? -1 : 1));
}
