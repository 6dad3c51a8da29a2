/** One way to fill a place: what it is worth and what it takes. */
export interface Choice {
  /** The exercise; none is chosen twice. */
  readonly exercise: string;
  readonly value: number;
  /** On the fullest day. */
  readonly minutes: number;
  /** What else it takes of what is limited, by name. */
  readonly takes: Readonly<Record<string, number>>;
  /** Worth a little more when nothing of this kind is in the plan yet. */
  readonly kind: string;
}

/** A place with the ways to fill it; one that must be filled, or may stay empty. */
export interface Place<C extends Choice> {
  readonly key: string;
  readonly choices: readonly C[];
  readonly must: boolean;
}

export interface PlannerLimits {
  readonly minutes: number;
  readonly count: number;
  /** Most of each limited thing; what is not named is not limited. */
  readonly most: Readonly<Record<string, number>>;
}

export interface Filled<C extends Choice> {
  readonly value: number;
  /** Chosen way by the key of its place. */
  readonly chosen: ReadonlyMap<string, C>;
  /** Nodes of the search that were looked at. */
  readonly looked: number;
}

/** What a first exercise of its kind is worth more. [convention] */
export const VARIETY = 0.5;

const SLACK = 1e-9;

interface Bound {
  readonly value: number;
  readonly minutes: number;
}

/** Most that some places can still bring: the best of each, as many as may be, in the minutes left. Never too low. */
function atMost(bounds: readonly Bound[], count: number, minutes: number): number {
  let byCount = 0;
  for (let i = 0; i < Math.min(count, bounds.length); i += 1) byCount += bounds[i]?.value ?? 0;
  let byMinutes = 0;
  let left = minutes;
  for (const b of [...bounds].sort((x, y) => y.value * x.minutes - x.value * y.minutes)) {
    if (b.minutes <= left) {
      byMinutes += b.value;
      left -= b.minutes;
    } else {
      byMinutes += b.minutes <= 0 ? b.value : (b.value * Math.max(0, left)) / b.minutes;
      break;
    }
  }
  return Math.min(byCount, byMinutes);
}

/**
 * Fills places so that the summed value is the highest possible within the limits: exact, by branch and bound. Of equal
 * fillings the one that fills earlier places with earlier choices is taken, so the answer never depends on chance.
 *
 * @returns null when the places that must be filled do not fit
 */
export function fillPlaces<C extends Choice>(
  places: readonly Place<C>[],
  limits: PlannerLimits,
): Filled<C> | null {
  const ordered = places.map((p) => ({ ...p, choices: [...p.choices].sort((a, b) => b.value - a.value) }));
  ordered.sort((a, b) => Number(b.must) - Number(a.must) || best(b) - best(a));
  const bounds = ordered.map((p) => ({
    value: best(p) + VARIETY,
    minutes: Math.min(...p.choices.map((c) => c.minutes)),
  }));
  const rest = ordered.map((_, i) => bounds.slice(i).sort((a, b) => b.value - a.value));
  const resources = Object.keys(limits.most);
  const state = { best: Number.NEGATIVE_INFINITY, chosen: null as ReadonlyMap<string, C> | null, looked: 0 };
  const taken = new Map<string, C>();
  const used = new Set<string>();
  const kinds = new Map<string, number>();
  const left = { minutes: limits.minutes, ...limits.most } as Record<string, number>;

  const fits = (c: C): boolean =>
    !used.has(c.exercise) &&
    c.minutes <= (left['minutes'] ?? 0) + SLACK &&
    resources.every((r) => (c.takes[r] ?? 0) <= (left[r] ?? 0) + SLACK);

  const put = (key: string, c: C, sign: 1 | -1): void => {
    if (sign === 1) {
      taken.set(key, c);
      used.add(c.exercise);
    } else {
      taken.delete(key);
      used.delete(c.exercise);
    }
    kinds.set(c.kind, (kinds.get(c.kind) ?? 0) + sign);
    left['minutes'] = (left['minutes'] ?? 0) - sign * c.minutes;
    for (const r of resources) left[r] = (left[r] ?? 0) - sign * (c.takes[r] ?? 0);
  };

  const search = (at: number, value: number): void => {
    state.looked += 1;
    const place = ordered[at];
    if (place === undefined) {
      if (value > state.best + SLACK) {
        state.best = value;
        state.chosen = new Map(taken);
      }
      return;
    }
    const open = limits.count - taken.size;
    if (value + atMost(rest[at] ?? [], open, left['minutes'] ?? 0) <= state.best + SLACK) return;
    if (open > 0)
      for (const c of place.choices) {
        if (!fits(c)) continue;
        const worth = c.value + ((kinds.get(c.kind) ?? 0) === 0 ? VARIETY : 0);
        put(place.key, c, 1);
        search(at + 1, value + worth);
        put(place.key, c, -1);
      }
    if (!place.must) search(at + 1, value);
  };
  search(0, 0);
  return state.chosen === null ? null : { value: state.best, chosen: state.chosen, looked: state.looked };
}

const best = (p: { readonly choices: readonly Choice[] }): number =>
  Math.max(0, ...p.choices.map((c) => c.value));
