import { keep, setAside, stored } from '../../../api/kept.js';

const NEW = 'new';
const keyOf = (of: string): string => `heathstep.own-exercise.${of}`;

/** What is being made or changed, kept on this device until it is saved. */
export interface Draft {
  readonly id: string;
  readonly file: unknown;
}

export const storedDraft = (of = NEW): Draft | null => stored<Draft | null>(keyOf(of), null);
export const keepDraft = (draft: Draft, of = NEW): void => keep(keyOf(of), draft, false);
export const dropDraft = (of = NEW): void => keep(keyOf(of), null, true);
export const setDraftAside = (of = NEW): void => setAside(keyOf(of));
