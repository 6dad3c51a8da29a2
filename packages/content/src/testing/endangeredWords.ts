import type { Limits, Tag } from '@heathstep/core';

/** Limits a surgeon told. */
export const limits = (weightBearing: Limits['weightBearing'], allowed: readonly Tag[]): Limits => ({
  what: 'surgery',
  day: '2026-03-01',
  weightBearing,
  partialKg: weightBearing === 'partial' ? 20 : null,
  allowed,
  text: 'as told',
  by: 'surgeon',
});

export const RAISES = [
  'raise-two-legs',
  'raise-one-leg',
  'raise-up-two-down-one',
  'raise-towel-one-leg',
] as const;
export const CALF = ['calf-belt', 'band-push-down', 'raise-seated', 'calf-wall-straight', ...RAISES] as const;
