import type { PerSide } from '../quantity/side.js';

/** A number from a capture: its value, how much it varied between steps or goes, and how many there were. */
export interface Quantity {
  readonly value: number;
  readonly spread: number | null;
  readonly n: number;
}

/** What makes a capture not usable, or less sure; `refuse` keeps it from being kept. */
export interface QualityNote {
  readonly level: 'refuse' | 'warn';
  readonly key: string;
  readonly text: string;
}

/** The quantities of a capture by their names, for each foot; a foot without is not measured, never nought. */
export type Quantities = PerSide<Readonly<Record<string, Quantity>>>;

export const NO_QUANTITIES: Quantities = { left: {}, right: {} };

/** One go. */
export const single = (value: number): Quantity => ({ value, spread: null, n: 1 });

/** Several goes: their mean and spread. Null for none. */
export function several(values: readonly number[]): Quantity | null {
  const known = values.filter((v) => Number.isFinite(v));
  if (known.length === 0) return null;
  const value = known.reduce((s, v) => s + v, 0) / known.length;
  const spread =
    known.length < 2 ? null : Math.sqrt(known.reduce((s, v) => s + (v - value) ** 2, 0) / (known.length - 1));
  return { value, spread, n: known.length };
}

/** Leaves out what could not be told. */
export function known(
  quantities: Readonly<Record<string, Quantity | null>>,
): Readonly<Record<string, Quantity>> {
  return Object.fromEntries(
    Object.entries(quantities).filter(
      (e): e is [string, Quantity] => e[1] !== null && Number.isFinite(e[1].value),
    ),
  );
}
