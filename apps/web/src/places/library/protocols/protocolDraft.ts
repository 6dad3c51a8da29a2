import type { ProtocolDefinition } from '@heathstep/core';
import { keep, setAside, stored } from '../../../api/kept.js';

/** What was changed on this device and not saved yet. */
export interface KeptDraft {
  readonly edition: number;
  readonly protocol: ProtocolDefinition;
}

const at = (key: string): string => `heathstep.protocol.${key}`;

export const keptDraft = (key: string): KeptDraft | null => stored<KeptDraft | null>(at(key), null);

export const keepDraft = (key: string, draft: KeptDraft | null): void => keep(at(key), draft, draft === null);

export const setDraftAside = (key: string): void => setAside(at(key));
