import { createHash } from 'node:crypto';

/** The same id for the same thing on every load. */
export function demoId(...parts: string[]): string {
  const hex = createHash('sha256')
    .update(['heathstep demo', ...parts].join('/'))
    .digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}

export const CLINIC_ID = demoId('clinic');

/** The id of who signs in with this address. */
export const userId = (email: string): string => demoId('user', email);
/** Who takes the visits of the demo. */
export const CLINICIAN = userId('tomas.fell@heathstep.example');

/** The day of the demo at a moment; it lives in UTC. */
export const today = (now: Date): string => now.toISOString().slice(0, 10);
