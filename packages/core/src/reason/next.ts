import { say } from '../quantity/tongue.js';
import type { Tag } from '../exercise/definition.js';
import type { BodyPart, ConditionDefinition, FindingDefinition, Ratio } from './definition.js';
import type { Known } from './known.js';
import { countingRatio, type OnSide, type RankedCondition, type Weighing } from './rank.js';
import type { Column } from './sign.js';

/** What an answer would do to one condition. */
export interface WouldDo {
  readonly condition: string;
  readonly factor: number;
}

export interface NextBest {
  readonly finding: string;
  /** `both` where it is asked of each foot in one go. */
  readonly side: Column | 'both';
  /** Bits of uncertainty over the leading conditions it is expected to take away. */
  readonly bits: number;
  readonly minutes: number;
  readonly bitsPerMinute: number;
  /** Bits a minute times what the answer is worth: danger first, then what changes the plan. */
  readonly worth: number;
  readonly ifPresent: readonly WouldDo[];
  readonly ifAbsent: readonly WouldDo[];
  /** What asking it is for, in words. */
  readonly why: string;
}

/** An open emergency or urgent sign, as the reasoning sees it. */
export interface OpenSign {
  readonly title: string;
  readonly side: Column;
  /** Findings that bear on it: all that is asked while it is open. */
  readonly checks: readonly string[];
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

/** How often a finding that speaks only when it is present is there without the condition. [convention] */
const SILENT_RATE = 0.12;

/** How often the finding is present, from how likely the condition is and what either answer would do to it. */
function rateOf(p: number, effect: Effect): number {
  if (Math.abs(effect.absent - 1) < 1e-9) {
    return p * within(SILENT_RATE * effect.present) + (1 - p) * SILENT_RATE;
  }
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

type Judged = Omit<NextBest, 'finding' | 'side' | 'why' | 'worth'>;

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

/** What an answer is worth beside its bits, as factors. [convention] */
const WORTH = { danger: 2, refer: 1.4, changesPlan: 1.3, picture: 3, elsewhere: 0.35 } as const;

/** The ratio of a push that settles a danger one way or the other. */
const SETTLES = { present: 2.9, absent: 0.5 } as const;

interface Worth {
  readonly factor: number;
  readonly why: string;
}

/** A name within a sentence; names of people and abbreviations keep their capital. */
const inText = (name: string): string =>
  /^(Achilles|Charcot|[A-Z]{2})/.test(name) ? name : name.charAt(0).toLowerCase() + name.slice(1);

/** Whether two ideas are treated in different ways, so that telling them apart changes what is done. */
const differently = (a: ConditionDefinition, b: ConditionDefinition): boolean =>
  a.care !== b.care || a.pathway !== b.pathway || a.holds.join() !== b.holds.join();

/** First what rules out a danger still possible, then what tells ideas apart that are treated differently. */
function worthOf(
  finding: FindingDefinition,
  judged: Judged,
  leading: readonly Leading[],
  { known, side, w }: OnSide,
): Worth {
  const definitionOf = (key: string) => w.conditions.find((c) => c.key === key);
  const moved = [...new Set([...judged.ifPresent, ...judged.ifAbsent].map((d) => d.condition))].flatMap(
    (key) => definitionOf(key) ?? [],
  );
  const settles = (key: string) =>
    judged.ifPresent.some((d) => d.condition === key && d.factor >= SETTLES.present) ||
    judged.ifAbsent.some((d) => d.condition === key && d.factor <= SETTLES.absent);
  const stillPossible = (key: string) =>
    leading.some(
      (l) => l.condition.key === key && (l.condition.rank !== 'unlikely' || l.condition.keptBy !== null),
    );
  const danger = moved.find((c) => c.care === 'medical' && settles(c.key) && stillPossible(c.key));
  const referred = moved.find((c) => c.care === 'refer' && settles(c.key) && stillPossible(c.key));
  const [first] = leading.flatMap((l) => definitionOf(l.condition.key) ?? []);
  const rival =
    first === undefined
      ? undefined
      : moved.find((c) => c.key !== first.key && moved.includes(first) && differently(first, c));
  const picture = finding.rises !== null && known.readSign(finding.rises, side).state === 'present';
  const here = known.placesOn(side).has(finding.part);
  const factor =
    (danger !== undefined ? WORTH.danger : referred !== undefined ? WORTH.refer : 1) *
    (rival === undefined ? 1 : WORTH.changesPlan) *
    (picture ? WORTH.picture : 1) *
    (here || !known.hurtsSomewhere(side) ? 1 : WORTH.elsewhere);
  const why =
    danger !== undefined
      ? say('rules {{in}} in or out', { in: inText(danger.name) })
      : picture
        ? say('feeling, reflexes and strength belong to this picture')
        : rival !== undefined && first !== undefined
          ? say('tells {{in}} from {{in2}}', { in: inText(first.name), in2: inText(rival.name) })
          : say('says more of {{list}}', {
              list: moved
                .slice(0, 2)
                .map((c) => inText(c.name))
                .join(say(' and ')),
            });
  return { factor, why };
}

/** The few checks of open signs, and nothing else: while one is open nothing is handled that could harm. */
function checksOf(stops: readonly OpenSign[], known: Known): NextBest[] {
  return stops.flatMap((stop) =>
    stop.checks.flatMap((key): NextBest[] => {
      const finding = known.byKey.get(key);
      if (finding === undefined) return [];
      const side = finding.sides === 'person' ? 'none' : stop.side;
      const at = known.at(key, side);
      if (at.state !== 'unknown' || at.notTested) return [];
      const { minutes } = finding;
      const bits = 1;
      return [
        {
          finding: key,
          side,
          bits,
          minutes,
          bitsPerMinute: bits / minutes,
          worth: bits / minutes,
          ifPresent: [],
          ifAbsent: [],
          why: say('checks what is open: {{title}}', { title: stop.title }),
        },
      ];
    }),
  );
}

/** One place in the list for both feet, at the better of the two. */
function joined(list: readonly NextBest[]): NextBest[] {
  const order = [...list].sort((a, b) => b.worth - a.worth || (a.finding < b.finding ? -1 : 1));
  return order.flatMap((n, i): NextBest[] => {
    const same = order.filter((o) => o.finding === n.finding);
    if (order.indexOf(same[0] ?? n) !== i) return [];
    const sides = new Set(same.map((o) => o.side));
    return [sides.has('left') && sides.has('right') ? { ...n, side: 'both' } : n];
  });
}

/**
 * Unasked findings by what their answer is worth a minute: the uncertainty they are expected to take away over the leading
 * conditions, danger before what changes the plan. Never one that is known, was left out on purpose, repeats a group that
 * has spoken clearly, has no ground to be asked, or that safety forbids on that side. With an emergency or urgent sign open
 * only its own checks.
 */
export function nextBest(
  ranked: readonly RankedCondition[],
  { known, w }: Omit<OnSide, 'side'>,
  off: {
    readonly tagsOff: (side: Column) => readonly Tag[];
    readonly stops?: readonly OpenSign[] | undefined;
  },
): NextBest[] {
  const { tagsOff, stops = [] } = off;
  if (stops.length > 0) return joined(checksOf(stops, known));
  const sides = [...new Set(ranked.map((r) => r.side))].filter((s) => s !== 'none');
  return joined(
    (sides.length === 0 ? (['none'] as const) : sides).flatMap((side) =>
      nextOnSide(ranked, { side, known, w }, tagsOff(side)),
    ),
  );
}

interface Heads {
  readonly conditions: readonly RankedCondition[];
  /** Parts of the body worth asking about; null while nothing specific is known. */
  readonly places: ReadonlySet<BodyPart> | null;
}

/**
 * The conditions a next question is to tell apart: those with something specific for them, heaviest first, and what
 * the first of them is easily taken for. While nothing specific is known, the heaviest. Place comes first, likeness second:
 * nothing is asked of a region that does not hurt and is not that of an idea with something specific for it.
 */
function leadingSet(ranked: readonly RankedCondition[], { side, known, w }: OnSide): Heads {
  const here = ranked.filter((r) => r.shownAs === null && (r.side === side || r.side === 'none'));
  const ownSide = (finding: string) => known.byKey.get(finding)?.sides === 'each';
  const specific = here.filter(
    (r) =>
      r.keptBy !== null ||
      (r.held === null &&
        r.for.some((p) => p.ratio >= SPECIFIC && !p.weak && (r.side === 'none' || ownSide(p.finding)))),
  );
  const told = known.placesOn(side);
  if (specific.length === 0)
    return {
      conditions: here.slice(0, LEADING_SET * 2),
      places: known.hurtsSomewhere(side) ? told : null,
    };
  const heads = specific.slice(0, LEADING_SET);
  const definitionOf = (key: string) => w.conditions.find((c) => c.key === key);
  const alike = new Set(definitionOf(heads[0]?.key ?? '')?.likeness ?? []);
  const conditions = [...heads, ...here.filter((r) => alike.has(r.key) && !heads.includes(r))];
  const parts = heads.flatMap((r) => definitionOf(r.key)?.part ?? []);
  return { conditions, places: new Set([...told, ...parts]) };
}

const dangerous = (key: string, w: Weighing): boolean => {
  const c = w.conditions.find((x) => x.key === key);
  return c?.care === 'medical' || (c?.keep.length ?? 0) > 0;
};

function nextOnSide(ranked: readonly RankedCondition[], on: OnSide, off: readonly Tag[]): NextBest[] {
  const { side, known, w } = on;
  const heads = leadingSet(ranked, on);
  const leading = heads.conditions.map((condition): Leading => {
    const groups = w.groupsOf(condition.key, condition.side, known);
    const raised = dangerous(condition.key, w) ? Math.max(1, STAKES / condition.startWeight) : 1;
    const odds = condition.raw * raised;
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
    if (finding.onlyIf !== null && known.readSign(finding.onlyIf, side).state !== 'present') return [];
    if (finding.needs.some((t) => off.includes(t))) return [];
    const judged = judge(finding, leading);
    if (judged.bits < LEAST_BITS) return [];
    const worth = worthOf(finding, judged, leading, on);
    return [
      {
        finding: finding.key,
        side: finding.sides === 'person' ? 'none' : side,
        ...judged,
        worth: judged.bitsPerMinute * worth.factor,
        why: worth.why,
      },
    ];
  });
}
