/** The patient's own left and right. */
export type Side = 'left' | 'right';

/** Which side a complaint is on; `none` when there is no treated side (prevention). */
export type Affected = Side | 'both' | 'none';

export const SIDES: readonly Side[] = ['left', 'right'];

/** The side that is not this one. */
export const otherSide = (side: Side): Side => (side === 'left' ? 'right' : 'left');

/** The treated sides, left first. */
export function treatedSides(affected: Affected): readonly Side[] {
  if (affected === 'both') return SIDES;
  return affected === 'none' ? [] : [affected];
}

export interface PerSide<T> {
  readonly left: T;
  readonly right: T;
}
