/** One thing wrong with an input: where, what was given, and the bound it broke. */
export interface Issue {
  /** Dotted path of the field, e.g. `tempo.upSeconds`. */
  readonly path: string;
  readonly value: unknown;
  /** The bound in words, e.g. `more than 0 and less than 1`. */
  readonly bound: string;
}

export type Result<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly issues: readonly Issue[] };

/** A value that was taken. */
export const ok = <T>(value: T): Result<T> => ({ ok: true, value });

/** An input that was not taken, with every issue found. */
export const refused = (...issues: Issue[]): Result<never> => ({ ok: false, issues });

/** One thing wrong: where, what was given, and the bound in words. */
export const issue = (path: string, value: unknown, bound: string): Issue => ({
  path,
  value,
  bound,
});

/** Thrown by the `OrThrow` twins only; carries every issue found. */
export class RefusedInput extends Error {
  constructor(readonly issues: readonly Issue[]) {
    super(issues.map((i) => `${i.path}: ${String(i.value)} is not ${i.bound}`).join('; '));
    this.name = 'RefusedInput';
  }
}

/** The value; throws `RefusedInput` where there is none. For callers that have checked already. */
export function orThrow<T>(result: Result<T>): T {
  if (result.ok) return result.value;
  throw new RefusedInput(result.issues);
}

/** Collects an issue for every field outside its closed range; an absent field is an issue too. */
export function outsideRanges(
  values: object,
  ranges: Readonly<Record<string, readonly [min: number, max: number]>>,
): Issue[] {
  const given = values as Record<string, unknown>;
  return Object.entries(ranges).flatMap(([path, [min, max]]) => {
    const value = given[path];
    const fits = typeof value === 'number' && Number.isFinite(value) && value >= min && value <= max;
    return fits ? [] : [issue(path, value, `a number from ${min} to ${max}`)];
  });
}
